import { computed, type Ref } from 'vue'
import { doubts } from '../../editing/follow'
import { bandAt, isChosen } from '../../editing/moments'
import { useActing } from '../../stores/acting'
import { useBench } from '../../stores/bench'
import { useFollows } from '../../stores/follows'
import { useKeeping } from '../../stores/keeping'
import { useShapes } from '../../stores/shapes'
import { useTimeline } from '../../stores/timeline'
import { lines, ribbon, spanBar } from './strip'

/** Of the ribbon and the lines, in pixels. */
export const HEIGHT = 70
const SPAN_HEIGHT = 6

/** What the strip shows over a width in pixels, and where. */
export function useStripMarks(width: Ref<number>) {
  const bench = useBench()
  const timeline = useTimeline()
  const follows = useFollows()
  const keeping = useKeeping()
  const acting = useActing()
  const shapes = useShapes()

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
  const span = computed(() =>
    acting.chosen ? spanBar(acting.chosen, lasts.value, width.value, SPAN_HEIGHT) : undefined,
  )
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

  return { lasts, xOf, marks, unsure, shape, others, notches, span, placed, head, inX, outX, cuts, known, played }
}

export type StripMarks = ReturnType<typeof useStripMarks>
