<script setup lang="ts">
import { useBench } from '../stores/bench'
import { steps } from './steps'

const bench = useBench()
</script>

<template>
  <nav class="rail" aria-label="Steps">
    <button
      v-for="each in steps"
      :key="each.key"
      :class="{ open: bench.step === each.key }"
      :aria-current="bench.step === each.key ? 'step' : undefined"
      :title="each.hint"
      :data-test="`step-${each.key}`"
      @click="bench.step = each.key">
      <v-icon :icon="each.icon" size="20" />
      <span>{{ each.name }}</span>
    </button>
  </nav>
</template>

<style scoped>
.rail {
  background: var(--panel);
  border-right: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  padding-top: 6px;
}
.rail button {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 11px 0 9px;
  color: var(--dim);
  font-size: 11px;
  letter-spacing: -0.01em;
  position: relative;
}
.rail button:hover {
  color: var(--ink);
}
.rail button.open {
  color: var(--ink);
  background: rgba(128, 128, 128, 0.14);
  box-shadow: inset 2px 0 0 var(--accent);
}
</style>
