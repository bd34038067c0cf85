<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useBench } from '../stores/bench'
import { colours, paint, strongestDistance } from './depthViews'
import { contained, fit, toShares, zoomAt, type Viewport } from './viewport'

const bench = useBench()
const root = ref<HTMLDivElement>()
const canvas = ref<HTMLCanvasElement>()
const stage = ref({ width: 900, height: 560 })
const viewport = ref<Viewport>({ scale: 1, x: 0, y: 0 })
const fitted = ref(true)
const dragging = ref<'pan' | 'split' | 'patch' | undefined>()
const patch = ref<{ x: number; y: number; width: number; height: number }>()

const picture = computed(() => ({ width: bench.shot?.width ?? 3, height: bench.shot?.height ?? 2 }))
const zoomText = computed(() => `${Math.round(viewport.value.scale * devicePixelRatio * 100)} %`)

let overlay: OffscreenCanvas | undefined
let image: ImageData | undefined
let frame = 0
let resize: ResizeObserver | undefined
let start = { x: 0, y: 0, view: viewport.value, moved: false }

function draw(): void {
  cancelAnimationFrame(frame)
  frame = requestAnimationFrame(paintNow)
}

function paintNow(): void {
  const element = canvas.value
  const context = element?.getContext('2d')
  if (!element || !context) return
  const ratio = devicePixelRatio
  const width = Math.round(stage.value.width * ratio)
  const height = Math.round(stage.value.height * ratio)
  if (element.width !== width || element.height !== height) Object.assign(element, { width, height })
  context.setTransform(1, 0, 0, 1, 0, 0)
  context.clearRect(0, 0, width, height)
  const { scale, x, y } = viewport.value
  const box = [x * ratio, y * ratio, picture.value.width * scale * ratio, picture.value.height * scale * ratio] as const
  context.imageSmoothingQuality = 'high'
  context.imageSmoothingEnabled = scale * ratio < 3
  const untouched = bench.original
  const result = bench.holding ? untouched : (bench.preview ?? untouched)
  if (result) context.drawImage(result, ...box)
  if (bench.view !== 'photo' && overlay && !bench.holding) context.drawImage(overlay, ...box)
  if (bench.split && untouched && !bench.holding) {
    context.save()
    context.beginPath()
    context.rect(box[0], box[1], box[2] * bench.splitAt, box[3])
    context.clip()
    context.drawImage(untouched, ...box)
    context.restore()
  }
}

function repaintOverlay(): void {
  const map = bench.nearness
  const band = bench.recipe?.band
  if (map && band && bench.view !== 'photo') {
    if (!overlay || overlay.width !== map.width || overlay.height !== map.height) {
      overlay = new OffscreenCanvas(map.width, map.height)
      image = new ImageData(map.width, map.height)
    }
    if (image) {
      paint(map, colours(bench.view, band, strongestDistance(band)), image)
      overlay.getContext('2d')?.putImageData(image, 0, 0)
    }
  }
  draw()
}

function refit(): void {
  viewport.value = fit(stage.value, picture.value)
  fitted.value = true
}

function fullSize(): void {
  const target = 1 / devicePixelRatio
  viewport.value = zoomAt(viewport.value, target / viewport.value.scale, stage.value.width / 2, stage.value.height / 2, least())
  fitted.value = false
}

function least(): number {
  return Math.min(fit(stage.value, picture.value).scale, 0.1)
}

function wheel(event: WheelEvent): void {
  const box = root.value?.getBoundingClientRect()
  if (!box) return
  const factor = Math.exp(-event.deltaY * 0.0015)
  const zoomed = zoomAt(viewport.value, factor, event.clientX - box.left, event.clientY - box.top, least())
  viewport.value = contained(zoomed, stage.value, picture.value)
  fitted.value = false
}

function place(event: PointerEvent): { x: number; y: number } {
  const box = root.value?.getBoundingClientRect()
  return toShares(viewport.value, picture.value, event.clientX - (box?.left ?? 0), event.clientY - (box?.top ?? 0))
}

function inside(at: { x: number; y: number }): boolean {
  return at.x >= 0 && at.y >= 0 && at.x <= 1 && at.y <= 1
}

function down(event: PointerEvent): void {
  if (event.button > 1) return
  root.value?.setPointerCapture(event.pointerId)
  start = { x: event.clientX, y: event.clientY, view: viewport.value, moved: false }
  const at = place(event)
  dragging.value =
    event.button === 1 || event.altKey || bench.step !== 'focus' || !inside(at) ? 'pan' : 'patch'
}

function move(event: PointerEvent): void {
  const at = place(event)
  bench.hovered = inside(at) ? at : undefined
  if (!dragging.value) return
  const dx = event.clientX - start.x
  const dy = event.clientY - start.y
  if (Math.hypot(dx, dy) > 4) start.moved = true
  if (dragging.value === 'split') {
    bench.splitAt = Math.min(0.98, Math.max(0.02, at.x))
  } else if (dragging.value === 'pan' && start.moved) {
    viewport.value = contained(
      { scale: start.view.scale, x: start.view.x + dx, y: start.view.y + dy }, stage.value, picture.value)
    fitted.value = false
  } else if (dragging.value === 'patch' && start.moved) {
    const box = root.value?.getBoundingClientRect()
    patch.value = {
      x: Math.min(start.x, event.clientX) - (box?.left ?? 0),
      y: Math.min(start.y, event.clientY) - (box?.top ?? 0),
      width: Math.abs(dx),
      height: Math.abs(dy),
    }
  }
}

