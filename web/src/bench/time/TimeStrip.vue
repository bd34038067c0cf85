<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { api } from '../../api/client'
import { doubts } from '../../editing/follow'
import { bandAt, isChosen, type Chosen, type Mark, type MarkKind } from '../../editing/moments'
import { useBench } from '../../stores/bench'
import { useFollows } from '../../stores/follows'
import { useKeeping } from '../../stores/keeping'
import { useTimeline } from '../../stores/timeline'
import { useActing } from '../../stores/acting'
import { useShapes } from '../../stores/shapes'
import { lines, ribbon, ROOM, spanBar } from './strip'
import TransportRow from './TransportRow.vue'

const HEIGHT = 70
/** Pixels within which a mark is taken hold of. */
const NEAR = 7
const DRAG = 3
const SPAN_HEIGHT = 6
/** Points of an ease that is drawn: as many bends as a hand makes. */
const CURVE_POINTS = 12

const bench = useBench()
const timeline = useTimeline()
const follows = useFollows()
const keeping = useKeeping()
const acting = useActing()
const shapes = useShapes()
const root = ref<HTMLDivElement>()
const ground = ref<HTMLCanvasElement>()
const width = ref(600)
const strip = shallowRef<ImageBitmap>()
const held = ref<'head' | 'marks' | 'curve' | 'in' | 'out' | 'from' | 'to' | undefined>()
let start = { x: 0, y: 0, moved: false, upright: false }
let drawn: { along: number; way: number }[] = []

const clip = computed(() => bench.clip)
const lasts = computed(() => timeline.lasts || 1)
const xOf = (seconds: number): number => (seconds / lasts.value) * width.value
const marks = computed(() => bench.stored?.marks ?? { band: [], aperture: [], gain: [], opacity: [] })
const bandThen = (seconds: number): { near: number; far: number } =>
  bench.stored ? bandAt(bench.stored, seconds, bench.wakes) : { near: 1, far: 0 }
/** Where the chosen point or kept subject is not sure, or not seen. */
const doubted = computed(() => {
  if (bench.step === 'focus') return follows.chosen ? doubts(bench.tracks[follows.chosen.id] ?? []) : []
  return bench.step === 'touchup' ? keeping.unseen : []
})
const unsure = computed(() =>
  doubted.value.map(({ from, end, hidden }) => ({
    x: xOf(timeline.secondsOf(from)),
    width: Math.max(1, xOf(timeline.secondsOf(end)) - xOf(timeline.secondsOf(from))),
    hidden,
  })),
)
const shape = computed(() => ribbon(bandThen, lasts.value, width.value, HEIGHT))
const others = computed(() =>
  lines(marks.value, bench.stored?.aperture.mode === 'free', lasts.value, width.value, HEIGHT),
)
const notches = computed(() =>
  marks.value.band.map((each) => ({
    at: each.at,
    x: xOf(each.at),
    top: (1 - each.near) * HEIGHT,
    bottom: Math.max((1 - each.far) * HEIGHT, (1 - each.near) * HEIGHT + 2),
    chosen: isChosen(timeline.chosen, 'band', each),
  })),
)
/** When what is chosen acts. */
const span = computed(() => (acting.chosen ? spanBar(acting.chosen, lasts.value, width.value, SPAN_HEIGHT) : undefined))
/** Where the chosen blur shape has marks. */
const placed = computed(() =>
  bench.step === 'shapes' ? (shapes.chosen?.marks ?? []).map(({ at }) => ({ at, x: xOf(at) })) : [],
)
const head = computed(() => xOf(bench.micros / 1e6))
const inX = computed(() => xOf(timeline.secondsOf(timeline.from)))
const outX = computed(() => xOf(timeline.secondsOf(timeline.end)))
const cuts = computed(() => (clip.value?.cuts ?? []).map((frame) => xOf(timeline.secondsOf(frame))))
const known = computed(() =>
  bench.depthPacks.map((number) => {
    const from = number * bench.packFrames
    const x = xOf(timeline.secondsOf(from))
    return { x, width: xOf(timeline.secondsOf(Math.min(timeline.frames, from + bench.packFrames))) - x }
  }),
)
const played = computed(() => {
  const rendered = timeline.rendered
  if (!rendered || rendered.key === undefined) return undefined
  const x = xOf(timeline.secondsOf(rendered.from))
  const all = xOf(timeline.secondsOf(rendered.end)) - x
  if (timeline.rendering) return { x, width: all * rendered.delivery.progress, part: true }
  return timeline.fresh ? { x, width: all, part: false } : undefined
})
async function loadStrip(): Promise<void> {
  const shot = bench.shot
  if (!shot || !clip.value) return
  try {
    const bitmap = await createImageBitmap(await api.strip(shot.id))
    strip.value?.close()
    strip.value = bitmap
    paintGround()
  } catch {
    // Without thumbnails the strip is plain.
  }
}

