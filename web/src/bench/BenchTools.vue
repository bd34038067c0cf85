<script setup lang="ts">
import { mdiArrowLeft, mdiKeyboardOutline, mdiRedo, mdiUndo } from '@mdi/js'
import { useBench } from '../stores/bench'
import HistoryMenu from './versions/HistoryMenu.vue'
import VersionsMenu from './versions/VersionsMenu.vue'

/** Way back, versions and history of the shot, and what the keys do. */
const bench = useBench()
const emit = defineEmits<{ copy: []; keys: [] }>()
const stepName = (position: number): string =>
  bench.version?.history.find((each) => each.position === position)?.name ?? ''
</script>

<template>
  <div class="tools">
    <router-link :to="bench.shot ? `/shoots/${bench.shot.shootId}` : '/shoots'" class="name" :title="bench.shot?.name">
      <v-icon :icon="mdiArrowLeft" size="14" />
      {{ bench.shot?.name }}
    </router-link>
    <VersionsMenu @copy="emit('copy')" />
    <span class="rule" />
    <HistoryMenu />
    <v-btn
      :icon="mdiUndo"
      :disabled="!bench.canUndo"
      :title="`Undo ${stepName(bench.version?.position ?? 0)} (Ctrl Z)`"
      aria-label="Undo"
      data-test="undo"
      @click="bench.undo" />
    <v-btn
      :icon="mdiRedo"
      :disabled="!bench.canRedo"
      title="Redo (Ctrl Shift Z)"
      aria-label="Redo"
      data-test="redo"
      @click="bench.redo" />
    <span class="rule" />
    <v-btn
      :icon="mdiKeyboardOutline"
      title="What the keys do (?)"
      aria-label="What the keys do"
      data-test="keys"
      @click="emit('keys')" />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  align-items: center;
  gap: 4px;
  min-width: 0;
  padding-left: 12px;
  border-left: 1px solid var(--line);
}
.tools .name {
  color: var(--ink);
  text-decoration: none;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  margin-right: 6px;
}
.rule {
  width: 1px;
  height: 18px;
  background: var(--line);
  margin: 0 4px;
}
</style>
