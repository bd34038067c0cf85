import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Delivery, type Problem } from '../api/client'
import {
  isChosen,
  KINDS,
  movedMarks,
  raisedMarks,
  withEase,
  withFollowing,
  withMark,
  withoutMarks,
  type Chosen,
  type Mark,
  type MarkKind,
} from '../editing/moments'
import type { EaseKind } from '../editing/ease'
import { recipeKey } from '../editing/painting'
import { LATEST } from '../editing/span'
import { useBench } from './bench'

/** How often a film that is being rendered is looked after, in milliseconds. */
const LOOK_AFTER = 700
/** Longer sides of films to play, and how much of them is kept. */
const QUALITIES = { draft: { side: 854, quality: 0.75 }, final: { side: 1280, quality: 0.9 } } as const
const MICROS = 1e6

export type PlayQuality = keyof typeof QUALITIES

/** A film that was rendered to be played. */
type Rendered = { delivery: Delivery; from: number; end: number; key: string; quality: PlayQuality }

export const useTimeline = defineStore('timeline', () => {
  const bench = useBench()
  const frames = computed(() => bench.clip?.micros.length ?? 0)
  /** The stretch that is played and delivered: its first frame, and the first behind it. */
  const from = ref(0)
  const end = ref(0)
  const chosen = ref<Chosen[]>([])
  const quality = ref<PlayQuality>('draft')
  const rendered = shallowRef<Rendered>()
  const rate = ref(1)
  let timer: ReturnType<typeof setTimeout> | undefined

  watch(
    () => bench.clip,
    (clip) => {
      from.value = 0
      end.value = clip?.micros.length ?? 0
      chosen.value = []
      clearTimeout(timer)
      rendered.value = undefined
      rate.value = 1
    },
    { immediate: true },
  )

  const lasts = computed(() => (bench.clip?.lasts ?? 0) / MICROS)
  const secondsOf = (frame: number): number => (bench.clip?.micros[frame] ?? bench.clip?.lasts ?? 0) / MICROS

  /** The frame that is shown at a time in seconds. */
  function frameAt(seconds: number): number {
    const all = bench.clip?.micros ?? []
    const wanted = seconds * MICROS + 1
    let low = 0
    let high = all.length - 1
    while (low < high) {
      const middle = Math.ceil((low + high) / 2)
      if ((all[middle] ?? 0) <= wanted) low = middle
      else high = middle - 1
    }
    return Math.max(0, low)
  }

  /** Frames at which marks and cuts lie, and both ends. */
  const stops = computed(() => {
    const marks = KINDS.flatMap((kind) => (bench.stored?.marks[kind] ?? []).map((each) => frameAt(each.at)))
    const placed = (bench.stored?.shapes ?? []).flatMap((shape) => shape.marks.map((each) => frameAt(each.at)))
    return [...new Set([0, ...marks, ...placed, ...(bench.clip?.cuts ?? []), frames.value - 1])].sort((a, b) => a - b)
  })

  function jump(direction: 1 | -1): void {
    const next =
      direction > 0
        ? stops.value.find((each) => each > bench.frame)
        : stops.value.findLast((each) => each < bench.frame)
    if (next !== undefined) bench.turnTo(next)
  }

  function setIn(frame = bench.frame): void {
    from.value = Math.min(frame, frames.value - 1)
    if (end.value <= from.value) end.value = frames.value
  }

  function setOut(frame = bench.frame): void {
    end.value = Math.max(1, frame + 1)
    if (from.value >= end.value) from.value = 0
  }

  function valuesOf(part: object): object {
    const { fNumber, strength } = part as { fNumber?: number; strength?: number }
    return fNumber === undefined ? part : { fNumber, strength }
  }

  /** A mark with what is there now. */
  function markHere(kind: MarkKind): void {
    const recipe = bench.stored
    const now = bench.recipe
    if (!recipe || !now) return
    const values = kind === 'opacity' ? { opacity: now.opacity } : valuesOf(now[kind])
    bench.rewrite('Mark', { ...recipe, marks: withMark(recipe.marks, kind, bench.micros / MICROS, values) })
  }

  function removeChosen(): void {
    if (!bench.stored || !chosen.value.length) return
    bench.rewrite(chosen.value.length > 1 ? 'Marks removed' : 'Mark removed', withoutMarks(bench.stored, chosen.value))
    chosen.value = []
  }

  let dragged: { marks: NonNullable<typeof bench.stored>['marks']; chosen: Chosen[] } | undefined

  /** Moves the chosen marks while they are dragged; the last frame is as far as they go. */
  function drag(by: number, copies: boolean): void {
    if (!bench.stored) return
    dragged ??= { marks: bench.stored.marks, chosen: chosen.value }
    const moved = movedMarks(dragged.marks, dragged.chosen, by, secondsOf(frames.value - 1), copies)
    chosen.value = moved.chosen
    bench.live({ marks: moved.marks })
  }

  /** Changes the values of the chosen marks while they are dragged up or down, by a share of the height. */
  function raise(by: number): void {
    if (!bench.stored) return
    dragged ??= { marks: bench.stored.marks, chosen: chosen.value }
    const free = bench.stored.aperture.mode === 'free'
    bench.live({ marks: raisedMarks(dragged.marks, dragged.chosen, by, free) })
  }

  function drop(name: string): void {
    if (!dragged || !bench.stored) return
    dragged = undefined
    bench.rewrite(name, bench.stored)
  }

  function ease(kind: EaseKind, curve: { along: number; way: number }[] = []): void {
    if (!bench.stored || !chosen.value.length) return
    bench.rewrite('Ease', { ...bench.stored, marks: withEase(bench.stored.marks, chosen.value, kind, curve) })
  }

  /** From the chosen marks on the band keeps to what is followed. */
  function follow(): void {
    if (!bench.stored || !chosen.value.length) return
    bench.rewrite('Follow from here', { ...bench.stored, marks: withFollowing(bench.stored.marks, chosen.value) })
  }

  /** Whether something is followed to which chosen marks of the band can leave it. */
  const canFollow = computed(
    () => !!bench.stored?.follows.some((each) => each.focus) && chosen.value.some((each) => each.kind === 'band'),
  )
  const followsFromChosen = computed(() =>
    (bench.stored?.marks.band ?? []).some((each) => each.follow && isChosen(chosen.value, 'band', each)),
  )

  /** The ease of the chosen marks, when they have one. */
  const easeOfChosen = computed<EaseKind | ''>(() => {
    const all = KINDS.flatMap((kind) =>
      ((bench.stored?.marks[kind] ?? []) as Mark[]).filter((each) => isChosen(chosen.value, kind, each)),
    )
    const first = all[0]?.ease
    return first && all.every((each) => each.ease === first) ? first : ''
  })

  /** A touch-up that begins with the first frame or ends with the last is not faded there. */
  const spanFrom = (frame: number): number => (frame <= 0 ? 0 : secondsOf(frame))
  const spanTo = (frame: number): number => (frame >= frames.value - 1 ? LATEST : secondsOf(frame))

  const key = computed(() => recipeKey(bench.stored) + (bench.shot?.depths.map((each) => each.hash).join() ?? ''))
  /** Whether what was rendered shows the clip as it is now. */
  const fresh = computed(() => rendered.value?.delivery.state === 'done' && rendered.value.key === key.value)
  const rendering = computed(() => ['waiting', 'rendering'].includes(rendered.value?.delivery.state ?? ''))

  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
    } catch (problem) {
      bench.notice = (problem as Problem).message
    }
  }

  /** Renders the stretch so that it plays as it will look. */
  async function render(): Promise<void> {
    const { shot, stored } = bench
    if (!shot || !stored) return
    const { side, quality: kept } = QUALITIES[quality.value]
    const longSide = Math.min(side, Math.max(shot.width, shot.height))
    await attempt(async () => {
      const delivery = await api.play(shot.id, {
        recipe: stored,
        frames: { from: from.value, end: end.value },
        longSide,
        quality: kept,
      })
      rendered.value = { delivery, from: from.value, end: end.value, key: key.value, quality: quality.value }
      lookAfter()
    })
  }

  function lookAfter(): void {
    clearTimeout(timer)
    timer = setTimeout(() => {
      const current = rendered.value
      if (!current || !rendering.value) return
      void attempt(async () => {
        const delivery = await api.delivery(current.delivery.id)
        if (rendered.value?.delivery.id !== delivery.id) return
        rendered.value = { ...current, delivery }
        if (delivery.state === 'failed') bench.notice = delivery.problem ?? 'The stretch could not be rendered.'
      }).then(lookAfter)
    }, LOOK_AFTER)
  }

  async function cancelRender(): Promise<void> {
    const current = rendered.value
    if (!current) return
    clearTimeout(timer)
    await attempt(() => api.cancelDelivery(current.delivery.id))
    rendered.value = undefined
  }

  function play(speed = 1): void {
    if (!frames.value) return
    rate.value = speed
    bench.playing = true
  }

  function stop(): void {
    bench.playing = false
    rate.value = 1
  }

  const toggle = (): void => (bench.playing ? stop() : play())

  return {
    frames,
    from,
    end,
    lasts,
    chosen,
    quality,
    rendered,
    rendering,
    fresh,
    rate,
    secondsOf,
    frameAt,
    jump,
    setIn,
    setOut,
    markHere,
    removeChosen,
    drag,
    raise,
    drop,
    ease,
    easeOfChosen,
    follow,
    canFollow,
    followsFromChosen,
    spanFrom,
    spanTo,
    render,
    cancelRender,
    play,
    stop,
    toggle,
  }
})
