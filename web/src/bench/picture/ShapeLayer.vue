<script setup lang="ts">
import { computed, ref } from 'vue'
import { folded, SMALLEST, type Place, type Shape } from '../../editing/shapes'
import { useBench } from '../../stores/bench'
import { useShapes } from '../../stores/shapes'
import { toShares, type Extent, type Viewport } from './viewport'

/** Blur shapes over the picture: outlines to choose them by, and handles on the chosen one. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()

const bench = useBench()
const shapes = useShapes()
const root = ref<HTMLDivElement>()

/** Pixels that a pointer moves before it drags, by which the turning handle stands off, and up to which a line is drawn. */
const DRAG = 3
const STAND_OFF = 26
const ENDLESS = 6000
const STEP = 0.002
const FAR_STEP = 0.02
const TURN = 5
const GROW = 1.05

/** The longer side of the picture in stage pixels. */
const side = computed(() => Math.max(props.picture.width, props.picture.height) * props.viewport.scale)
const px = (x: number): number => props.viewport.x + x * props.picture.width * props.viewport.scale
const py = (y: number): number => props.viewport.y + y * props.picture.height * props.viewport.scale

type Handle = { key: string; x: number; y: number; across: number; down: number }

function drawn(shape: Shape) {
  const place = shapes.placeNow(shape)
  const across = (place.width / 2) * side.value
  const down = (place.height / 2) * side.value
  const soft = (shape.soft / 2) * side.value
  const isLine = shape.form === 'line'
  const isChosen = shapes.chosen?.id === shape.id
  const at = (grow: number) => {
    const half = { across: isLine ? ENDLESS : across + grow, down: down + grow }
    const round = shape.form === 'rectangle' ? Math.max(0, shape.corners * Math.min(across, down) + grow) : 0
    return { ...half, round, shown: half.across > 1 && half.down > 1 }
  }
  const handles: Handle[] = [
    { key: 'top', x: 0, y: -down, across: 0, down: -1 },
    { key: 'bottom', x: 0, y: down, across: 0, down: 1 },
    ...(isLine
      ? []
      : [
          { key: 'left', x: -across, y: 0, across: -1, down: 0 },
          { key: 'right', x: across, y: 0, across: 1, down: 0 },
          { key: 'corner', x: across, y: down, across: 1, down: 1 },
        ]),
  ]
  return {
    shape,
    place,
    isLine,
    isChosen,
    outline: at(0),
    borders: isChosen && soft > 1.5 ? [at(soft), at(-soft)].filter((each) => each.shown) : [],
    handles,
    turn: { x: isLine ? 90 : 0, y: isLine ? 0 : -down - STAND_OFF },
    transform: `translate(${px(place.x)},${py(place.y)}) rotate(${place.turn})`,
  }
}

/** The chosen one lies over the others. */
const all = computed(() => {
  const list = shapes.all.map(drawn)
  return [...list.filter((each) => !each.isChosen), ...list.filter((each) => each.isChosen)]
})

type Held = {
  kind: 'move' | 'turn' | 'size' | 'draw'
  handle?: Handle
  x: number
  y: number
  place: Place
  moved: boolean
}
let held: Held | undefined
const sketch = ref<{ x: number; y: number; toX: number; toY: number }>()

function at(event: PointerEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect()
  return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
}

function hold(kind: Held['kind'], event: PointerEvent, shape?: Shape, handle?: Handle): void {
  if (event.button !== 0 || event.altKey) return
  event.stopPropagation()
  if (shape) shapes.chosenId = shape.id
  root.value?.setPointerCapture(event.pointerId)
  root.value?.focus()
  const place = shape ? shapes.placeNow(shape) : { x: 0, y: 0, width: 0, height: 0, turn: 0 }
  held = { kind, handle, ...at(event), place, moved: false }
}

