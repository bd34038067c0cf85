import { onBeforeUnmount, onMounted, shallowRef, watch, type Ref } from 'vue'
import { colours, paint, strongestDistance } from '../../editing/depthViews'
import { useBench } from '../../stores/bench'
import { besideSplit, drawPicture, meet, splitOff } from './boxes'
import { createOverlay, type Box, type Overlay } from './overlay'
import { createPace } from './pace'
import type { StageView } from './stageView'

/** Enlarged so much, pixels are shown as they are. */
const PIXELS_SEEN = 3

/** Draws the pictures of the stage, and the depth views over them, whenever something of them changes. */
export function useStageDrawing(
  canvas: Ref<HTMLCanvasElement | undefined>,
  overlayCanvas: Ref<HTMLCanvasElement | undefined>,
  { stage, viewport, picture, panes, pane, originOf }: StageView,
): void {
  const bench = useBench()
  const fallback = shallowRef<OffscreenCanvas>()
  let overlay: Overlay | undefined
  let image: ImageData | undefined
  let frame = 0
  let overlayFrame = 0

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
    context.imageSmoothingEnabled = viewport.value.scale * devicePixelRatio < PIXELS_SEEN
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
      const seen = bench.split
        ? besideSplit(cut, splitOff(box, bench.splitLevel, bench.splitAt), bench.splitLevel)
        : cut
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

  watch(
    [
      stage,
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

  onMounted(() => {
    if (overlayCanvas.value) overlay = createOverlay(overlayCanvas.value)
    if (bench.nearness) overlay?.useNearness(bench.nearness)
    overlay?.useSure(bench.sure)
  })
  onBeforeUnmount(() => {
    cancelAnimationFrame(frame)
    cancelAnimationFrame(overlayFrame)
    pace.stop()
    overlay?.close()
  })
}
