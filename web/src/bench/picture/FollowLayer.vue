<script setup lang="ts">
import { computed, ref } from 'vue'
import { placeAt } from '../../editing/follow'
import { useBench } from '../../stores/bench'
import { useFollows } from '../../stores/follows'
import { toShares, type Extent, type Viewport } from './viewport'

/** Followed points over the picture: where each is now, and its way a little before and after. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()

/** Frames of the way that are drawn to either side. */
const TRAIL = 24

const bench = useBench()
const follows = useFollows()
const root = ref<HTMLDivElement>()
const held = ref<{ id: string; x: number; y: number }>()

const px = (x: number): number => props.viewport.x + x * props.picture.width * props.viewport.scale
const py = (y: number): number => props.viewport.y + y * props.picture.height * props.viewport.scale

const points = computed(() =>
  follows.all.flatMap((each) => {
    const frames = bench.tracks[each.id]
    const place = placeAt(each, frames, bench.frame, follows.seconds)
    const at = held.value?.id === each.id ? { ...held.value, sure: 2, put: true } : place
    if (!at) return []
    const way = (frames ?? [])
      .slice(Math.max(0, bench.frame - TRAIL), bench.frame + TRAIL + 1)
      .map(({ x, y }) => `${px(x).toFixed(1)},${py(y).toFixed(1)}`)
      .join(' ')
    const state = at.sure > 1 ? 'sure' : at.sure ? 'unsure' : 'hidden'
    const words = { sure: '', unsure: 'unsure', hidden: 'not seen' }[state]
    return [{ id: each.id, name: each.name, x: px(at.x), y: py(at.y), way, state, words, put: at.put }]
  }),
)

function at(event: PointerEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect()
  const place = toShares(
    props.viewport,
    props.picture,
    event.clientX - (box?.left ?? 0),
    event.clientY - (box?.top ?? 0),
  )
  return { x: Math.min(1, Math.max(0, place.x)), y: Math.min(1, Math.max(0, place.y)) }
}

function place(event: PointerEvent): void {
  event.stopPropagation()
  if (event.button === 0) follows.add(at(event).x, at(event).y)
}

function hold(id: string, event: PointerEvent): void {
  event.stopPropagation()
  follows.chosenId = id
  root.value?.setPointerCapture(event.pointerId)
  held.value = { id, ...at(event) }
}

function move(event: PointerEvent): void {
  if (!held.value) return
  event.stopPropagation()
  held.value = { id: held.value.id, ...at(event) }
}

function drop(event: PointerEvent): void {
  const last = held.value
  held.value = undefined
  if (!last) return
  event.stopPropagation()
  const before = points.value.find((each) => each.id === last.id)
  if (before && Math.hypot(before.x - px(last.x), before.y - py(last.y)) > 2) follows.put(last.id, last.x, last.y)
}
</script>

<template>
  <div
    ref="root"
    class="follows"
    :class="{ placing: follows.placing }"
    data-test="follows"
    @pointerdown="follows.placing && place($event)"
    @pointermove="move"
    @pointerup="drop"
    @pointercancel="held = undefined">
    <svg aria-hidden="true">
      <g v-for="each in points" :key="each.id" :class="[each.state, { chosen: follows.chosen?.id === each.id }]">
        <polyline class="under" :points="each.way" />
        <polyline :points="each.way" />
        <g
          class="point"
          :data-test="`follow-${each.state}`"
          :transform="`translate(${each.x},${each.y})`"
          @pointerdown="hold(each.id, $event)">
          <circle class="reach" r="13" />
          <path class="under" d="M-11,0 h7 M4,0 h7 M0,-11 v7 M0,4 v7" />
          <path d="M-11,0 h7 M4,0 h7 M0,-11 v7 M0,4 v7" />
          <rect v-if="each.put" x="-3" y="-3" width="6" height="6" transform="rotate(45)" />
        </g>
        <text :x="each.x + 15" :y="each.y - 8">{{ each.words ? `${each.name}: ${each.words}` : each.name }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.follows {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.follows.placing {
  pointer-events: auto;
  cursor: crosshair;
}
svg {
  width: 100%;
  height: 100%;
}
.point {
  pointer-events: auto;
  cursor: move;
}
.placing .point {
  pointer-events: none;
}
.reach {
  fill: transparent;
  stroke: none;
}
polyline,
path,
rect {
  fill: none;
  stroke: #fff;
  stroke-width: 1.25;
}
.under {
  stroke: rgba(0, 0, 0, 0.6);
  stroke-width: 3;
}
.chosen polyline:not(.under),
.chosen path:not(.under),
.chosen rect {
  stroke: rgb(var(--v-theme-primary));
}
.unsure path:not(.under) {
  stroke-dasharray: 2 2;
}
.hidden .point {
  opacity: 0.5;
}
text {
  fill: #fff;
  font-size: 11px;
  paint-order: stroke;
  stroke: rgba(0, 0, 0, 0.6);
  stroke-width: 3px;
}
</style>