/** What a drag makes of the place it began with. */
function dragged(from: Held, to: { x: number; y: number }, level: boolean): Partial<Place> {
  const { place, handle } = from
  const dx = to.x - from.x
  const dy = to.y - from.y
  if (from.kind === 'move') {
    const only = level && Math.abs(dx) > Math.abs(dy) ? [1, 0] : level ? [0, 1] : [1, 1]
    const scale = props.viewport.scale
    return {
      x: place.x + ((only[0] ?? 1) * dx) / scale / props.picture.width,
      y: place.y + ((only[1] ?? 1) * dy) / scale / props.picture.height,
    }
  }
  const fromCentre = { x: to.x - px(place.x), y: to.y - py(place.y) }
  if (from.kind === 'turn') {
    const before = Math.atan2(from.y - py(place.y), from.x - px(place.x))
    const degrees = place.turn + ((Math.atan2(fromCentre.y, fromCentre.x) - before) * 180) / Math.PI
    return { turn: folded(level ? Math.round(degrees / 15) * 15 : degrees) }
  }
  // Along the shape's own axes.
  const turn = (place.turn * Math.PI) / 180
  const u = Math.abs(fromCentre.x * Math.cos(turn) + fromCentre.y * Math.sin(turn))
  const v = Math.abs(fromCentre.y * Math.cos(turn) - fromCentre.x * Math.sin(turn))
  const width = Math.max(SMALLEST, (2 * u) / side.value)
  const height = Math.max(SMALLEST, (2 * v) / side.value)
  if (handle?.across && handle.down) {
    if (!level) return { width, height }
    const factor = Math.max(width / place.width, height / place.height)
    return { width: place.width * factor, height: place.height * factor }
  }
  return handle?.across ? { width } : { height }
}

function move(event: PointerEvent): void {
  if (!held) return
  event.stopPropagation()
  const to = at(event)
  if (Math.hypot(to.x - held.x, to.y - held.y) > DRAG) held.moved = true
  if (!held.moved) return
  if (held.kind === 'draw') sketch.value = { x: held.x, y: held.y, toX: to.x, toY: to.y }
  else shapes.put(dragged(held, to, event.shiftKey), true)
}

function drop(event: PointerEvent): void {
  const last = held
  held = undefined
  if (!last) return
  event.stopPropagation()
  if (last.kind === 'draw') draw(last, at(event))
  else if (last.moved) {
    const step = { move: 'Shape moved', turn: 'Shape turned', size: 'Shape sized', draw: '' }[last.kind]
    shapes.put(dragged(last, at(event), event.shiftKey), false, step)
  }
}

/** A drag draws from corner to corner, a line along itself; a click puts a shape of the usual size. */
function draw(from: Held, to: { x: number; y: number }): void {
  sketch.value = undefined
  const form = shapes.drawing
  if (!form) return
  const middle = from.moved ? { x: (from.x + to.x) / 2, y: (from.y + to.y) / 2 } : from
  const { x, y } = toShares(props.viewport, props.picture, middle.x, middle.y)
  if (!from.moved) return shapes.add(form, { x, y })
  if (form === 'line') {
    const turn = folded((Math.atan2(to.y - from.y, to.x - from.x) * 180) / Math.PI)
    return shapes.add(form, { x, y, turn: Math.round(turn * 10) / 10 })
  }
  const size = (length: number): number => Math.max(SMALLEST, Math.abs(length) / side.value)
  shapes.add(form, { x, y, width: size(to.x - from.x), height: size(to.y - from.y) })
}

/** A drag that was called off. */
function drawBack(): void {
  held = undefined
  sketch.value = undefined
  bench.release()
}

function key(event: KeyboardEvent): void {
  const now = shapes.place
  if (!now || event.ctrlKey || event.metaKey || event.altKey) return
  const step = event.shiftKey ? FAR_STEP : STEP
  const actions: Record<string, () => void> = {
    arrowleft: () => shapes.put({ x: now.x - step }),
    arrowright: () => shapes.put({ x: now.x + step }),
    arrowup: () => shapes.put({ y: now.y - step }),
    arrowdown: () => shapes.put({ y: now.y + step }),
    '[': () => shapes.scaleBy(1 / GROW),
    ']': () => shapes.scaleBy(GROW),
    t: () => shapes.turnBy(event.shiftKey ? -TURN : TURN),
    n: () => shapes.chooseNext(event.shiftKey ? -1 : 1),
    d: shapes.duplicate,
    delete: shapes.remove,
    backspace: shapes.remove,
    escape: () => {
      if (held) drawBack()
      else shapes.drawing = undefined
    },
  }
  const action = actions[event.key.toLowerCase()]
  if (!action) return
  event.preventDefault()
  event.stopPropagation()
  action()
}
</script>