/** Thumbnails as the ground, each in its own shape. */
function paintGround(): void {
  const canvas = ground.value
  const bitmap = strip.value
  const context = canvas?.getContext('2d')
  if (!canvas || !context || !bitmap || !clip.value) return
  canvas.width = Math.round(width.value * devicePixelRatio)
  canvas.height = Math.round(HEIGHT * devicePixelRatio)
  const count = clip.value.thumbnails
  const own = bitmap.width / count
  const wide = (own / bitmap.height) * canvas.height
  for (let x = 0; x < canvas.width; x += wide) {
    const index = Math.min(count - 1, Math.floor(((x + wide / 2) / canvas.width) * count))
    context.drawImage(bitmap, index * own, 0, own, bitmap.height, x, 0, wide, canvas.height)
  }
}

useResizeObserver(root, ([entry]) => {
  if (!entry) return
  width.value = Math.max(100, entry.contentRect.width)
  requestAnimationFrame(paintGround)
})
watch(clip, () => void loadStrip(), { immediate: true })
onBeforeUnmount(() => strip.value?.close())

function at(event: PointerEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect()
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
}

function markAt(x: number, y: number): Chosen | undefined {
  const all = [
    // A notch is taken hold of anywhere above and below it, unless another mark lies there.
    ...notches.value.map((each) => ({
      kind: 'band' as MarkKind,
      at: each.at,
      x: each.x,
      far: Math.min(NEAR, Math.max(0, each.top - y, y - each.bottom)),
    })),
    ...others.value.flatMap(({ kind, marks: own }) =>
      own.map((each) => ({ kind, at: each.at, x: each.x, far: Math.abs(each.y - y) })),
    ),
  ].filter((each) => Math.abs(each.x - x) <= NEAR && each.far <= NEAR * 2)
  const nearest = all.sort((a, b) => Math.abs(a.x - x) + a.far - (Math.abs(b.x - x) + b.far))[0]
  return nearest && { kind: nearest.kind, at: nearest.at }
}

function scrub(x: number): void {
  bench.turnTo(timeline.frameAt((Math.max(0, Math.min(width.value, x)) / width.value) * lasts.value))
}

function down(event: PointerEvent): void {
  if (event.button !== 0) return
  root.value?.setPointerCapture(event.pointerId)
  const { x, y } = at(event)
  start = { x, y, moved: false, upright: false }
  timeline.stop()
  const mark = markAt(x, y)
  if (timeline.easeOfChosen === 'drawn' && !mark && piece(x)) {
    held.value = 'curve'
    drawn = []
  } else if (mark) {
    held.value = 'marks'
    const known = timeline.chosen.some((each) => each.kind === mark.kind && each.at === mark.at)
    if (event.shiftKey || event.ctrlKey) {
      timeline.chosen = known
        ? timeline.chosen.filter((each) => each.kind !== mark.kind || each.at !== mark.at)
        : [...timeline.chosen, mark]
    } else if (!known) timeline.chosen = [mark]
  } else {
    held.value = 'head'
    timeline.chosen = []
    scrub(x)
  }
}

/** The piece of the chosen mark that a place lies on. */
function piece(x: number): { from: Mark; to: Mark } | undefined {
  const chosen = timeline.chosen[0]
  if (!chosen) return undefined
  const all = marks.value[chosen.kind] as Mark[]
  const i = all.findIndex((each) => each.at === chosen.at)
  const from = all[i]
  const to = all[i + 1]
  return from && to && x >= xOf(from.at) && x <= xOf(to.at) ? { from, to } : undefined
}

