<script setup lang="ts">
import { mdiHistory } from '@mdi/js'
import { computed, ref } from 'vue'
import { useBench } from '../../stores/bench'

/** All steps of a version, the newest first; a click goes to one, and those after it stay until something is changed. */
const bench = useBench()
const open = ref(false)
const steps = computed(() => [...(bench.version?.history ?? [])].reverse())

function go(position: number): void {
  void bench.goTo(() => position)
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" location="bottom start">
    <template #activator="{ props }">
      <v-btn
        v-bind="props"
        :icon="mdiHistory"
        :disabled="!bench.version"
        title="All steps (H)"
        aria-label="History"
        data-test="history" />
    </template>
    <ol class="steps" aria-label="Steps of this version">
      <li v-for="each in steps" :key="each.position">
        <button
          :class="{
            now: each.position === bench.version?.position,
            undone: each.position > (bench.version?.position ?? 0),
          }"
          :aria-current="each.position === bench.version?.position ? 'step' : undefined"
          data-test="history-step"
          @click="go(each.position)">
          <span class="quiet number">{{ each.position }}</span>
          {{ each.name }}
        </button>
      </li>
    </ol>
  </v-menu>
</template>

<style scoped>
.steps {
  list-style: none;
  margin: 0;
  padding: 4px 0;
  width: 240px;
  max-height: 60vh;
  overflow: auto;
  background: var(--panel);
  border: 1px solid var(--strong-line);
  border-radius: 4px;
}
.steps button {
  width: 100%;
  text-align: left;
  padding: 4px 12px;
  color: var(--ink);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.steps button:hover {
  background: rgba(128, 128, 128, 0.16);
}
.steps button.now {
  box-shadow: inset 2px 0 0 var(--accent);
  background: rgba(128, 128, 128, 0.22);
}
.steps button.undone {
  color: var(--dim);
}
.number {
  display: inline-block;
  width: 30px;
  font-size: 11px;
}
</style>