<template>
  <div
    ref="root"
    class="shapes"
    :class="{ drawing: shapes.drawing }"
    tabindex="0"
    role="application"
    aria-label="Blur shapes. Arrow keys move the chosen one, brackets size it, T turns it, N chooses the next."
    data-test="shapes"
    @pointerdown="shapes.drawing && hold('draw', $event)"
    @pointermove="move"
    @pointerup="drop"
    @pointercancel="drawBack"
    @keydown="key">
    <svg aria-hidden="true">
      <g
        v-for="{ shape, isLine, isChosen, outline, borders, handles, turn, transform } in all"
        :key="shape.id"
        :class="{ chosen: isChosen, off: !shape.shown }"
        :transform="transform"
        :data-test="isChosen ? 'shape-chosen' : 'shape'">
        <template v-for="(edge, i) in [...borders, outline, outline]" :key="i">
          <ellipse
            v-if="shape.form === 'ellipse'"
            :class="i < borders.length ? 'border' : i === borders.length ? 'under' : 'outline'"
            :rx="edge.across"
            :ry="edge.down"
            @pointerdown="i > borders.length && hold('move', $event, shape)" />
          <rect
            v-else
            :class="i < borders.length ? 'border' : i === borders.length ? 'under' : 'outline'"
            :x="-edge.across"
            :y="-edge.down"
            :width="2 * edge.across"
            :height="2 * edge.down"
            :rx="edge.round"
            @pointerdown="i > borders.length && hold('move', $event, shape)" />
        </template>
        <template v-if="isChosen">
          <line v-if="!isLine" class="under" x1="0" :y1="-outline.down" :x2="turn.x" :y2="turn.y" />
          <line v-if="!isLine" class="stem" x1="0" :y1="-outline.down" :x2="turn.x" :y2="turn.y" />
          <circle
            class="handle"
            r="5.5"
            :cx="turn.x"
            :cy="turn.y"
            data-test="shape-turn"
            @pointerdown="hold('turn', $event, shape)" />
          <rect
            v-for="each in handles"
            :key="each.key"
            class="handle"
            :x="each.x - 4.5"
            :y="each.y - 4.5"
            width="9"
            height="9"
            :data-test="`shape-${each.key}`"
            @pointerdown="hold('size', $event, shape, each)" />
          <path class="under" d="M-6,0 h12 M0,-6 v12" />
          <path class="stem" d="M-6,0 h12 M0,-6 v12" />
        </template>
      </g>
      <template v-if="sketch">
        <line
          v-if="shapes.drawing === 'line'"
          class="sketch"
          :x1="sketch.x"
          :y1="sketch.y"
          :x2="sketch.toX"
          :y2="sketch.toY" />
        <ellipse
          v-else-if="shapes.drawing === 'ellipse'"
          class="sketch"
          :cx="(sketch.x + sketch.toX) / 2"
          :cy="(sketch.y + sketch.toY) / 2"
          :rx="Math.abs(sketch.toX - sketch.x) / 2"
          :ry="Math.abs(sketch.toY - sketch.y) / 2" />
        <rect
          v-else
          class="sketch"
          :x="Math.min(sketch.x, sketch.toX)"
          :y="Math.min(sketch.y, sketch.toY)"
          :width="Math.abs(sketch.toX - sketch.x)"
          :height="Math.abs(sketch.toY - sketch.y)" />
      </template>
    </svg>
  </div>
</template>

<style scoped>
.shapes {
  position: absolute;
  inset: 0;
  pointer-events: none;
  outline: none;
}
.shapes.drawing {
  pointer-events: auto;
  cursor: crosshair;
}
.drawing g * {
  pointer-events: none !important;
}
svg {
  width: 100%;
  height: 100%;
}
ellipse,
rect,
line,
path {
  fill: none;
}
.outline {
  stroke: #fff;
  stroke-width: 1.25;
  /* The inside is transparent but takes hold. */
  fill: transparent;
  pointer-events: visiblePainted;
  cursor: move;
}
g:not(.chosen) .outline {
  fill: none;
  pointer-events: stroke;
  cursor: pointer;
  opacity: 0.75;
}
.under {
  stroke: rgba(0, 0, 0, 0.55);
  stroke-width: 3;
  pointer-events: none;
}
g:not(.chosen) .under {
  stroke-width: 2.5;
}
.border {
  stroke: #fff;
  stroke-width: 1;
  stroke-dasharray: 3 4;
  opacity: 0.8;
  pointer-events: none;
}
.chosen .outline,
.chosen .stem,
.sketch {
  stroke: rgb(var(--v-theme-primary));
  stroke-width: 1.5;
}
.stem {
  pointer-events: none;
}
.handle {
  fill: #fff;
  stroke: rgba(0, 0, 0, 0.65);
  stroke-width: 1;
  pointer-events: auto;
  cursor: pointer;
}
.off {
  opacity: 0.45;
}
.shapes:focus-visible .chosen .outline {
  stroke-width: 2.25;
}
</style>
