<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, ref, shallowRef } from 'vue'
import type { Stroke } from '../../api/client'
import { useKeeping } from '../../stores/keeping'
import { useTouchups } from '../../stores/touchups'
import { nearPicture, type Point } from '../../editing/painting'
import { boxBetween, sidesAt, stretched, type PickBox, type Sides } from '../../editing/picking'
import { toShares, type Extent, type Viewport } from '../picture/viewport'

/** Where one points an object out: the box, and the marks on what belongs to it and what does not. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()

const REACH = 7

const touchups = useTouchups()
const root = ref<HTMLDivElement>()
const drawing = shallowRef<{ x: number; y: number }>()
/** The box while it is drawn or pulled. */
const moving = shallowRef<PickBox>()
const pulled = shallowRef<Sides>()
const line = shallowRef<Point[]>()
const pointer = shallowRef<{ x: number; y: number; sides: Sides | undefined }>()

const keeping = useKeeping()
const keeps = computed(() => touchups.tool === 'keep')
/** What is pointed out: of a subject that is kept, at this moment. */
const pickOut = computed(() => (keeps.value ? keeping.here : (touchups.selected?.pickOut ?? undefined)))
const isWhole = computed(() => keeps.value && keeping.here?.by !== 'box')
const begun = computed(() => (keeps.value ? !!keeping.chosen : !!pickOut.value))
const box = computed(() => moving.value ?? (isWhole.value ? undefined : pickOut.value))
const width = computed(() => props.picture.width * props.viewport.scale)
const height = computed(() => props.picture.height * props.viewport.scale)
const px = (x: number): number => props.viewport.x + x * width.value
const py = (y: number): number => props.viewport.y + y * height.value

function at(event: PointerEvent): { x: number; y: number } {
  const place = root.value?.getBoundingClientRect()
  return toShares(props.viewport, props.picture, event.clientX - (place?.left ?? 0), event.clientY - (place?.top ?? 0))
}

function sides({ x, y }: { x: number; y: number }): Sides | undefined {
  return pickOut.value && !keeps.value
    ? sidesAt(pickOut.value, x, y, REACH / width.value, REACH / height.value)
    : undefined
}

function down(event: PointerEvent): void {
  if (event.button !== 0 || event.altKey) return
  event.stopPropagation()
  root.value?.setPointerCapture(event.pointerId)
  const place = at(event)
  pulled.value = sides(place)
  if (pulled.value) moving.value = pickOut.value
  else if (begun.value) line.value = [nearPicture(place)]
  else drawing.value = place
}

function move(event: PointerEvent): void {
  const place = at(event)
  pointer.value = { ...place, sides: sides(place) }
  if (drawing.value || line.value || pulled.value) event.stopPropagation()
  if (drawing.value) moving.value = boxBetween(drawing.value, place)
  else if (pulled.value && pickOut.value) moving.value = stretched(pickOut.value, pulled.value, place.x, place.y)
  else if (line.value) line.value = [...line.value, nearPicture(place)]
}

function up(event: PointerEvent): void {
  event.stopPropagation()
  const on = touchups.selected
  if (drawing.value && moving.value) (keeps.value ? keeping.box : touchups.pickBox)(moving.value)
  else if (drawing.value && keeps.value) keeping.click(nearPicture(at(event)))
  else if (pulled.value && moving.value && on) {
    const { left, top, width: across, height: down } = moving.value
    touchups.pickOut(on.id, `Box of ${on.name}`, { left, top, width: across, height: down })
  } else if (line.value) (keeps.value ? keeping.putRight : touchups.mark)(line.value)
  drop()
}

function drop(): void {
  drawing.value = moving.value = pulled.value = line.value = undefined
}

function unmark(index: number): void {
  const on = touchups.selected
  if (keeps.value) keeping.unmark(index)
  else if (on?.pickOut)
    touchups.pickOut(on.id, `Mark off ${on.name}`, { marks: on.pickOut.marks.filter((_, i) => i !== index) })
}

function path(points: { x: number; y: number }[]): string {
  return (
    points.map(({ x, y }, i) => `${i ? 'L' : 'M'}${px(x).toFixed(1)} ${py(y).toFixed(1)}`).join('') +
    (points.length === 1 ? 'h0.1' : '')
  )
}