function move(event: PointerEvent): void {
  if (!held.value) return
  const { x, y } = at(event)
  if (!start.moved && Math.max(Math.abs(x - start.x), Math.abs(y - start.y)) > DRAG) {
    start.moved = true
    start.upright = Math.abs(y - start.y) > Math.abs(x - start.x)
  }
  if (held.value === 'head') scrub(x)
  else if (held.value === 'marks' && start.moved) dragMarks(x, y, event.altKey)
  else if (held.value === 'curve') draw(x, y)
  else if (held.value === 'from' || held.value === 'to') acting.span(spanEnd(held.value, x), true)
  else if (held.value === 'in') timeline.setIn(timeline.frameAt((x / width.value) * lasts.value))
  else if (held.value === 'out') timeline.setOut(timeline.frameAt((x / width.value) * lasts.value) - 1)
}

/** Along the strip marks change their time, up and down their values: what a drag began with goes on. */
function dragMarks(x: number, y: number, copies: boolean): void {
  if (!start.upright) return timeline.drag(((x - start.x) / width.value) * lasts.value, copies)
  const onlyBand = timeline.chosen.every((each) => each.kind === 'band')
  timeline.raise((start.y - y) / (HEIGHT * (onlyBand ? 1 : 1 - 2 * ROOM)))
}

/** The hand's height between the two values is the share of the way. */
function draw(x: number, y: number): void {
  const on = piece(x)
  if (!on) return
  const along = (x - xOf(on.from.at)) / (xOf(on.to.at) - xOf(on.from.at))
  if (along <= 0.02 || along >= 0.98 || along <= (drawn.at(-1)?.along ?? 0) + 0.6 / CURVE_POINTS) return
  drawn.push({ along, way: wayAt(on.from, on.to, y) })
  if (drawn.length <= CURVE_POINTS * 2) timeline.ease('drawn', [...drawn])
}

function wayAt(from: Mark, to: Mark, y: number): number {
  const middle = (mark: Mark): number => ('near' in mark ? (mark.near + mark.far) / 2 : 0)
  const a = (1 - middle(from)) * HEIGHT
  const b = (1 - middle(to)) * HEIGHT
  const share = Math.abs(b - a) > 6 ? (y - a) / (b - a) : y / HEIGHT
  return Math.max(0, Math.min(1, share))
}

function spanEnd(which: 'from' | 'to', x: number): { from?: number; to?: number } {
  const frame = timeline.frameAt((x / width.value) * lasts.value)
  return which === 'from' ? { from: timeline.spanFrom(frame) } : { to: timeline.spanTo(frame) }
}

function up(event: PointerEvent): void {
  if (held.value === 'from' || held.value === 'to') acting.span({})
  if (held.value === 'marks') {
    if (start.moved) timeline.drop(start.upright ? 'Mark changed' : event.altKey ? 'Mark copied' : 'Mark moved')
    else if (timeline.chosen.length === 1 && timeline.chosen[0]) bench.turnTo(timeline.frameAt(timeline.chosen[0].at))
  }
  held.value = undefined
}

function holdEnd(which: 'in' | 'out' | 'from' | 'to', event: PointerEvent): void {
  root.value?.setPointerCapture(event.pointerId)
  start = { ...at(event), moved: false, upright: false }
  held.value = which
}
</script>

