import { useResizeObserver } from '@vueuse/core'
import { computed, ref, watch, type Ref } from 'vue'
import { useBench } from '../../stores/bench'
import { panesOf, type Pane } from './panes'
import { rememberRoom } from './ready'
import { contained, fit, toShares, visible, zoomAt, type Viewport } from './viewport'

export type Place = { x: number; y: number }

/** Where the picture lies in the stage: in panes beside each other, which are zoomed and moved together. The Bench is told what can be seen. */
export function useStageView(root: Ref<HTMLElement | undefined>) {
  const bench = useBench()
  const stage = ref({ width: 900, height: 560 })
  const viewport = ref<Viewport>({ scale: 1, x: 0, y: 0 })
  /** Whether the whole picture fills its pane. */
  const fitted = ref(true)

  const picture = computed(() => ({ width: bench.shot?.width ?? 3, height: bench.shot?.height ?? 2 }))
  const panes = computed<Pane[]>(() => panesOf(bench))
  const columns = computed(() => (panes.value.length > 1 ? 2 : 1))
  const rows = computed(() => (panes.value.length > 2 ? 2 : 1))
  /** The room of each. */
  const pane = computed(() => ({ width: stage.value.width / columns.value, height: stage.value.height / rows.value }))

  function originOf(i: number): Place {
    return { x: (i % columns.value) * pane.value.width, y: Math.floor(i / columns.value) * pane.value.height }
  }

  /** A place in the stage as one in its pane. */
  function inPane(x: number, y: number): Place {
    return {
      x: x - (x >= pane.value.width && columns.value > 1 ? pane.value.width : 0),
      y: y - (y >= pane.value.height && rows.value > 1 ? pane.value.height : 0),
    }
  }

  /** A place in a pane in shares of the picture. */
  function shares(x: number, y: number): Place {
    return toShares(viewport.value, picture.value, x, y)
  }

  /** The other way round. */
  function paneOf(at: Place): Place {
    const { scale, x, y } = viewport.value
    return { x: x + at.x * picture.value.width * scale, y: y + at.y * picture.value.height * scale }
  }

  function refit(): void {
    viewport.value = fit(pane.value, picture.value)
    fitted.value = true
  }

  function show(wanted: Viewport): void {
    viewport.value = contained(wanted, pane.value, picture.value)
    fitted.value = false
  }

  /** Around a place in a pane. */
  function zoom(factor: number, { x, y }: Place): void {
    const least = Math.min(fit(pane.value, picture.value).scale, 0.1)
    show(zoomAt(viewport.value, factor, x, y, least))
  }

  /** One pixel of the picture is one of the screen, around a place in shares of the picture. */
  function fullSize(at?: Place): void {
    zoom(
      1 / devicePixelRatio / viewport.value.scale,
      at ? paneOf(at) : { x: pane.value.width / 2, y: pane.value.height / 2 },
    )
  }

  /** Puts a place in shares of the picture into the middle. */
  function centreOn(at: Place, scale = viewport.value.scale): void {
    show({
      scale,
      x: pane.value.width / 2 - at.x * picture.value.width * scale,
      y: pane.value.height / 2 - at.y * picture.value.height * scale,
    })
  }

  watch([picture, columns, rows], refit)
  watch(stage, rememberRoom)
  watch(
    [viewport, pane],
    () => {
      const long = Math.max(picture.value.width, picture.value.height)
      bench.look(
        long * viewport.value.scale * devicePixelRatio,
        long * fit(pane.value, picture.value).scale * devicePixelRatio,
        visible(viewport.value, pane.value, picture.value),
      )
    },
    { immediate: true },
  )
  useResizeObserver(root, ([entry]) => {
    if (!entry) return
    stage.value = { width: entry.contentRect.width, height: entry.contentRect.height }
    if (fitted.value) refit()
  })

  return {
    stage,
    viewport,
    fitted,
    picture,
    panes,
    rows,
    pane,
    originOf,
    inPane,
    shares,
    paneOf,
    refit,
    show,
    zoom,
    fullSize,
    centreOn,
  }
}

export type StageView = ReturnType<typeof useStageView>
