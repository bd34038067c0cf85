<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch } from 'vue'
import type { FocusPlace } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useInspector } from '../../stores/inspector'
import { useLadder } from '../../stores/ladder'
import { usePull } from '../../stores/pull'
import { useTouchups } from '../../stores/touchups'
import { colours, paint, strongestDistance } from '../../editing/depthViews'
import FaultFrame from '../inspect/FaultFrame.vue'
import FollowLayer from './FollowLayer.vue'
import InspectorBar from '../inspect/InspectorBar.vue'
import LadderLayer from './LadderLayer.vue'
import LoupeView from './LoupeView.vue'
import MiniMap from './MiniMap.vue'
import { createOverlay, type Box, type Overlay } from './overlay'
import { besideSplit, drawPicture, meet, splitOff } from './boxes'
import { createPace } from './pace'
import PaintLayer from '../paint/PaintLayer.vue'
import PickLayer from '../paint/PickLayer.vue'
import PlayLayer from '../time/PlayLayer.vue'
import { panesOf, type Pane } from './panes'
import ShapeLayer from './ShapeLayer.vue'
import SplitHandle from './SplitHandle.vue'
import ThingOutlines from './ThingOutlines.vue'
import { rememberRoom } from './ready'
import { contained, fit, toShares, visible, zoomAt, type Viewport } from './viewport'

const DRAG = 4
const AIM_STEP = 0.02
const FINE_AIM_STEP = 0.004

const bench = useBench()
const touchups = useTouchups()
const ladder = useLadder()
const pull = usePull()
const inspector = useInspector()
const root = ref<HTMLDivElement>()
const canvas = ref<HTMLCanvasElement>()
const overlayCanvas = ref<HTMLCanvasElement>()
const stage = ref({ width: 900, height: 560 })
const viewport = ref<Viewport>({ scale: 1, x: 0, y: 0 })
const fitted = ref(true)
const dragging = ref<'pan' | 'split' | 'patch' | undefined>()
const patch = ref<{ x: number; y: number; width: number; height: number }>()
/** Where the keyboard aims, in shares of the picture. */
const aim = ref<{ x: number; y: number }>()
const pointer = ref({ x: 0, y: 0 })

const picture = computed(() => ({ width: bench.shot?.width ?? 3, height: bench.shot?.height ?? 2 }))
const zoomText = computed(() => `${Math.round(viewport.value.scale * devicePixelRatio * 100)} %`)

const panes = computed<Pane[]>(() => panesOf(bench))
const columns = computed(() => (panes.value.length > 1 ? 2 : 1))
const rows = computed(() => (panes.value.length > 2 ? 2 : 1))
const pane = computed(() => ({ width: stage.value.width / columns.value, height: stage.value.height / rows.value }))
const originOf = (i: number) => ({
  x: (i % columns.value) * pane.value.width,
  y: Math.floor(i / columns.value) * pane.value.height,
})

const fallback = shallowRef<OffscreenCanvas>()
let overlay: Overlay | undefined
let image: ImageData | undefined
let frame = 0
let start = { x: 0, y: 0, view: viewport.value, moved: false }

function draw(): void {
  cancelAnimationFrame(frame)
  frame = requestAnimationFrame(paintNow)
}

function sized(element: HTMLCanvasElement, coarseness = 1): void {
  const width = Math.round((stage.value.width * devicePixelRatio) / coarseness)
  const height = Math.round((stage.value.height * devicePixelRatio) / coarseness)
  if (element.width !== width || element.height !== height) Object.assign(element, { width, height })
}

/** Where the picture lies in a pane, and the pane itself, in pixels of the canvas. */
function places(i: number, coarseness = 1): { box: Box; cut: Box } {
  const ratio = devicePixelRatio / coarseness
  const origin = originOf(i)
  const { scale, x, y } = viewport.value
  return {
    box: {
      x: (origin.x + x) * ratio,
      y: (origin.y + y) * ratio,
      width: picture.value.width * scale * ratio,
      height: picture.value.height * scale * ratio,
    },
    cut: {
      x: origin.x * ratio,
      y: origin.y * ratio,
      width: pane.value.width * ratio,
      height: pane.value.height * ratio,
    },
  }
}

