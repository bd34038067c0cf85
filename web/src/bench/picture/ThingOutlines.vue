<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { useBench } from '../../stores/bench'
import { outline, unpacked } from './things'
import type { Extent, Viewport } from './viewport'

/** Numbered outlines of the things to choose from; one alone needs no number. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()
const bench = useBench()

const shown = computed(() => {
  const found = bench.things
  if (!found || found.things.length < 2) return []
  const labels = unpacked(found)
  return found.things.map((each) => ({ ...each, path: outline(labels, found.width, found.height, each.number) }))
})
const transform = computed(() => {
  const found = bench.things
  const { x, y, scale } = props.viewport
  return found
    ? `translate(${x},${y}) scale(${(props.picture.width * scale) / found.width},${(props.picture.height * scale) / found.height})`
    : ''
})
const badge = (at: { x: number; y: number }) => ({
  left: `${props.viewport.x + at.x * props.picture.width * props.viewport.scale}px`,
  top: `${props.viewport.y + at.y * props.picture.height * props.viewport.scale}px`,
})

onMounted(() => void bench.loadThings())
</script>

<template>
  <template v-if="shown.length">
    <svg class="outlines" aria-hidden="true">
      <g :transform="transform">
        <path
          v-for="each in shown"
          :key="each.number"
          :d="each.path"
          :class="{ chosen: bench.thing === each.number }"
          vector-effect="non-scaling-stroke" />
      </g>
    </svg>
    <button
      v-for="(each, i) in shown"
      :key="each.number"
      class="badge"
      :class="{ chosen: bench.thing === each.number }"
      :style="badge(each)"
      :title="`Focus on subject ${i + 1} (N for the next one)`"
      :aria-label="`Focus on subject ${i + 1}`"
      data-test="thing"
      @pointerdown.stop
      @click.stop="bench.focusOnThing(i + 1)">
      {{ i + 1 }}
    </button>
  </template>
</template>

<style scoped>
.outlines {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
path {
  fill: none;
  stroke: rgba(255, 255, 255, 0.65);
  stroke-width: 1;
  stroke-dasharray: 4 3;
}
path.chosen {
  stroke: var(--accent);
  stroke-width: 1.5;
  stroke-dasharray: none;
}
.badge {
  position: absolute;
  width: 22px;
  height: 22px;
  margin: -11px 0 0 -11px;
  border-radius: 3px;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
  font-size: 11.5px;
  border: 1px solid rgba(255, 255, 255, 0.4);
}
.badge:hover,
.badge.chosen {
  border-color: var(--accent);
  color: #fff;
}
</style>
