<script setup lang="ts">
import { computed, onMounted } from 'vue'
import { useBench } from '../../stores/bench'
import { outline, unpacked } from './things'
import type { Extent, Viewport } from './viewport'

/** Numbered outlines of the faces and things to choose from; one thing alone needs no number. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()
const bench = useBench()

const chosen = computed(() => bench.subjects[bench.thing - 1])
const shown = computed(() => {
  const found = bench.things
  if (!found || bench.subjects.length < 2) return []
  const labels = unpacked(found)
  return found.things.map((each) => ({ ...each, path: outline(labels, found.width, found.height, each.number) }))
})
/** Ellipses, in pixels of the page. */
const faces = computed(() =>
  (bench.things?.faces ?? []).map(({ number, left, top, width, height }) => {
    const across = props.picture.width * props.viewport.scale
    const down = props.picture.height * props.viewport.scale
    return {
      number,
      cx: props.viewport.x + (left + width / 2) * across,
      cy: props.viewport.y + (top + height / 2) * down,
      rx: (width / 2) * across,
      ry: (height / 2) * down,
    }
  }),
)
const badges = computed(() => (bench.subjects.length > 1 ? bench.subjects : []))
const name = (i: number): string => `${bench.subjects[i]?.kind === 'face' ? 'face' : 'subject'} ${i + 1}`
const transform = computed(() => {
  const found = bench.things
  const { x, y, scale } = props.viewport
  return found
    ? `translate(${x},${y}) scale(${(props.picture.width * scale) / found.width},${(props.picture.height * scale) / found.height})`
    : ''
})
/** In the middle of a thing, beside a face. */
function badge(at: { x: number; y: number }, i: number): { left: string; top: string } {
  const face = bench.subjects[i]?.kind === 'face' ? faces.value[i] : undefined
  const left = face ? face.cx + face.rx + 12 : props.viewport.x + at.x * props.picture.width * props.viewport.scale
  const top = face ? face.cy - face.ry : props.viewport.y + at.y * props.picture.height * props.viewport.scale
  return { left: `${left}px`, top: `${top}px` }
}

onMounted(() => void bench.loadThings())
</script>

<template>
  <template v-if="shown.length || faces.length">
    <svg class="outlines" aria-hidden="true">
      <ellipse
        v-for="{ number, ...face } in faces"
        :key="number"
        v-bind="face"
        :class="{ chosen: chosen?.kind === 'face' && chosen.number === number }"
        data-test="face" />
      <g :transform="transform">
        <path
          v-for="each in shown"
          :key="each.number"
          :d="each.path"
          :class="{ chosen: chosen?.kind === 'thing' && chosen.number === each.number }"
          vector-effect="non-scaling-stroke" />
      </g>
    </svg>
    <button
      v-for="(each, i) in badges"
      :key="`${each.kind} ${each.number}`"
      class="badge"
      :class="[each.kind, { chosen: bench.thing === i + 1 }]"
      :style="badge(each, i)"
      :title="`Focus on ${name(i)} (N for the next one)`"
      :aria-label="`Focus on ${name(i)}`"
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
path,
ellipse {
  fill: none;
  stroke: rgba(255, 255, 255, 0.65);
  stroke-width: 1;
  stroke-dasharray: 4 3;
}
path.chosen,
ellipse.chosen {
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
