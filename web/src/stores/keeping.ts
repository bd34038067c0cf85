import { defineStore } from 'pinia'
import { computed, shallowRef } from 'vue'
import { api, type KeptAt, type Stretch, type Touchup } from '../api/client'
import { useAskAgain } from './askAgain'
import { newTouchup, strokeOf, type Action, type Point } from '../editing/painting'
import type { PickBox } from '../editing/picking'
import { useBench } from './bench'
import { useTouchups } from './touchups'

const MICROS = 1e6
/** Width of what a click surely lies on, and of a mark, as shares of the longer side. */
const DOT = 0.012
const MARK = 0.006
/** Of one moment. */
const MOST_MARKS = 500
const WHOLE = { left: 0, top: 0, width: 1, height: 1 }

/** Subjects that are kept through a clip: touch-ups whose mask goes along with what was pointed out. */
export const useKeeping = defineStore('keeping', () => {
  const bench = useBench()
  const touchups = useTouchups()
  /** Where each is seen, once that is known. */
  const seen = shallowRef<Record<string, readonly Stretch[]>>({})

  const all = computed<Touchup[]>(() => (bench.clip ? touchups.all.filter((each) => each.kept.length > 0) : []))
  const chosen = computed(() => all.value.find((each) => each.id === touchups.selectedId))
  const seconds = computed(() => bench.micros / MICROS)

  /** What was said last, when it was said of the frame that is shown. */
  const here = computed<KeptAt | undefined>(() => {
    const last = chosen.value?.kept.at(-1)
    return last && frameOf(last) === bench.frame ? last : undefined
  })

  function frameOf({ at }: KeptAt): number {
    const micros = bench.clip?.micros ?? []
    const next = micros.findIndex((each) => each > at * MICROS + 1)
    return (next < 0 ? micros.length : next) - 1
  }

  const keyOf = (each: Touchup): string =>
    JSON.stringify([bench.shot?.id, each.kept, bench.stored?.depth.source, bench.depthPacks.length])

  /** Shares that are carried, and faults, of those that are not carried yet. */
  const making = useAskAgain({
    all,
    keyOf,
    ask: (each, shot, stored) => api.keep(shot, { ...stored, touchups: [each] }, each.id),
    made: (id, found) => {
      seen.value = { ...seen.value, [id]: found.seen }
      bench.drawAgain()
      touchups.maskAgain()
    },
  })

  /** Changes with everything that is said. */
  function say(step: string, kept: KeptAt[]): void {
    if (!chosen.value) return
    touchups.change(chosen.value.id, step, { kept })
  }

  /** Begins to keep what lies at a place, or in a box, of the frame that is shown. */
  function begin(by: 'click' | 'box', part: Partial<KeptAt>): void {
    const said: KeptAt = { ...WHOLE, marks: [], at: seconds.value, by, ...part }
    const like = touchups.all.filter((each) => each.name.startsWith('Kept')).length
    const made = { ...newTouchup('focus', touchups.all, 0.5), name: `Kept ${like + 1}`, kept: [said] }
    bench.commit(`Keep ${made.name}`, { touchups: [...touchups.all, made] })
    touchups.selectedId = made.id
  }

  function click(point: Point): void {
    begin('click', { marks: [mark([point], DOT, false)] })
  }

  function box(sides: PickBox): void {
    begin('box', sides)
  }

  /** Whether what is painted on a touch-up can be carried along. */
  const canCarry = ({ kept, strokes, pickOut, maskFile }: Touchup): boolean =>
    !!bench.clip && !kept.length && !pickOut && !maskFile && strokes.length > 0 && strokes.length <= MOST_MARKS

  /** From the frame that is shown, what is painted goes along with what it lies on. */
  function carryAlong(on: Touchup): void {
    if (!canCarry(on)) return
    const said: KeptAt = { ...WHOLE, at: seconds.value, by: 'painted', marks: on.strokes }
    touchups.change(on.id, `Carry ${on.name} along`, { kept: [said], strokes: [] })
  }

  function mark(points: Point[], size: number, erases: boolean) {
    return strokeOf(
      { ...touchups.brush, erases, size, softness: 0, buildUp: 1, cling: 0, pressure: 'nothing' },
      points,
      touchups.aspect,
      bench.shot?.width ?? 1,
    )
  }

  /** Marks what belongs to it at this moment, or while erasing what does not; that is carried to both sides. */
  function putRight(points: Point[]): void {
    const on = chosen.value
    if (!on) return
    const made = mark(points, MARK, touchups.erases)
    const step = `${touchups.erases ? 'Drop' : 'Keep'} mark on ${on.name}`
    const last = here.value
    if (last) say(step, [...on.kept.slice(0, -1), { ...last, marks: [...last.marks, made] }])
    else say(step, [...on.kept, { ...WHOLE, at: seconds.value, by: 'carried', marks: [made] }])
  }

  /** Takes a mark of this moment away. */
  function unmark(index: number): void {
    const on = chosen.value
    const last = here.value
    if (!on || !last) return
    const marks = last.marks.filter((_, i) => i !== index)
    const rest = on.kept.slice(0, -1)
    if (marks.length || last.by === 'box') say(`Mark off ${on.name}`, [...rest, { ...last, marks }])
    else if (rest.length) say(`Mark off ${on.name}`, rest)
    else touchups.remove(on.id)
  }

  /** What was said last is taken back. */
  function forgetLast(): void {
    const on = chosen.value
    if (on && on.kept.length > 1) say(`Correction off ${on.name}`, on.kept.slice(0, -1))
  }

  /** Sharp with all else as it is, or blurred. */
  function swap(): void {
    const on = chosen.value
    if (!on) return
    const action: Action = on.action === 'blur' ? 'focus' : 'blur'
    touchups.change(on.id, `Swap ${on.name}`, { action, strength: action === 'blur' ? 0.5 : 1 })
  }

  /** Frames in which the chosen one is seen. */
  const seenFrames = computed(() => {
    const found = chosen.value && seen.value[chosen.value.id]
    return found?.reduce((sum, each) => sum + each.to - each.from, 0)
  })

  /** Stretches of the clip in which the chosen one is not seen. */
  const unseen = computed(() => {
    const found = chosen.value && seen.value[chosen.value.id]
    const frames = bench.clip?.micros.length ?? 0
    if (!found) return []
    return [{ from: 0, to: 0 }, ...found]
      .map(({ to }, i) => ({ from: to, end: found[i]?.from ?? frames, hidden: true }))
      .filter(({ from, end }) => from < end)
  })

  return {
    all,
    chosen,
    here,
    making,
    seen,
    seenFrames,
    unseen,
    frameOf,
    click,
    box,
    canCarry,
    carryAlong,
    putRight,
    unmark,
    forgetLast,
    swap,
  }
})
