<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import { useBench } from '../../stores/bench'
import { useTouchups } from '../../stores/touchups'
import { nearPicture, straightened, type Point } from '../../editing/painting'
import { toShares, type Extent, type Viewport } from '../picture/viewport'

/** Where one paints: what is painted, the stroke under the pointer, and the brush itself. */
const props = defineProps<{ viewport: Viewport; picture: Extent; stage: Extent }>()

const SPACING = 8
const TINT = 0.5
const CLICK = 4
const PAINT = [96, 208, 122] as const
const ERASE = [236, 236, 236] as const

const bench = useBench()
const touchups = useTouchups()
const root = ref<HTMLDivElement>()
const canvas = ref<HTMLCanvasElement>()
const pointer = shallowRef<{ x: number; y: number }>()
const held = ref(false)
let strokeCanvas: OffscreenCanvas | undefined
let stamp: OffscreenCanvas | undefined
let stampKey = ''
let drawn = 0
let gone = 0
let frame = 0
let first: Point | undefined
let downAt = { x: 0, y: 0 }
let moved = false

const long = computed(() => Math.max(props.picture.width, props.picture.height))
const radius = computed(() => (touchups.brush.size * long.value * props.viewport.scale) / 2)
const ratio = (): number => devicePixelRatio

function pointAt(event: PointerEvent): Point {
  const box = root.value?.getBoundingClientRect()
  const at = toShares(props.viewport, props.picture, event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0))
  // A mouse has no pressure and says a half.
  const pressure = event.pointerType === 'pen' ? event.pressure : 1
  return nearPicture(at, pressure)
}

function down(event: PointerEvent): void {
  // Other buttons and the Alt key move the picture, which lies below.
  if (event.button !== 0 || event.altKey) return
  event.stopPropagation()
  const point = pointAt(event)
  if (touchups.picking) {
    touchups.pick(point)
    return
  }
  root.value?.setPointerCapture(event.pointerId)
  held.value = true
  first = point
  downAt = { x: event.clientX, y: event.clientY }
  moved = false
  touchups.begin(point)
}