function places({ points }: Stroke): { x: number; y: number }[] {
  return Array.from({ length: points.length / 3 }, (_, i) => ({ x: points[3 * i] ?? 0, y: points[3 * i + 1] ?? 0 }))
}

const marks = computed(() =>
  (pickOut.value?.marks ?? []).map((each) => {
    const all = places(each)
    const first = all[0] ?? { x: 0, y: 0 }
    return { path: path(all), drops: each.erases, left: `${px(first.x)}px`, top: `${py(first.y)}px` }
  }),
)
const cursor = computed(() => {
  const found = pulled.value ?? pointer.value?.sides
  if (!found) return 'crosshair'
  const across = found.left || found.right
  const upright = found.top || found.bottom
  if (across && upright) return found.left === found.top ? 'nwse-resize' : 'nesw-resize'
  return across ? 'ew-resize' : 'ns-resize'
})
const word = computed(() => {
  if (touchups.finding) return 'finding the object'
  if (!begun.value) return keeps.value ? 'click the subject, or drag a box around it' : 'drag a box around it'
  return pointer.value?.sides ? 'move the box' : touchups.erases ? 'not of it' : 'of it'
})
</script>

<template>
  <div
    ref="root"
    class="pick"
    data-test="pick-layer"
    :style="{ cursor }"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="drop"
    @pointerleave="pointer = undefined"
    @dblclick.stop>
    <svg aria-hidden="true">
      <template v-if="box">
        <rect
          class="under"
          :x="px(box.left)"
          :y="py(box.top)"
          :width="box.width * width"
          :height="box.height * height" />
        <rect :x="px(box.left)" :y="py(box.top)" :width="box.width * width" :height="box.height * height" />
      </template>
      <template v-for="(each, i) in marks" :key="i">
        <path class="under" :d="each.path" />
        <path :class="{ drops: each.drops }" :d="each.path" />
      </template>
      <path v-if="line" class="under" :d="path(line)" />
      <path v-if="line" :class="{ drops: touchups.erases }" :d="path(line)" />
    </svg>
    <button
      v-for="(each, i) in marks"
      :key="i"
      class="off"
      :style="{ left: each.left, top: each.top }"
      :title="`Take this ${each.drops ? 'drop' : 'keep'} mark away`"
      :aria-label="`Take ${each.drops ? 'drop' : 'keep'} mark ${i + 1} away`"
      data-test="unmark"
      @pointerdown.stop
      @pointerup.stop
      @click.stop="unmark(i)">
      <v-icon :icon="mdiClose" size="11" />
    </button>
    <span v-if="pointer" class="word" :style="{ left: `${px(pointer.x) + 14}px`, top: `${py(pointer.y) + 14}px` }">
      {{ word }}
    </span>
  </div>
</template>

<style scoped>
.pick {
  position: absolute;
  inset: 0;
  touch-action: none;
  overflow: hidden;
}
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
rect {
  fill: none;
  stroke: #fff;
  stroke-width: 1;
  stroke-dasharray: 6 4;
}
rect.under {
  stroke: rgba(0, 0, 0, 0.6);
  stroke-dasharray: none;
}
path {
  fill: none;
  stroke: #6cdd86;
  stroke-width: 4;
  stroke-linecap: round;
  stroke-linejoin: round;
}
path.drops {
  stroke: #f0f0f0;
  stroke-dasharray: 1 8;
}
path.under {
  stroke: rgba(0, 0, 0, 0.65);
  stroke-width: 7;
  stroke-dasharray: none;
}
.off {
  position: absolute;
  width: 18px;
  height: 18px;
  margin: -9px 0 0 -9px;
  border-radius: 3px;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
  display: grid;
  place-items: center;
}
.off:hover {
  color: #fff;
  outline: 1px solid var(--accent);
}
.word {
  position: absolute;
  font-size: 11px;
  color: #eee;
  background: rgba(20, 20, 20, 0.72);
  border-radius: 2px;
  padding: 0 5px;
  pointer-events: none;
  white-space: nowrap;
}
</style>
