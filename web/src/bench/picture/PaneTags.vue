<script setup lang="ts">
import type { Pane } from './panes'
import type { Place } from './stageView'
import type { Extent } from './viewport'

/** Names of pictures that are shown beside each other, and the seams between them. */
defineProps<{ panes: Pane[]; pane: Extent; rows: number; originOf: (i: number) => Place }>()
</script>

<template>
  <span
    v-for="(each, i) in panes"
    :key="each.key"
    class="tag"
    data-test="pane"
    :style="{ left: `${originOf(i).x + 12}px`, top: `${originOf(i).y + 12}px`, maxWidth: `${pane.width - 24}px` }">
    {{ each.title }}
    <span v-if="each.about" class="about">{{ each.about }}</span>
  </span>
  <template v-if="panes.length > 1">
    <span class="seam" :style="{ left: `${pane.width}px` }" />
    <span v-if="rows > 1" class="seam level" :style="{ top: `${pane.height}px` }" />
  </template>
</template>

<style scoped>
.tag {
  position: absolute;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
  font-size: 11px;
  padding: 1px 7px;
  border-radius: 2px;
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  pointer-events: none;
}
.about {
  margin-left: 8px;
  color: #bdbdbd;
}
.seam {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 1px;
  background: var(--strong-line);
  pointer-events: none;
}
.seam.level {
  left: 0;
  right: 0;
  bottom: auto;
  width: auto;
  height: 1px;
}
</style>