function paintNow(): void {
  const element = canvas.value
  const context = element?.getContext('2d')
  if (!element || !context) return
  sized(element)
  context.clearRect(0, 0, element.width, element.height)
  context.imageSmoothingQuality = 'high'
  context.imageSmoothingEnabled = viewport.value.scale * devicePixelRatio < 3
  panes.value.forEach((shown, i) => {
    const { box, cut } = places(i)
    drawPicture(context, shown, box, cut)
    if (fallback.value && bench.view !== 'photo' && !shown.original)
      context.drawImage(fallback.value, box.x, box.y, box.width, box.height)
    if (bench.split && !shown.original) {
      drawPicture(
        context,
        { whole: bench.original, detail: bench.originalDetail },
        box,
        meet(cut, splitOff(box, bench.splitLevel, bench.splitAt)),
      )
    }
  })
  drawOverlay()
}

/** The views follow a drag: where the graphics hardware is too slow for that they are drawn coarser until it rests. */
const pace = createPace(() => drawOverlay())

function drawOverlay(): void {
  const element = overlayCanvas.value
  const band = bench.recipe?.band
  if (!element || !overlay || !band || !bench.nearness) return
  const coarseness = pace.drawn()
  sized(element, coarseness)
  overlay.clear()
  if (bench.holding || (bench.view === 'photo' && !bench.marked)) return
  panes.value.forEach((shown, i) => {
    if (shown.original) return
    const { box, cut } = places(i, coarseness)
    const seen = bench.split ? besideSplit(cut, splitOff(box, bench.splitLevel, bench.splitAt), bench.splitLevel) : cut
    overlay?.draw(box, seen, { view: bench.view, band, mark: bench.marked })
  })
}

/** Without graphics hardware the views are painted pixel by pixel. */
function repaintFallback(): void {
  const map = bench.nearness
  const band = bench.recipe?.band
  if (map && band && bench.view !== 'photo' && !overlay) {
    if (!fallback.value || fallback.value.width !== map.width || fallback.value.height !== map.height) {
      fallback.value = new OffscreenCanvas(map.width, map.height)
      image = new ImageData(map.width, map.height)
    }
    if (image) {
      paint(map, colours(bench.view, band, strongestDistance(band)), band, bench.view, image)
      fallback.value.getContext('2d')?.putImageData(image, 0, 0)
    }
  }
  draw()
}

function refit(): void {
  viewport.value = fit(pane.value, picture.value)
  fitted.value = true
}

function fullSize(): void {
  const target = 1 / devicePixelRatio
  const at = aim.value ?? bench.hovered
  const x = at ? viewport.value.x + at.x * picture.value.width * viewport.value.scale : pane.value.width / 2
  const y = at ? viewport.value.y + at.y * picture.value.height * viewport.value.scale : pane.value.height / 2
  viewport.value = contained(
    zoomAt(viewport.value, target / viewport.value.scale, x, y, least()),
    pane.value,
    picture.value,
  )
  fitted.value = false
}

/** Puts a place in shares of the picture into the middle. */
function centreOn(at: { x: number; y: number }): void {
  const { scale } = viewport.value
  viewport.value = contained(
    {
      scale,
      x: pane.value.width / 2 - at.x * picture.value.width * scale,
      y: pane.value.height / 2 - at.y * picture.value.height * scale,
    },
    pane.value,
    picture.value,
  )
  fitted.value = false
}

function least(): number {
  return Math.min(fit(pane.value, picture.value).scale, 0.1)
}

/** A place in the stage as one in its pane. */
function inPane(event: MouseEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect()
  const x = event.clientX - (box?.left ?? 0)
  const y = event.clientY - (box?.top ?? 0)
  return {
    x: x - (x >= pane.value.width && columns.value > 1 ? pane.value.width : 0),
    y: y - (y >= pane.value.height && rows.value > 1 ? pane.value.height : 0),
  }
}

function zoom(factor: number, x: number, y: number): void {
  viewport.value = contained(zoomAt(viewport.value, factor, x, y, least()), pane.value, picture.value)
  fitted.value = false
}

function wheel(event: WheelEvent): void {
  const at = inPane(event)
  // Two fingers spreading on a touch pad arrive as small steps with the control key.
  zoom(Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0015)), at.x, at.y)
}

function place(event: PointerEvent): { x: number; y: number } {
  const at = inPane(event)
  return toShares(viewport.value, picture.value, at.x, at.y)
}

function inside(at: { x: number; y: number }): boolean {
  return at.x >= 0 && at.y >= 0 && at.x <= 1 && at.y <= 1
}

