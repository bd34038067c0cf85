import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Problem, type PickOut, type Touchup } from '../api/client'
import { decodeEdgeWidths, nearnessAt, type EdgeWidths } from '../editing/nearness'
import {
  hasPaint,
  newTouchup,
  reordered,
  resized,
  strokeOf,
  touchupsKey,
  type Action,
  type Brush,
  type Point,
} from '../editing/painting'
import { usePreviewLoop } from '../editing/previewLoop'
import type { PickBox } from '../editing/picking'
import { sameMoment } from '../editing/moments'
import { AFTER_PAINT } from '../editing/depthMap'
import { useBench } from './bench'

export type Tool = 'brush' | 'pick-out' | 'keep'

const LIVE_EVERY = 120
/** Width of a mark as a share of the longer side: thin, so that it lies on one thing only. */
const MARK = 0.006
const USUAL: Brush = {
  erases: false,
  size: 0.06,
  softness: 0.3,
  buildUp: 1,
  cling: 0.6,
  edges: 'photo',
  pressure: 'nothing',
}

/** The touch-ups of the open recipe, the brush, and the stroke that is being painted. */
export const useTouchups = defineStore('touchups', () => {
  const bench = useBench()
  const brush = ref<Brush>({ ...USUAL })
  const selectedId = ref('')
  /** The next click on the picture picks the depth that the selected touch-up leads to. */
  const picking = ref(false)
  /** True while the key of the eraser is held. */
  const erasing = ref(false)
  /** Paint with the brush, point an object out, or in a clip a subject that is kept. */
  const tool = ref<Tool>('brush')
  /** True while the mask of the selected touch-up is being made. */
  const finding = ref(false)
  /** Whether what is painted is tinted. */
  const tint = ref(true)
  const stroke = shallowRef<Point[]>()
  /** Where the last stroke ended, for a straight line from there. */
  const last = shallowRef<Point>()
  /** What the selected touch-up's strokes paint. */
  const mask = shallowRef<EdgeWidths>()

  /** As they are stored: at a moment of a clip some of them act less. */
  const all = computed<Touchup[]>(() => bench.stored?.touchups ?? [])
  const selected = computed(() => all.value.find((each) => each.id === selectedId.value))
  const aspect = computed(() => (bench.shot?.width ?? 3) / (bench.shot?.height ?? 2))
  const erases = computed(() => brush.value.erases !== erasing.value)

  const picked = new Set<string>()
  let before: Touchup[] = []
  let begun: Touchup | undefined
  let liveAt = 0
  let maskTimer: ReturnType<typeof setTimeout> | undefined
  let maskLoop: ReturnType<typeof usePreviewLoop<{ id: string; touchup: Touchup }, EdgeWidths>> | undefined

  function add(action: Action): void {
    const made = newTouchup(action, all.value, bandDepth())
    bench.commit(`New ${action} touch-up`, { touchups: [...all.value, made] })
    selectedId.value = made.id
    useBrush({ erases: false })
  }

  /** Adds a touch-up that was made elsewhere; returns its id. */
  function addMade(made: Touchup, kind: string): string {
    const like = all.value.filter((each) => each.name.startsWith(kind)).length
    const own = { ...made, id: crypto.randomUUID(), name: `${kind} ${like + 1}` }
    bench.commit(`Mend ${own.name}`, { touchups: [...all.value, own] })
    selectedId.value = own.id
    picked.add(own.id)
    return own.id
  }

  function bandDepth(): number {
    const band = bench.recipe?.band
    return band ? (band.near + band.far) / 2 : 0.5
  }

  function replaced(changed: Touchup): Touchup[] {
    return all.value.map((each) => (each.id === changed.id ? changed : each))
  }

  function live(part: Partial<Touchup>): void {
    if (selected.value) bench.live({ touchups: replaced({ ...selected.value, ...part }) })
  }

  function change(id: string, name: string, part: Partial<Touchup>): void {
    const found = all.value.find((each) => each.id === id)
    if (found) bench.commit(name, { touchups: replaced({ ...found, ...part }) })
  }

  function remove(id: string): void {
    const at = all.value.findIndex((each) => each.id === id)
    const gone = all.value[at]
    if (!gone) return
    const rest = all.value.filter((each) => each.id !== id)
    bench.commit(`Delete ${gone.name}`, { touchups: rest })
    if (selectedId.value === id) selectedId.value = (rest[at] ?? rest[at - 1])?.id ?? ''
  }

  function duplicate(id: string): void {
    const found = all.value.find((each) => each.id === id)
    if (!found) return
    const copy = { ...found, id: crypto.randomUUID(), name: `${found.name} copy`.slice(0, 80) }
    const at = all.value.indexOf(found)
    bench.commit(`Duplicate ${found.name}`, {
      touchups: [...all.value.slice(0, at + 1), copy, ...all.value.slice(at + 1)],
    })
    selectedId.value = copy.id
  }

  /** Over which time of a clip the selected touch-up acts. */
  function span(step: string, time: { from: number; to: number; fade: number }, moving: boolean): void {
    if (moving) live(time)
    else if (selected.value) change(selected.value.id, step, time)
  }

  function reorder(id: string, by: number): void {
    bench.commit('Order of touch-ups', { touchups: reordered(all.value, id, by) })
  }

  function reset(): void {
    bench.commit('All touch-ups removed', { touchups: [] })
    selectedId.value = ''
  }

  function useBrush(part: Partial<Brush>): void {
    brush.value = { ...brush.value, ...part }
  }

  function resize(steps: number): void {
    useBrush({ size: resized(brush.value.size, steps) })
  }

  function readBand(): void {
    if (selected.value) change(selected.value.id, 'Depth of the band', { target: bandDepth() })
  }

  function pickOut(id: string, name: string, part: Partial<PickOut>): void {
    const found = all.value.find((each) => each.id === id)
    if (found?.pickOut) change(id, name, { pickOut: { ...found.pickOut, ...part } })
  }

  /** Begins a pick-out with a box, on a new touch-up when there is none or when the chosen one has strokes already. */
  function pickBox(box: PickBox): void {
    const made = { marks: [], ...box }
    const on = selected.value
    if (on && !hasPaint(on)) {
      change(on.id, `Pick out ${on.name}`, { pickOut: made })
      return
    }
    const fresh = { ...newTouchup((on?.action ?? 'focus') as Action, all.value, bandDepth()), pickOut: made }
    bench.commit(`Pick out ${fresh.name}`, { touchups: [...all.value, fresh] })
    selectedId.value = fresh.id
  }

  /** Marks what belongs to the object, or while erasing what does not. */
  function mark(points: Point[]): void {
    const on = selected.value
    if (!on?.pickOut) return
    const made = strokeOf(
      { ...brush.value, erases: erases.value, size: MARK, softness: 0, buildUp: 1, cling: 0, pressure: 'nothing' },
      points,
      aspect.value,
      bench.shot?.width ?? 1,
    )
    pickOut(on.id, `${erases.value ? 'Drop' : 'Keep'} mark on ${on.name}`, { marks: [...on.pickOut.marks, made] })
  }

  async function loadMask(file: File): Promise<void> {
    const shot = bench.shot
    const on = selected.value
    if (!shot || !on) return
    try {
      const { hash } = await api.bringInMask(shot.id, file)
      change(on.id, `Mask of ${on.name} from ${file.name}`.slice(0, 120), { maskFile: hash, pickOut: null })
    } catch (problem) {
      bench.notice = (problem as Problem).message
    }
  }

  async function saveMask(): Promise<void> {
    const { shot, recipe } = bench
    const on = selected.value
    if (!shot || !recipe || !on) return
    try {
      const url = URL.createObjectURL(await api.maskFile(shot.id, sameMoment(recipe, { touchups: [on] }), on.id))
      const link = document.createElement('a')
      Object.assign(link, { href: url, download: `${shot.name.replace(/\.[^.]*$/, '')} ${on.name}.png` })
      link.click()
      setTimeout(() => URL.revokeObjectURL(url), 10_000)
    } catch (problem) {
      bench.notice = (problem as Problem).message
    }
  }

  function depthAt(point: Point): number {
    const map = bench.nearness
    return map ? Math.round(nearnessAt(map, point.x, point.y) * 1e5) / 1e5 : 0.5
  }

  function pick(point: Point): void {
    picking.value = false
    if (!selected.value) return
    picked.add(selected.value.id)
    change(selected.value.id, 'Pick a depth', { target: depthAt(point) })
  }

  /** Begins a stroke; without a touch-up to paint on it begins one. */
  function begin(point: Point): void {
    before = all.value
    let on = selected.value
    if (!on) {
      on = newTouchup('focus', all.value, bandDepth())
      selectedId.value = on.id
    }
    // A match whose depth was not picked takes that of the first point.
    if (on.action === 'match' && !on.strokes.length && !picked.has(on.id)) on = { ...on, target: depthAt(point) }
    begun = on
    stroke.value = [point]
    liveAt = performance.now()
  }

  /** Begins the stroke where the last one ended. */
  function join(): void {
    if (stroke.value && last.value) stroke.value = [last.value, ...stroke.value]
  }

  function go(points: Point[]): void {
    if (!stroke.value) return
    stroke.value = [...stroke.value, ...points]
    const now = performance.now()
    // Where a preview takes long, paint under the pointer comes first.
    if (now - liveAt < Math.max(LIVE_EVERY, 3 * bench.previewMs)) return
    liveAt = now
    bench.live({ touchups: painted() }, true)
  }

  function painted(): Touchup[] {
    const on = begun
    const points = stroke.value
    if (!on || !points) return before
    const made = strokeOf({ ...brush.value, erases: erases.value }, points, aspect.value, bench.shot?.width ?? 1)
    const grown = { ...on, strokes: [...on.strokes, made] }
    return before.some((each) => each.id === on.id)
      ? before.map((each) => (each.id === on.id ? grown : each))
      : [...before, grown]
  }

  function end(): void {
    if (!stroke.value || !begun) return
    const touchups = painted()
    last.value = stroke.value.at(-1)
    const name = `${erases.value ? 'Erase on' : 'Paint'} ${begun.name}`
    begun = undefined
    bench.commit(name, { touchups })
    // The stroke stays in sight until the mask that holds it is there.
    if (!maskWanted()) stroke.value = undefined
  }

  function cancel(): void {
    if (!stroke.value) return
    stroke.value = begun = undefined
    bench.live({ touchups: before })
    bench.commit('Stroke taken back', { touchups: before })
  }

  /** What is found in the picture is another in each frame. */
  const frameOfMask = computed(() => {
    const found = selected.value?.pickOut || selected.value?.kept.length
    return bench.clip && found && !bench.playing ? bench.frame : 0
  })
  watch(frameOfMask, () => (mask.value = undefined))

  const maskKey = computed(() =>
    selected.value && bench.shot
      ? `${bench.shot.id} ${frameOfMask.value} ${touchupsKey([selected.value])} ${JSON.stringify(bench.recipe?.depth)}`
      : '',
  )

  function maskWanted(): boolean {
    return bench.step === 'touchup' && selected.value !== undefined && hasPaint(selected.value)
  }

  function refresh(): void {
    const id = bench.shot?.id
    const touchup = selected.value
    if (!id || !touchup || !hasPaint(touchup)) {
      mask.value = undefined
      finding.value = false
      return
    }
    if (bench.step !== 'touchup' || begun) return
    maskLoop ??= usePreviewLoop<{ id: string; touchup: Touchup }, EdgeWidths>({
      fetch: async (wish, _quality, signal) => {
        const recipe = bench.recipe
        if (!recipe || bench.shot?.id !== wish.id) return null
        return decodeEdgeWidths(
          await api.mask(wish.id, sameMoment(recipe, { touchups: [wish.touchup] }), wish.touchup.id, signal),
        )
      },
      show: (map) => {
        mask.value = map
        finding.value = false
        if (!begun) stroke.value = undefined
      },
      state: (state, problem) => {
        if (state !== 'failed') return
        finding.value = false
        bench.notice = (problem as Problem).message
        if (!begun) stroke.value = undefined
      },
    })
    finding.value = true
    clearTimeout(maskTimer)
    maskTimer = setTimeout(() => maskLoop?.request({ id, touchup }, false), AFTER_PAINT)
  }
  watch([maskKey, () => bench.step], refresh)

  /** What the mask is made from has become known. */
  function maskAgain(): void {
    mask.value = undefined
    refresh()
  }
  watch(selectedId, () => (mask.value = undefined))
  watch(
    () => bench.shot?.id,
    () => {
      selectedId.value = ''
      stroke.value = last.value = mask.value = begun = undefined
      picking.value = erasing.value = finding.value = false
      if (tool.value === 'keep') tool.value = 'brush'
    },
  )

  return {
    tool,
    finding,
    maskAgain,
    pickOut,
    pickBox,
    mark,
    loadMask,
    saveMask,
    brush,
    selectedId,
    selected,
    picking,
    erasing,
    erases,
    tint,
    stroke,
    last,
    mask,
    all,
    aspect,
    add,
    addMade,
    live,
    change,
    remove,
    duplicate,
    span,
    reorder,
    reset,
    useBrush,
    resize,
    readBand,
    pick,
    begin,
    join,
    go,
    end,
    cancel,
  }
})
