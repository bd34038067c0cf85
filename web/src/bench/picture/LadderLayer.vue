<script setup lang="ts">
import { computed, ref } from 'vue'
import { useBench } from '../../stores/bench'
import { useLadder } from '../../stores/ladder'
import { toShares, type Extent, type Viewport } from './viewport'

/** The ladder over the picture: rungs with their numbers, joined from near to far. A click puts a rung, a drag moves one. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()

const MICROS = 1e6
const DRAG = 3

const bench = useBench()
const ladder = useLadder()
const root = ref<HTMLDivElement>()
const held = ref<{ number: number; x: number; y: number; moved: boolean }>()
let pressed: { x: number; y: number } | undefined

const px = (x: number): number => props.viewport.x + x * props.picture.width * props.viewport.scale
const py = (y: number): number => props.viewport.y + y * props.picture.height * props.viewport.scale

/** In a clip only what was clicked at this moment lies where it is shown. */
const here = (at: number): boolean => !bench.clip || Math.abs(at * MICROS - bench.micros) < 1000

const points = computed(() =>
  ladder.rungs.flatMap((rung, number) => {
    if (!here(rung.at) && held.value?.number !== number) return []
    const at = held.value?.number === number ? held.value : rung
    return [{ number, level: ladder.levelOfRung(number) + 1, tied: rung.tied, x: px(at.x), y: py(at.y) }]
  }),
)
const elsewhere = computed(() => ladder.rungs.filter((each) => !here(each.at)).length)
const line = computed(() => points.value.map(({ x, y }) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' '))

function at(event: PointerEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect()
  return toShares(props.viewport, props.picture, event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0))
}

const limited = (value: number): number => Math.min(1, Math.max(0, value))

/** A press that stays where it is puts a rung; with Alt or the middle button the picture moves as everywhere. */
function press(event: PointerEvent): void {
  pressed = undefined
  if (event.button !== 0 || event.altKey) return
  event.stopPropagation()
  root.value?.setPointerCapture(event.pointerId)
  pressed = { x: event.clientX, y: event.clientY }
}

function release(event: PointerEvent): void {
  if (held.value) return drop(event)
  const from = pressed
  pressed = undefined
  if (!from || Math.hypot(event.clientX - from.x, event.clientY - from.y) > DRAG) return
  const { x, y } = at(event)
  if (x >= 0 && y >= 0 && x <= 1 && y <= 1) ladder.add(x, y, event.shiftKey)
}

function hold(number: number, event: PointerEvent): void {
  if (event.button !== 0) return
  event.stopPropagation()
  ladder.chosen = number
  root.value?.setPointerCapture(event.pointerId)
  const { x, y } = at(event)
  held.value = { number, x: limited(x), y: limited(y), moved: false }
  pressed = { x: event.clientX, y: event.clientY }
}

function move(event: PointerEvent): void {
  const now = held.value
  if (!now) return
  event.stopPropagation()
  const { x, y } = at(event)
  const moved = now.moved || (!!pressed && Math.hypot(event.clientX - pressed.x, event.clientY - pressed.y) > DRAG)
  held.value = { number: now.number, x: limited(x), y: limited(y), moved }
}

function drop(event: PointerEvent): void {
  const last = held.value
  held.value = pressed = undefined
  if (!last) return
  event.stopPropagation()
  if (last.moved) ladder.move(last.number, last.x, last.y)
}
</script>

<template>
  <div
    ref="root"
    class="ladder"
    data-test="ladder"
    @pointerdown="press"
    @pointermove="move"
    @pointerup="release"
    @pointercancel="held = undefined"
    @dblclick.stop>
    <svg aria-hidden="true">
      <polyline class="under" :points="line" />
      <polyline :points="line" />
      <g
        v-for="each in points"
        :key="each.number"
        class="rung"
        :class="{ chosen: ladder.chosen === each.number, tied: each.tied }"
        data-test="rung"
        :transform="`translate(${each.x},${each.y})`"
        @pointerdown="hold(each.number, $event)">
        <circle r="10" />
        <text y="4">{{ each.level }}</text>
      </g>
    </svg>
    <span v-if="elsewhere" class="small note">{{ elsewhere }} of other moments</span>
  </div>
</template>

<style scoped>
.ladder {
  position: absolute;
  inset: 0;
  cursor: crosshair;
}
svg {
  width: 100%;
  height: 100%;
}
.rung {
  cursor: move;
}
polyline {
  fill: none;
  stroke: #fff;
  stroke-width: 1;
  stroke-dasharray: 4 3;
}
.under {
  stroke: rgba(0, 0, 0, 0.6);
  stroke-width: 3;
  stroke-dasharray: none;
}
circle {
  fill: rgba(20, 20, 20, 0.82);
  stroke: #fff;
  stroke-width: 1.25;
}
.tied circle {
  stroke-dasharray: 3 2;
}
.chosen circle {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 2;
}
text {
  fill: #fff;
  font-size: 11px;
  text-anchor: middle;
  font-variant-numeric: tabular-nums;
}
.note {
  position: absolute;
  left: 12px;
  top: 12px;
  padding: 1px 7px;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
}
</style>
