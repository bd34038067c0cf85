import { ref, type Ref } from 'vue'
import type { Chosen, Mark, MarkKind } from '../../editing/moments'
import { useActing } from '../../stores/acting'
import { useBench } from '../../stores/bench'
import { useTimeline } from '../../stores/timeline'
import { ROOM } from './strip'
import { HEIGHT, type StripMarks } from './stripMarks'

/** Pixels within which a mark is taken hold of. */
const NEAR = 7
const DRAG = 3
/** Points of an ease that is drawn: as many bends as a hand makes. */
const CURVE_POINTS = 12

/** The pointer on the strip: it scrubs, drags marks and ends of stretches, and draws an ease. */
export function useStripHandling(
  root: Ref<HTMLElement | undefined>,
  width: Ref<number>,
  { lasts, xOf, marks, others, notches }: StripMarks,
) {
  const bench = useBench()
  const timeline = useTimeline()
  const acting = useActing()
  const held = ref<'head' | 'marks' | 'curve' | 'in' | 'out' | 'from' | 'to' | undefined>()
  let start = { x: 0, y: 0, moved: false, upright: false }
  let drawn: { along: number; way: number }[] = []

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

  function calledOff(): void {
    held.value = undefined
  }

  return { down, move, up, calledOff, holdEnd }
}