<template>
  <section class="time" aria-label="Time" data-test="time">
    <TransportRow />
    <div
      ref="root"
      class="strip-room"
      data-test="strip"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="held = undefined">
      <canvas ref="ground" :style="{ height: `${HEIGHT}px` }" />
      <svg :width="width" :height="HEIGHT + 8" aria-hidden="true">
        <rect class="shade" x="0" y="0" :width="width" :height="HEIGHT" />
        <polygon v-if="bench.stored" class="ribbon" :points="shape" data-test="ribbon" />
        <polyline v-for="line in others" :key="line.kind" class="line" :class="line.kind" :points="line.points">
          <title>{{ line.name }}</title>
        </polyline>
        <rect
          v-for="each in unsure"
          :key="`u${each.x}`"
          class="unsure"
          :class="{ hidden: each.hidden }"
          :x="each.x"
          :y="HEIGHT - 4"
          :width="each.width"
          height="4"
          data-test="unsure">
          <title>{{ each.hidden ? 'not seen' : 'unsure' }}</title>
        </rect>
        <line v-for="x in cuts" :key="x" class="cut" :x1="x" :x2="x" y1="0" :y2="HEIGHT" />
        <rect class="outside" x="0" y="0" :width="Math.max(0, inX)" :height="HEIGHT" />
        <rect class="outside" :x="outX" y="0" :width="Math.max(0, width - outX)" :height="HEIGHT" />
        <g
          v-for="each in notches"
          :key="each.at"
          class="notch"
          :class="{ chosen: each.chosen }"
          data-test="notch"
          :data-at="each.at">
          <line :x1="each.x" :x2="each.x" :y1="each.top - 4" :y2="each.bottom + 4" />
          <line :x1="each.x - 4" :x2="each.x + 4" :y1="each.top" :y2="each.top" />
          <line :x1="each.x - 4" :x2="each.x + 4" :y1="each.bottom" :y2="each.bottom" />
        </g>
        <template v-for="line in others" :key="`m${line.kind}`">
          <line
            v-for="each in line.marks"
            :key="each.at"
            class="tick"
            :class="{ chosen: isChosen(timeline.chosen, line.kind, each) }"
            :x1="each.x"
            :x2="each.x"
            :y1="each.y - 5"
            :y2="each.y + 5" />
        </template>
        <rect
          v-for="each in known"
          :key="each.x"
          class="known"
          :x="each.x"
          :y="HEIGHT + 2"
          :width="each.width"
          height="2" />
        <rect
          v-if="played"
          class="played"
          :class="{ part: played.part }"
          :x="played.x"
          :y="HEIGHT + 5"
          :width="played.width"
          height="2" />
        <line class="head" :x1="head" :x2="head" y1="0" :y2="HEIGHT + 8" />
        <path class="head-top" :d="`M${head - 5},0 h10 v5 l-5,4 l-5,-4 z`" />
        <rect class="end" :x="inX - 3" y="0" width="6" :height="HEIGHT" @pointerdown.stop="holdEnd('in', $event)" />
        <rect class="end" :x="outX - 3" y="0" width="6" :height="HEIGHT" @pointerdown.stop="holdEnd('out', $event)" />
        <g v-if="span" class="span" data-test="span">
          <polygon :points="span.points" />
          <rect :x="span.from - 4" y="0" width="8" height="14" @pointerdown.stop="holdEnd('from', $event)" />
          <rect :x="span.to - 4" y="0" width="8" height="14" @pointerdown.stop="holdEnd('to', $event)" />
          <path
            v-for="each in placed"
            :key="each.at"
            :d="`M${each.x},0 l4,4 l-4,4 l-4,-4 z`"
            data-test="shape-mark-notch"
            @pointerdown.stop="bench.turnTo(timeline.frameAt(each.at))">
            <title>A mark of the shape</title>
          </path>
        </g>
      </svg>
    </div>
  </section>
</template>

<style scoped>
.time {
  background: var(--panel);
  border-top: 1px solid var(--line);
  display: grid;
  grid-template-rows: 30px auto;
  user-select: none;
}
.strip-room {
  position: relative;
  height: 80px;
  margin: 0 10px;
  cursor: col-resize;
  touch-action: none;
}
canvas,
svg {
  position: absolute;
  left: 0;
  top: 0;
  width: 100%;
}
.shade {
  fill: rgba(20, 20, 20, 0.45);
}
.unsure {
  fill: rgba(255, 255, 255, 0.65);
}
.unsure.hidden {
  fill: rgba(0, 0, 0, 0.6);
}
.ribbon {
  fill: color-mix(in srgb, var(--accent) 38%, transparent);
  stroke: var(--accent);
  stroke-width: 1;
}
.line {
  fill: none;
  stroke: #ddd;
  stroke-width: 1;
  opacity: 0.85;
}
.line.gain {
  stroke-dasharray: 6 3;
}
.line.opacity {
  stroke-dasharray: 2 3;
}
.cut {
  stroke: #eee;
  stroke-dasharray: 3 3;
  opacity: 0.7;
}
.outside {
  fill: rgba(10, 10, 10, 0.62);
}
.notch line,
.tick {
  stroke: #f2f2f2;
  stroke-width: 1.2;
}
.notch.chosen line,
.tick.chosen {
  stroke: #fff;
  stroke-width: 2.6;
}
.known {
  fill: var(--dim);
}
.played {
  fill: var(--accent);
}
.played.part {
  opacity: 0.6;
}
.head {
  stroke: #fff;
  stroke-width: 1;
}
.head-top {
  fill: #fff;
}
.span polygon {
  fill: #f2f2f2;
}
.span path {
  fill: rgb(var(--v-theme-primary));
  stroke: rgba(0, 0, 0, 0.6);
  cursor: pointer;
}
.span rect {
  fill: transparent;
  cursor: ew-resize;
}
.end {
  fill: transparent;
  cursor: ew-resize;
}
</style>