function move(event: PointerEvent): void {
  const box = root.value?.getBoundingClientRect()
  pointer.value = { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  if (!held.value) return
  event.stopPropagation()
  moved ||= Math.hypot(event.clientX - downAt.x, event.clientY - downAt.y) > CLICK
  // A click with Shift is a line from the last point; its hand may shake a little.
  if (event.shiftKey && !moved) return
  const events = event.getCoalescedEvents?.() ?? []
  const points = (events.length ? events : [event]).map(pointAt)
  const from = first
  touchups.go(event.shiftKey && from ? points.map((each) => straightened(from, each, touchups.aspect)) : points)
}

function up(event: PointerEvent): void {
  if (!held.value) return
  event.stopPropagation()
  held.value = false
  if (event.shiftKey && !moved) touchups.join()
  touchups.end()
}

function wheel(event: WheelEvent): void {
  if (!event.shiftKey) return
  event.stopPropagation()
  event.preventDefault()
  touchups.resize((event.deltaY || event.deltaX) > 0 ? -1 : 1)
}

function keydown(event: KeyboardEvent): void {
  const tag = (event.target as HTMLElement).tagName
  if (tag === 'INPUT' || tag === 'SELECT' || tag === 'TEXTAREA' || event.ctrlKey || event.metaKey) return
  if (event.key === 'e' || event.key === 'E') touchups.erasing = true
  else if (event.key === 'p' || event.key === 'P') touchups.tint = !touchups.tint
  else if (event.key === '[') touchups.resize(-1)
  else if (event.key === ']') touchups.resize(1)
  else if (event.key === 'Escape' && held.value) {
    held.value = false
    touchups.cancel()
  }
}

function keyup(event: KeyboardEvent): void {
  if (event.key === 'e' || event.key === 'E') touchups.erasing = false
}

function draw(): void {
  cancelAnimationFrame(frame)
  frame = requestAnimationFrame(paint)
}

function paint(): void {
  const element = canvas.value
  const context = element?.getContext('2d')
  if (!element || !context) return
  const width = Math.round(props.stage.width * ratio())
  const height = Math.round(props.stage.height * ratio())
  if (element.width !== width || element.height !== height) Object.assign(element, { width, height })
  context.clearRect(0, 0, width, height)
  const { scale, x, y } = props.viewport
  if (tinted.value) {
    context.globalAlpha = TINT
    context.imageSmoothingEnabled = true
    context.drawImage(
      tinted.value,
      x * ratio(),
      y * ratio(),
      props.picture.width * scale * ratio(),
      props.picture.height * scale * ratio(),
    )
  }
  if (touchups.stroke && strokeCanvas) {
    stampOn()
    context.globalAlpha = TINT
    context.drawImage(strokeCanvas, 0, 0)
  }
  context.globalAlpha = 1
}

/** The mask as a picture of one colour. */
const tinted = computed(() => {
  const map = touchups.mask
  if (!map || !touchups.tint || !touchups.selected?.shown) return undefined
  const image = new ImageData(map.width, map.height)
  for (let i = 0; i < map.samples.length; i++) {
    image.data[4 * i] = PAINT[0]
    image.data[4 * i + 1] = PAINT[1]
    image.data[4 * i + 2] = PAINT[2]
    image.data[4 * i + 3] = map.samples[i] ?? 0
  }
  const out = new OffscreenCanvas(map.width, map.height)
  out.getContext('2d')?.putImageData(image, 0, 0)
  return out
})

/** One dab of the brush at the size it has on screen. */
function dab(size: number): OffscreenCanvas {
  const colour = (touchups.erases ? ERASE : PAINT).join()
  const key = `${Math.round(size * 2)} ${touchups.brush.softness} ${colour}`
  if (stamp && key === stampKey) return stamp
  const side = Math.max(2, Math.ceil(size * 2) + 2)
  stamp = new OffscreenCanvas(side, side)
  stampKey = key
  const context = stamp.getContext('2d')
  if (!context) return stamp
  const gradient = context.createRadialGradient(side / 2, side / 2, 0, side / 2, side / 2, Math.max(0.5, size))
  gradient.addColorStop(0, `rgba(${colour},1)`)
  gradient.addColorStop(Math.max(0, Math.min(0.98, 1 - touchups.brush.softness)), `rgba(${colour},1)`)
  gradient.addColorStop(1, `rgba(${colour},${touchups.brush.softness > 0.02 ? 0 : 1})`)
  context.fillStyle = gradient
  context.beginPath()
  context.arc(side / 2, side / 2, Math.max(0.5, size), 0, 2 * Math.PI)
  context.fill()
  return stamp
}

/** Adds the dabs of the points that are new. */
function stampOn(): void {
  const points = touchups.stroke
  const context = strokeCanvas?.getContext('2d')
  if (!points || !context) return
  const { brush } = touchups
  const spacing = Math.max(0.5, (2 * radius.value) / SPACING)
  const place = (point: Point) => ({
    x: props.viewport.x + point.x * props.picture.width * props.viewport.scale,
    y: props.viewport.y + point.y * props.picture.height * props.viewport.scale,
  })
  for (; drawn < points.length; drawn++) {
    const to = points[drawn] as Point
    const from = points[Math.max(0, drawn - 1)] as Point
    const a = place(from)
    const b = place(to)
    const length = Math.hypot(b.x - a.x, b.y - a.y)
    let at = drawn === 0 ? 0 : spacing - gone
    for (; at <= length; at += spacing) {
      const t = length ? at / length : 0
      const pressure = from.pressure + t * (to.pressure - from.pressure)
      const size = radius.value * (brush.pressure === 'size' ? pressure : 1) * ratio()
      context.globalAlpha = brush.buildUp * (brush.pressure === 'build-up' ? pressure : 1)
      const image = dab(size)
      context.drawImage(
        image,
        (a.x + t * (b.x - a.x)) * ratio() - image.width / 2,
        (a.y + t * (b.y - a.y)) * ratio() - image.height / 2,
      )
    }
    gone = drawn === 0 ? 0 : length - (at - spacing)
  }
}

function empty(): OffscreenCanvas {
  return new OffscreenCanvas(
    Math.max(1, Math.round(props.stage.width * ratio())),
    Math.max(1, Math.round(props.stage.height * ratio())),
  )
}

// Strokes that no mask holds yet stay in sight while the next one is painted.
watch(
  () => touchups.stroke,
  (now, then) => {
    if (!now) strokeCanvas = undefined
    else if (now[0] !== then?.[0]) {
      strokeCanvas ??= empty()
      drawn = gone = 0
    }
    draw()
  },
)
watch([() => props.viewport, () => props.stage, tinted], () => {
  strokeCanvas = touchups.stroke && empty()
  drawn = gone = 0
  draw()
})

const cursor = computed(() => {
  const at = pointer.value
  const r = Math.max(1.5, radius.value)
  return at && { left: `${at.x - r}px`, top: `${at.y - r}px`, width: `${2 * r}px`, height: `${2 * r}px` }
})
const core = computed(() => `${Math.round(50 * touchups.brush.softness)}%`)
const word = computed(() =>
  touchups.picking ? 'pick a depth' : touchups.erases ? 'erase' : (touchups.selected?.name ?? 'Focus'),
)

/** A key that comes up in another window is not told here. */
function left(): void {
  touchups.erasing = false
}

useEventListener(window, 'keydown', keydown)
useEventListener(window, 'keyup', keyup)
useEventListener(window, 'blur', left)
onMounted(draw)
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
  left()
})
</script>

<template>
  <div
    ref="root"
    class="paint"
    :class="{ picking: touchups.picking }"
    data-test="paint"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @pointerleave="pointer = undefined"
    @wheel="wheel"
    @dblclick.stop>
    <canvas v-show="!bench.holding" ref="canvas" />
    <div v-if="cursor && !touchups.picking" class="brush" :class="{ erase: touchups.erases }" :style="cursor">
      <i v-if="touchups.brush.softness > 0.02" :style="{ inset: core }" />
    </div>
    <span
      v-if="pointer"
      class="word"
      :style="{
        left: `${pointer.x + Math.min(90, Math.max(8, radius * 0.72)) + 6}px`,
        top: `${pointer.y + Math.min(60, radius * 0.72) + 6}px`,
      }">
      {{ word }}
    </span>
  </div>
</template>

<style scoped>
.paint {
  position: absolute;
  inset: 0;
  cursor: none;
  touch-action: none;
  overflow: hidden;
}
.paint.picking {
  cursor: crosshair;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.brush {
  position: absolute;
  border: 1px solid #fff;
  border-radius: 50%;
  box-shadow:
    0 0 0 1px rgba(0, 0, 0, 0.55),
    inset 0 0 0 1px rgba(0, 0, 0, 0.35);
  pointer-events: none;
}
.brush.erase {
  border-style: dashed;
}
.brush i {
  position: absolute;
  border: 1px solid rgba(255, 255, 255, 0.6);
  border-radius: 50%;
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