function up(event: PointerEvent): void {
  const at = place(event)
  const box = patch.value
  if (dragging.value === 'patch' && box) {
    const from = toShares(viewport.value, picture.value, box.x, box.y)
    const to = toShares(viewport.value, picture.value, box.x + box.width, box.y + box.height)
    void bench.focusOn({ kind: 'patch', ...from, width: to.x - from.x, height: to.y - from.y }, 'Focus on an area')
  } else if (dragging.value && dragging.value !== 'split' && !start.moved && event.button === 0 && bench.step === 'focus' && inside(at)) {
    void bench.focusOn({ kind: 'spot', ...at }, 'Focus on a spot')
  }
  patch.value = undefined
  dragging.value = undefined
}

function splitDown(event: PointerEvent): void {
  root.value?.setPointerCapture(event.pointerId)
  dragging.value = 'split'
}

function splitKey(event: KeyboardEvent): void {
  const by = event.key === 'ArrowLeft' ? -0.02 : event.key === 'ArrowRight' ? 0.02 : 0
  if (by) bench.splitAt = Math.min(0.98, Math.max(0.02, bench.splitAt + by))
}

const splitX = computed(() => viewport.value.x + picture.value.width * viewport.value.scale * bench.splitAt)

watch([viewport, () => bench.preview, () => bench.original, () => bench.split, () => bench.splitAt, () => bench.holding], draw)
watch([() => bench.view, () => bench.nearness, () => bench.recipe?.band], repaintOverlay)
watch(picture, refit)
watch(
  viewport,
  ({ scale }) => (bench.wantedSide = Math.max(picture.value.width, picture.value.height) * scale * devicePixelRatio),
  { immediate: true },
)

onMounted(() => {
  resize = new ResizeObserver(([entry]) => {
    if (!entry) return
    stage.value = { width: entry.contentRect.width, height: entry.contentRect.height }
    if (fitted.value) refit()
    draw()
  })
  if (root.value) resize.observe(root.value)
})
onBeforeUnmount(() => {
  resize?.disconnect()
  cancelAnimationFrame(frame)
})

defineExpose({ refit, fullSize })
</script>

<template>
  <div
    ref="root" class="stage" :class="[dragging, { aim: bench.step === 'focus' }]" data-test="stage"
    @pointerdown="down" @pointermove="move" @pointerup="up" @pointercancel="dragging = undefined; patch = undefined"
    @pointerleave="bench.hovered = undefined" @wheel.prevent="wheel" @dblclick="fitted ? fullSize() : refit()"
  >
    <canvas ref="canvas" aria-label="The picture" role="img" />
    <div v-if="patch" class="patch" :style="{ left: `${patch.x}px`, top: `${patch.y}px`, width: `${patch.width}px`, height: `${patch.height}px` }" />
    <div
      v-if="bench.split && !bench.holding" class="split" role="slider" tabindex="0" aria-label="Split between original and result"
      :aria-valuenow="Math.round(bench.splitAt * 100)" aria-valuemin="2" aria-valuemax="98"
      :style="{ left: `${splitX}px` }" @pointerdown.stop="splitDown" @keydown="splitKey"
    >
      <span class="side left">original</span><span class="grip" /><span class="side right">result</span>
    </div>
    <span v-if="bench.holding" class="tag">original</span>
    <div class="zoom">
      <v-btn title="The whole picture (0)" :active="fitted" @click.stop="refit" @pointerdown.stop @dblclick.stop>Fit</v-btn>
      <v-btn title="One pixel of the photo is one pixel of the screen (1)" @click.stop="fullSize" @pointerdown.stop @dblclick.stop>100 %</v-btn>
      <span class="quiet small">{{ zoomText }}</span>
    </div>
  </div>
</template>

<style scoped>
.stage { position: relative; overflow: hidden; background: var(--well); touch-action: none; cursor: grab; min-width: 0; min-height: 0; }
.stage.aim { cursor: crosshair; }
.stage.pan { cursor: grabbing; }
canvas { position: absolute; inset: 0; width: 100%; height: 100%; }
.patch { position: absolute; border: 1px solid #fff; box-shadow: 0 0 0 1px rgba(0, 0, 0, 0.6); pointer-events: none; }
.split { position: absolute; top: 0; bottom: 0; width: 15px; margin-left: -7px; cursor: ew-resize; }
.split::before { content: ''; position: absolute; left: 7px; top: 0; bottom: 0; width: 1px; background: rgba(255, 255, 255, 0.85); box-shadow: 0 0 0 1px rgba(0, 0, 0, 0.35); }
.grip { position: absolute; left: 2px; top: 50%; width: 11px; height: 30px; margin-top: -15px; background: #e8e8e8; border: 1px solid #333; border-radius: 2px; }
.side, .tag { position: absolute; background: rgba(20, 20, 20, 0.78); color: #e6e6e6; font-size: 11px; padding: 1px 7px; border-radius: 2px; white-space: nowrap; }
.side { bottom: 10px; }
.side.left { right: 16px; }
.side.right { left: 16px; }
.tag { left: 12px; top: 12px; }
.zoom { position: absolute; right: 10px; bottom: 8px; display: flex; gap: 2px; align-items: center; background: var(--panel); border: 1px solid var(--line); border-radius: 3px; padding: 0 8px 0 2px; }
</style>