function down(event: PointerEvent): void {
  if (event.button > 1) return
  root.value?.setPointerCapture(event.pointerId)
  start = { x: event.clientX, y: event.clientY, view: viewport.value, moved: false }
  aim.value = undefined
  const at = place(event)
  dragging.value = event.button === 1 || event.altKey || bench.step !== 'focus' || !inside(at) ? 'pan' : 'patch'
}

function move(event: PointerEvent): void {
  const at = place(event)
  bench.hovered = inside(at) ? at : undefined
  const box = root.value?.getBoundingClientRect()
  pointer.value = { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  if (!dragging.value) return
  const dx = event.clientX - start.x
  const dy = event.clientY - start.y
  if (Math.hypot(dx, dy) > DRAG) start.moved = true
  if (dragging.value === 'split') {
    bench.splitAt = Math.min(0.98, Math.max(0.02, bench.splitLevel ? at.y : at.x))
  } else if (dragging.value === 'pan' && start.moved) {
    viewport.value = contained(
      { scale: start.view.scale, x: start.view.x + dx, y: start.view.y + dy },
      pane.value,
      picture.value,
    )
    fitted.value = false
  } else if (dragging.value === 'patch' && start.moved) {
    patch.value = {
      x: Math.min(start.x, event.clientX) - (box?.left ?? 0),
      y: Math.min(start.y, event.clientY) - (box?.top ?? 0),
      width: Math.abs(dx),
      height: Math.abs(dy),
    }
  }
}

/** Puts the band there, or the next end of a pull. */
function focus(place: FocusPlace, name: string): void {
  if (pull.active) void pull.click(place)
  else void bench.focusOn(place, name)
}

function up(event: PointerEvent): void {
  const at = place(event)
  const box = patch.value
  if (dragging.value === 'patch' && box) {
    const off = {
      x: columns.value > 1 && box.x >= pane.value.width ? pane.value.width : 0,
      y: rows.value > 1 && box.y >= pane.value.height ? pane.value.height : 0,
    }
    const from = toShares(viewport.value, picture.value, box.x - off.x, box.y - off.y)
    const to = toShares(viewport.value, picture.value, box.x - off.x + box.width, box.y - off.y + box.height)
    focus({ kind: 'patch', ...from, width: to.x - from.x, height: to.y - from.y }, 'Focus on an area')
  } else if (
    dragging.value &&
    dragging.value !== 'split' &&
    !start.moved &&
    event.button === 0 &&
    bench.step === 'focus' &&
    inside(at)
  ) {
    focus({ kind: 'spot', ...at }, 'Focus on a spot')
  }
  patch.value = undefined
  dragging.value = undefined
}

/** The keyboard aims, zooms and focuses: arrows move the aim, and the picture with it where it would leave the stage. */
function key(event: KeyboardEvent): void {
  if (event.target !== root.value) return
  const by = event.shiftKey ? FINE_AIM_STEP : AIM_STEP
  const steps: Record<string, [number, number]> = {
    ArrowLeft: [-by, 0],
    ArrowRight: [by, 0],
    ArrowUp: [0, -by],
    ArrowDown: [0, by],
  }
  const step = steps[event.key]
  const at = aim.value ?? { x: 0.5, y: 0.5 }
  if (step) {
    const zoomed = bench.seen
    const next = {
      x: at.x + step[0] * Math.min(1, zoomed.width + 0.05),
      y: at.y + step[1] * Math.min(1, zoomed.height + 0.05),
    }
    aim.value = { x: Math.min(1, Math.max(0, next.x)), y: Math.min(1, Math.max(0, next.y)) }
    bench.hovered = aim.value
    const { x, y, width, height } = zoomed
    if (!fitted.value && (aim.value.x < x || aim.value.x > x + width || aim.value.y < y || aim.value.y > y + height))
      centreOn(aim.value)
  } else if (event.key === 'Enter' && bench.step === 'focus') {
    focus({ kind: 'spot', ...at }, 'Focus on a spot')
  } else if (event.key === 'Enter' && bench.step === 'depth' && ladder.open) {
    ladder.add(at.x, at.y, event.shiftKey)
  } else if (event.key === 'Enter' && bench.step === 'touchup') {
    touchups.begin({ ...at, pressure: 1 })
    touchups.end()
  } else if (event.key === '+' || event.key === '-') {
    const px = viewport.value.x + at.x * picture.value.width * viewport.value.scale
    const py = viewport.value.y + at.y * picture.value.height * viewport.value.scale
    zoom(event.key === '+' ? 1.25 : 0.8, px, py)
  } else return
  event.preventDefault()
}

function splitDown(event: PointerEvent): void {
  root.value?.setPointerCapture(event.pointerId)
  dragging.value = 'split'
}

const aimStyle = computed(() => {
  const at = aim.value
  const { x, y, scale } = viewport.value
  return (
    at && { left: `${x + at.x * picture.value.width * scale}px`, top: `${y + at.y * picture.value.height * scale}px` }
  )
})

/** A probable fault is shown at 100 %. */
watch(
  () => inspector.current,
  (fault) => {
    if (!fault) return
    viewport.value = { ...viewport.value, scale: 1 / devicePixelRatio }
    centreOn({ x: fault.left + fault.width / 2, y: fault.top + fault.height / 2 })
  },
)

watch(
  [
    viewport,
    panes,
    () => bench.split,
    () => bench.splitAt,
    () => bench.splitLevel,
    () => bench.originalDetail,
    () => bench.original,
  ],
  draw,
)
let overlayFrame = 0
watch([() => bench.view, () => bench.recipe?.band, () => bench.marked], () => {
  if (!overlay) return repaintFallback()
  cancelAnimationFrame(overlayFrame)
  overlayFrame = requestAnimationFrame(drawOverlay)
})
watch(
  () => bench.nearness,
  (map) => {
    if (map) overlay?.useNearness(map)
    if (overlay) draw()
    else repaintFallback()
  },
)
watch(
  () => bench.edgeWidths,
  (map) => {
    if (map) overlay?.useWidths(map)
    draw()
  },
)
watch(
  () => bench.sure,
  (map) => {
    overlay?.useSure(map)
    draw()
  },
)
watch([picture, columns, rows], refit)
watch(stage, rememberRoom)
watch(
  [viewport, pane],
  () => {
    const long = Math.max(picture.value.width, picture.value.height)
    const fitting = fit(pane.value, picture.value).scale
    bench.look(
      long * viewport.value.scale * devicePixelRatio,
      long * fitting * devicePixelRatio,
      visible(viewport.value, pane.value, picture.value),
    )
  },
  { immediate: true },
)
/** The other versions are drawn anew when they, the choice of them, or the room for each has changed. */
const comparison = computed(() =>
  bench.compare === 'versions'
    ? JSON.stringify([
        pane.value,
        bench.version?.id,
        bench.versions.filter((each) => bench.compared.includes(each.id)).map((each) => [each.id, each.position]),
      ])
    : '',
)
watch(
  comparison,
  (now) =>
    now && void bench.compareVersions(bench.compared, Math.max(pane.value.width, pane.value.height) * devicePixelRatio),
)

onMounted(() => {
  if (overlayCanvas.value) overlay = createOverlay(overlayCanvas.value)
  if (bench.nearness) overlay?.useNearness(bench.nearness)
  overlay?.useSure(bench.sure)
})
useResizeObserver(root, ([entry]) => {
  if (!entry) return
  stage.value = { width: entry.contentRect.width, height: entry.contentRect.height }
  if (fitted.value) refit()
  draw()
})
onBeforeUnmount(() => {
  cancelAnimationFrame(frame)
  cancelAnimationFrame(overlayFrame)
  pace.stop()
  overlay?.close()
})

function calledOff(): void {
  dragging.value = undefined
  patch.value = undefined
}

defineExpose({ refit, fullSize })
</script>

<template>
  <div
    ref="root"
    class="stage"
    :class="[dragging, { aim: bench.step === 'focus' }]"
    data-test="stage"
    tabindex="0"
    role="application"
    aria-label="The picture. Arrow keys aim, Enter focuses there, plus and minus zoom."
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="calledOff"
    @pointerleave="bench.hovered = undefined"
    @wheel.prevent="wheel"
    @dblclick="fitted ? fullSize() : refit()"
    @keydown="key">
    <canvas ref="canvas" />
    <PlayLayer v-if="bench.playing" :viewport="viewport" :picture="picture" />
    <canvas ref="overlayCanvas" class="overlay" />
    <ThingOutlines
      v-if="bench.step === 'focus' && panes.length === 1 && !bench.holding"
      :viewport="viewport"
      :picture="picture" />
    <div
      v-if="patch"
      class="patch"
      :style="{ left: `${patch.x}px`, top: `${patch.y}px`, width: `${patch.width}px`, height: `${patch.height}px` }" />
    <PaintLayer
      v-if="bench.step === 'touchup' && panes.length === 1 && bench.recipe"
      :viewport="viewport"
      :picture="picture"
      :stage="stage" />
    <PickLayer
      v-if="
        bench.step === 'touchup' && panes.length === 1 && bench.recipe && touchups.tool !== 'brush' && !touchups.picking
      "
      :viewport="viewport"
      :picture="picture" />
    <FollowLayer
      v-if="bench.step === 'focus' && bench.clip && panes.length === 1 && bench.recipe && !bench.playing"
      :viewport="viewport"
      :picture="picture" />
    <LadderLayer
      v-if="
        bench.step === 'depth' && ladder.open && panes.length === 1 && bench.recipe && !bench.playing && !bench.holding
      "
      :viewport="viewport"
      :picture="picture" />
    <ShapeLayer
      v-if="bench.step === 'shapes' && panes.length === 1 && bench.recipe && !bench.playing && !bench.holding"
      :viewport="viewport"
      :picture="picture" />
    <FaultFrame
      v-if="inspector.current && panes.length === 1"
      :fault="inspector.current"
      :viewport="viewport"
      :picture="picture" />
    <InspectorBar v-if="inspector.open" />
    <div v-if="aim" class="cross" :style="aimStyle" />
    <SplitHandle v-if="bench.split && !bench.holding" :viewport="viewport" :picture="picture" @grab="splitDown" />
    <template v-if="panes.length > 1">
      <span
        v-for="(each, i) in panes"
        :key="each.key"
        class="tag pane-tag"
        data-test="pane"
        :style="{ left: `${originOf(i).x + 12}px`, top: `${originOf(i).y + 12}px`, maxWidth: `${pane.width - 24}px` }">
        {{ each.title }}
        <span v-if="each.about" class="about">{{ each.about }}</span>
      </span>
      <span class="seam" :style="{ left: `${pane.width}px` }" />
      <span v-if="rows > 1" class="seam level" :style="{ top: `${pane.height}px` }" />
    </template>
    <span v-else-if="bench.holding" class="tag first">original</span>
    <LoupeView v-if="bench.loupe && bench.hovered && !dragging" :pointer="pointer" :stage="stage" />
    <MiniMap v-if="!fitted && (bench.seen.width < 0.98 || bench.seen.height < 0.98)" class="mini" @centre="centreOn" />
    <div class="zoom">
      <v-btn
        title="The whole picture (0)"
        :active="fitted"
        data-test="fit"
        @click.stop="refit"
        @pointerdown.stop
        @dblclick.stop>
        Fit
      </v-btn>
      <v-btn
        title="One pixel of the photo is one pixel of the screen (1)"
        data-test="full"
        @click.stop="fullSize"
        @pointerdown.stop
        @dblclick.stop>
        100 %
      </v-btn>
      <span class="small" data-test="zoom">{{ zoomText }}</span>
    </div>
  </div>
</template>

<style scoped>
.stage {
  position: relative;
  overflow: hidden;
  background: var(--well);
  touch-action: none;
  cursor: grab;
  min-width: 0;
  min-height: 0;
}
.stage.aim {
  cursor: crosshair;
}
.stage.pan {
  cursor: grabbing;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.overlay {
  pointer-events: none;
}
.patch {
  position: absolute;
  border: 1px solid #fff;
  box-shadow: 0 0 0 1px rgba(0, 0, 0, 0.6);
  pointer-events: none;
}
.cross {
  position: absolute;
  width: 19px;
  height: 19px;
  margin: -9px 0 0 -9px;
  pointer-events: none;
  background:
    linear-gradient(#fff, #fff) center / 1px 100% no-repeat,
    linear-gradient(#fff, #fff) center / 100% 1px no-repeat;
  filter: drop-shadow(0 0 1px #000);
}
.tag {
  position: absolute;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
  font-size: 11px;
  padding: 1px 7px;
  border-radius: 2px;
  white-space: nowrap;
}
.tag.first {
  left: 12px;
  top: 12px;
}
.pane-tag {
  overflow: hidden;
  text-overflow: ellipsis;
  pointer-events: none;
}
.pane-tag .about {
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
.mini {
  position: absolute;
  left: 10px;
  bottom: 8px;
}
.zoom {
  position: absolute;
  right: 10px;
  bottom: 8px;
  display: flex;
  gap: 2px;
  align-items: center;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 0 8px 0 2px;
}
</style>
