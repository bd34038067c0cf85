import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Problem, type Band, type FocusPlace, type Recipe, type Region, type Shot, type Things, type Version } from '../api/client'
import type { DepthView } from '../bench/depthViews'
import { decodeEdgeWidths, decodeNearness, type EdgeWidths, type Nearness } from '../bench/nearness'
import { usePreviewLoop, type PreviewState, type Quality } from '../bench/previewLoop'
import { useSaving, type PendingEdit, type SavingState } from '../bench/saving'
import { usualSnap } from '../bench/depthWords'
import { useEvents } from './events'

/** How the result is compared with the photo, or versions with each other. */
export type Compare = 'none' | 'split' | 'beside' | 'versions'
/** A part of the picture as it is drawn, and where it lies. */
export type Patch = { bitmap: ImageBitmap; region: Region; recipe?: Recipe }

export type Step = 'depth' | 'focus' | 'lens' | 'deliver'

const LARGEST_PREVIEW = 2560
const DRAFT_SIDE = 640
// Zoomed in at least this much, only what can be seen is drawn, at its full resolution.
const ZOOMED = 1.2
const AIR = 0.06
const WHOLE_AFTER = 500
const PAGE = crypto.randomUUID()
let previewNumber = 0

function usable(state: string): boolean {
  return state === 'ready' || state === 'refining'
}

function pendingStorage(version: string) {
  const key = `unsent:${version}`
  return {
    load: (): PendingEdit[] => {
      try {
        return JSON.parse(localStorage.getItem(key) ?? '[]') as PendingEdit[]
      } catch {
        return []
      }
    },
    save: (edits: PendingEdit[]): void => {
      if (edits.length) localStorage.setItem(key, JSON.stringify(edits))
      else localStorage.removeItem(key)
    },
  }
}

/** One shot on the Bench. Everything shown derives from `recipe`; `live` moves it, `commit` makes a step of it. */
export const useBench = defineStore('bench', () => {
  const shot = shallowRef<Shot>()
  const versions = shallowRef<Version[]>([])
  const version = shallowRef<Version>()
  const recipe = shallowRef<Recipe>()
  const fault = ref('')
  const notice = ref('')

  const step = ref<Step>('focus')
  const view = ref<DepthView>('photo')
  const compare = ref<Compare>('none')
  const split = computed(() => compare.value === 'split')
  const splitAt = ref(0.5)
  const splitLevel = ref(false)
  const loupe = ref(false)
  /** Ids of the versions that are compared. */
  const compared = ref<string[]>([])
  const holding = ref(false)
  const hovered = shallowRef<{ x: number; y: number }>()
  /** A place in the plan under the pointer: share of the width, and nearness. */
  const marked = shallowRef<{ x: number; nearness: number }>()

  const original = shallowRef<ImageBitmap>()
  const preview = shallowRef<ImageBitmap>()
  /** What can be seen when zoomed in, at its full resolution, of the result and of the untouched photo. */
  const detail = shallowRef<Patch>()
  const originalDetail = shallowRef<Patch>()
  const things = shallowRef<Things>()
  const thing = ref(0)
  const edgeWidths = shallowRef<EdgeWidths>()
  /** Previews of the versions that are compared, by id. */
  const versionPreviews = shallowRef(new Map<string, ImageBitmap>())
  const nearness = shallowRef<Nearness>()
  const depthPhoto = shallowRef<ImageData>()
  const previewState = ref<PreviewState>('idle')
  const previewMs = ref(0)
  const savingState = ref<SavingState>('saved')
  const savingMessage = ref('')

  /** Longer side, in pixels, that the whole picture has on screen now. */
  const wantedSide = ref(1100)
  /** The side that the whole picture has when it fits, and the part that can be seen. */
  const fitSide = ref(1100)
  const seen = shallowRef<Region>({ x: 0, y: 0, width: 1, height: 1 })
  let shownSide = 0
  let shownRecipe: Recipe | undefined
  let wholeTimer: ReturnType<typeof setTimeout> | undefined
  let saving: ReturnType<typeof useSaving> | undefined
  let loop: ReturnType<typeof usePreviewLoop<Recipe, Patch>> | undefined
  let depthLoop: ReturnType<typeof usePreviewLoop<Recipe['depth'], Nearness>> | undefined
  let opened = 0

  const canUndo = computed(() => (version.value ? version.value.history.some((each) => each.position < position()) : false))
  const canRedo = computed(() => (version.value ? version.value.history.some((each) => each.position > position()) : false))

  function position(): number {
    return version.value?.position ?? 0
  }

  const events = useEvents()
  events.listen({
    shot: (event) => {
      if (event.id !== shot.value?.id || event.revision < shot.value.revision) return
      const before = shot.value.state
      shot.value = { ...shot.value, ...event }
      if (usable(event.state) && event.state !== before) void depthArrived(event.id)
    },
    reconnected: () => {
      if (shot.value && !recipe.value) void open(shot.value.id)
      else if (shot.value) void depthArrived(shot.value.id)
    },
  })

  async function open(id: string): Promise<void> {
    close()
    const ticket = ++opened
    try {
      const loaded = await api.shot(id)
      if (ticket !== opened) return
      shot.value = events.newest(loaded)
      await loadOriginal(ticket)
      if (loaded.depths.length) await depthArrived(id)
    } catch (problem) {
      if (ticket === opened) fault.value = (problem as Problem).message
    }
  }

  async function loadOriginal(ticket: number): Promise<void> {
    const current = shot.value
    if (!current) return
    const bitmap = await createImageBitmap(await api.photo(current.id, Math.min(LARGEST_PREVIEW, 1600)))
    if (ticket === opened) original.value = bitmap
  }

  async function depthArrived(id: string): Promise<void> {
    const ticket = opened
    const [loaded, all] = await Promise.all([api.shot(id), api.versions(id)])
    if (ticket !== opened) return
    if (loaded.revision >= (shot.value?.revision ?? 0)) shot.value = events.newest(loaded)
    versions.value = all
    const remembered = localStorage.getItem(`version:${id}`)
    const first = version.value ?? all.find((each) => each.id === remembered) ?? all[0]
    if (!recipe.value && first) use(first)
  }

  function use(chosen: Version): void {
    saving?.stop()
    version.value = chosen
    localStorage.setItem(`version:${chosen.shotId}`, chosen.id)
    saving = useSaving({
      send: (edit, lock) => api.change(chosen.id, lock, edit.step, edit.recipe),
      saved: (saved, more) => take(saved, !more),
      state: (state, message) => {
        savingState.value = state
        savingMessage.value = message
      },
      storage: pendingStorage(chosen.id),
    })
    recipe.value = saving.newest() ?? chosen.recipe
    saving.begin(chosen)
    loop?.stop()
    loop = newLoop(chosen.shotId)
    loop.request(recipe.value, false)
    depthLoop?.stop()
    depthLoop = newDepthLoop(chosen.shotId)
    depthLoop.request(recipe.value.depth, false)
  }

  function newLoop(id: string) {
    return usePreviewLoop<Recipe, Patch>({
      fetch: async (wish, quality, signal) => {
        const zoomed = isZoomed()
        const side = previewSide(quality, zoomed)
        const region = zoomed ? airy(seen.value) : undefined
        const answer = await api.preview(
          id, { recipe: wish, longSide: side, ...(region && { region }), page: PAGE, number: ++previewNumber }, signal)
        if (answer.status === 204) return null
        if (!region) {
          shownSide = side
          shownRecipe = wish
        }
        return { bitmap: await createImageBitmap(await answer.blob()), region: drawn(answer), recipe: wish }
      },
      show: (patch, quality, milliseconds) => {
        if (patch.region.width < 1 || patch.region.height < 1) {
          detail.value?.bitmap.close()
          detail.value = patch
          if (quality === 'final') wholeLater(id)
        } else {
          showWhole(patch.bitmap)
        }
        previewMs.value = Math.round(milliseconds)
      },
      state: (state, problem) => {
        previewState.value = state
        if (problem) notice.value = (problem as Problem).message
        else if (state === 'final') notice.value = ''
      },
    })
  }

  function showWhole(bitmap: ImageBitmap): void {
    preview.value?.close()
    preview.value = bitmap
    if (!isZoomed()) dropDetail()
  }

  function dropDetail(): void {
    detail.value?.bitmap.close()
    originalDetail.value?.bitmap.close()
    detail.value = originalDetail.value = undefined
  }

  /** Where a preview lies, as the server tells it. */
  function drawn(answer: Response): Region {
    const [x = 0, y = 0, w = 1, h = 1, width = 1, height = 1] = (answer.headers.get('X-Region') ?? '0 0 1 1 1 1').split(' ').map(Number)
    return { x: x / width, y: y / height, width: w / width, height: h / height }
  }

  function isZoomed(): boolean {
    return wantedSide.value > fitSide.value * ZOOMED && seen.value.width * seen.value.height < 0.95
  }

  function airy({ x, y, width, height }: Region): Region {
    const left = Math.max(0, x - AIR * width)
    const top = Math.max(0, y - AIR * height)
    return {
      x: left, y: top, width: Math.min(1, x + width * (1 + AIR)) - left, height: Math.min(1, y + height * (1 + AIR)) - top,
    }
  }

  function previewSide(quality: Quality, zoomed: boolean): number {
    const size = shot.value
    const full = size ? Math.max(size.width, size.height) : LARGEST_PREVIEW
    const side = Math.max(16, Math.min(full, Math.ceil(wantedSide.value)))
    if (zoomed) return quality === 'draft' ? Math.ceil(side / 2) : side
    return Math.min(side, quality === 'draft' ? DRAFT_SIDE : LARGEST_PREVIEW)
  }

  /** The rest of the picture around a region that was drawn is brought up to date once nothing moves. */
  function wholeLater(id: string): void {
    clearTimeout(wholeTimer)
    const wish = recipe.value
    if (!wish || shownRecipe === wish) return
    wholeTimer = setTimeout(() => {
      if (recipe.value !== wish || moving || previewState.value !== 'final') return
      const side = Math.min(LARGEST_PREVIEW, Math.ceil(fitSide.value))
      void api
        .preview(id, { recipe: wish, longSide: side, page: `${PAGE}:whole`, number: ++previewNumber }, new AbortController().signal)
        .then(async (answer) => {
          if (answer.status === 204) return
          const bitmap = await createImageBitmap(await answer.blob())
          if (recipe.value !== wish) return
          shownRecipe = wish
          shownSide = side
          showWhole(bitmap)
        })
        .catch(() => undefined)
    }, WHOLE_AFTER)
  }

  /** After the part that can be seen has changed: what lacks resolution there is drawn. */
  function look(side: number, fitting: number, region: Region): void {
    wantedSide.value = side
    fitSide.value = fitting
    seen.value = region
    if (!recipe.value || !loop) return
    if (isZoomed()) {
      const has = detail.value
      const covered = has && has.recipe === recipe.value && within(region, has.region)
      const fine = has && has.bitmap.width / has.region.width >= Math.min(side, longest()) * widthShare() * 0.98
      if (!covered || !fine) loop.request(recipe.value, true)
      void loadOriginalDetail()
    } else {
      dropDetail()
      if (previewSide('final', false) > shownSide && side > shownSide) loop.request(recipe.value, false)
      else if (shownRecipe !== recipe.value) loop.request(recipe.value, false)
    }
  }

  const longest = (): number => Math.max(shot.value?.width ?? 1, shot.value?.height ?? 1)
  const widthShare = (): number => (shot.value?.width ?? 1) / longest()

  function within(inner: Region, outer: Region): boolean {
    const slack = 0.002
    return (
      inner.x >= outer.x - slack && inner.y >= outer.y - slack &&
      inner.x + inner.width <= outer.x + outer.width + slack && inner.y + inner.height <= outer.y + outer.height + slack
    )
  }

  let originalAsked = ''

  /** The untouched photo where it is compared, at full resolution. */
  async function loadOriginalDetail(): Promise<void> {
    const current = shot.value
    const comparing = holding.value || compare.value === 'split' || compare.value === 'beside'
    if (!current || !comparing || !isZoomed()) return
    const region = airy(seen.value)
    const has = originalDetail.value
    const side = previewSide('final', true)
    const key = `${side} ${JSON.stringify(region)}`
    if (key === originalAsked || (has && within(seen.value, has.region) && has.bitmap.width >= side * widthShare() * has.region.width * 0.98)) return
    originalAsked = key
    const ticket = opened
    try {
      const answer = await api.photoRegion(current.id, side, region)
      const bitmap = await createImageBitmap(await answer.blob())
      if (ticket !== opened || key !== originalAsked) return
      originalDetail.value?.bitmap.close()
      originalDetail.value = { bitmap, region: drawn(answer) }
    } catch (problem) {
      notice.value = (problem as Problem).message
    }
  }
  watch([holding, compare], () => void loadOriginalDetail())

  function newDepthLoop(id: string) {
    return usePreviewLoop<Recipe['depth'], Nearness>({
      fetch: async (depth, _quality, signal) => decodeNearness(await api.nearness(id, depth, signal)),
      show: (map) => {
        photoAt(map)
        nearness.value = map
      },
      state: (state, problem) => {
        if (state === 'failed') notice.value = (problem as Problem).message
      },
    })
  }

  /** The photo's colours under each sample of the map, for the plan and the depth views. */
  function photoAt(map: Nearness): void {
    const bitmap = original.value
    const fits = depthPhoto.value?.width === map.width && depthPhoto.value.height === map.height
    if (!bitmap || fits) return
    const context = new OffscreenCanvas(map.width, map.height).getContext('2d')
    context?.drawImage(bitmap, 0, 0, map.width, map.height)
    depthPhoto.value = context?.getImageData(0, 0, map.width, map.height)
  }

  const depthKey = computed(() =>
    recipe.value && shot.value
      ? JSON.stringify([recipe.value.depth, shot.value.depths.map((each) => each.hash)])
      : '',
  )
  watch(depthKey, (now) => {
    if (!now || !recipe.value) return
    depthLoop?.request(recipe.value.depth, moving)
    if (!moving) loop?.request(recipe.value, false)
  })

  function take(saved: Version, newest: boolean): void {
    version.value = saved
    versions.value = versions.value.map((each) => (each.id === saved.id ? saved : each))
    if (newest) recipe.value = recipe.value && moving ? recipe.value : saved.recipe
  }

  let moving = false

  /** Shows a recipe while something is being dragged; nothing is stored. */
  function live(part: Partial<Recipe>): void {
    if (!recipe.value) return
    moving = true
    recipe.value = { ...recipe.value, ...part }
    loop?.request(recipe.value, true)
  }

  /** Makes a step of the history. */
  function commit(name: string, part: Partial<Recipe> = {}): void {
    if (!recipe.value) return
    moving = false
    recipe.value = { ...recipe.value, ...part }
    if (JSON.stringify(recipe.value) === JSON.stringify(saving?.newest() ?? version.value?.recipe)) return
    saving?.push({ step: name, recipe: recipe.value })
    loop?.request(recipe.value, false)
  }

  async function focusOn(place: FocusPlace, name: string): Promise<void> {
    const current = shot.value
    if (!current || !recipe.value) return
    try {
      const band: Band = await api.focus(current.id, recipe.value, place)
      commit(name, { band })
    } catch (problem) {
      notice.value = (problem as Problem).message
    }
  }

  /** A step taken just now is sent first, so that undo takes back that one. */
  async function goTo(target: () => number): Promise<void> {
    const sending = saving
    if (!sending || !(await sending.whenSent())) return
    const current = version.value
    const position = target()
    if (!current || sending !== saving || !Number.isFinite(position)) return
    try {
      const moved = await api.goTo(current.id, sending.lock(), position)
      sending.begin(moved)
      moving = false
      take(moved, true)
      loop?.request(moved.recipe, false)
    } catch (problem) {
      const { status, message } = problem as Problem
      if (status === 409) {
        savingState.value = 'conflict'
        savingMessage.value = message
      } else notice.value = message
    }
  }

  const undo = (): Promise<void> => goTo(() => Math.max(...before()))
  const redo = (): Promise<void> => goTo(() => Math.min(...after()))

  function before(): number[] {
    return version.value?.history.map((each) => each.position).filter((each) => each < position()) ?? []
  }

  function after(): number[] {
    return version.value?.history.map((each) => each.position).filter((each) => each > position()) ?? []
  }

  /** After another tab was faster: its state, without what was not sent from here. */
  async function loadAgain(): Promise<void> {
    const current = version.value
    if (!current) return
    saving?.discard()
    use(await api.version(current.id))
    savingState.value = 'saved'
    savingMessage.value = ''
  }

  async function duplicate(name: string): Promise<void> {
    if (!version.value) return
    const copy = await api.duplicate(version.value.id, name)
    versions.value = [...versions.value, copy]
    use(copy)
  }

  async function rename(id: string, name: string): Promise<void> {
    await attempt(async () => replace(await api.renameVersion(id, name)))
  }

  /** Hides a version; the one that was removed can be brought back. */
  async function remove(id: string): Promise<void> {
    await attempt(async () => {
      await api.deleteVersion(id)
      versions.value = versions.value.filter((each) => each.id !== id)
      const next = versions.value[0]
      if (version.value?.id === id && next) use(next)
    })
  }

  async function bringBack(id: string): Promise<void> {
    await attempt(async () => {
      const back = await api.bringVersionBack(id)
      versions.value = [...versions.value, back]
      use(back)
    })
  }

  async function copyParts(parts: string[], shots: string[]): Promise<number> {
    const current = version.value
    if (!current || !(await saving?.whenSent())) return 0
    return (await api.copyParts(current.id, parts, shots)).changed
  }

  function replace(changed: Version): void {
    versions.value = versions.value.map((each) => (each.id === changed.id ? changed : each))
    if (version.value?.id === changed.id) version.value = { ...version.value, name: changed.name }
  }

  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
    } catch (problem) {
      notice.value = (problem as Problem).message
    }
  }

  /** Previews of other versions, at the size they have beside each other. */
  async function compareVersions(ids: string[], side: number): Promise<void> {
    const current = shot.value
    if (!current) return
    const ticket = opened
    for (const id of ids) {
      const wish = versions.value.find((each) => each.id === id)?.recipe
      const own = id === version.value?.id ? recipe.value : wish
      if (!own) continue
      await attempt(async () => {
        const answer = await api.preview(
          current.id, { recipe: own, longSide: Math.min(LARGEST_PREVIEW, Math.max(16, Math.ceil(side))), page: `${PAGE}:versions`, number: ++previewNumber },
          new AbortController().signal)
        if (answer.status === 204 || ticket !== opened) return
        const next = new Map(versionPreviews.value)
        next.get(id)?.close()
        next.set(id, await createImageBitmap(await answer.blob()))
        versionPreviews.value = next
      })
    }
  }

  /** A small region of result and photo at full resolution; undefined while something else is being drawn. */
  async function loupeAt(region: Region): Promise<{ result: ImageBitmap; photo: ImageBitmap } | undefined> {
    const current = shot.value
    const wish = recipe.value
    if (!current || !wish || previewState.value !== 'final') return undefined
    const body = { recipe: wish, longSide: longest(), region, page: `${PAGE}:loupe`, number: ++previewNumber }
    const [drawnResult, photo] = await Promise.all([
      api.preview(current.id, body, new AbortController().signal), api.photoRegion(current.id, longest(), region),
    ])
    if (drawnResult.status === 204) return undefined
    return { result: await createImageBitmap(await drawnResult.blob()), photo: await createImageBitmap(await photo.blob()) }
  }

  async function loadThings(): Promise<void> {
    const current = shot.value
    if (!current || things.value) return
    await attempt(async () => (things.value = await api.things(current.id)))
  }

  /** Focuses on the next thing in the photo, or the one before. */
  async function focusOnThing(number: number): Promise<void> {
    await loadThings()
    const all = things.value?.things ?? []
    if (!all.length) {
      notice.value = 'No clear subject was found in this photo. Click what should be sharp.'
      return
    }
    thing.value = ((number - 1 + all.length) % all.length) + 1
    await focusOn({ kind: 'thing', number: all[thing.value - 1]?.number ?? 1 }, `Subject ${thing.value}`)
  }

  async function loadEdgeWidths(): Promise<void> {
    const current = shot.value
    if (!current || edgeWidths.value) return
    await attempt(async () => (edgeWidths.value = decodeEdgeWidths(await api.edgeWidths(current.id))))
  }
  watch(view, (now) => now === 'check' && void loadEdgeWidths())

  async function bringInDepth(file: File): Promise<void> {
    const current = shot.value
    if (!current || !recipe.value) return
    try {
      shot.value = await api.bringInDepth(current.id, file)
      commit('Depth from file', { depth: { ...recipe.value.depth, source: 'file', snap: usualSnap.file } })
    } catch (problem) {
      notice.value = (problem as Problem).message
    }
  }

  async function changeEstimate(work: (id: string) => Promise<Shot>): Promise<void> {
    const current = shot.value
    if (!current) return
    try {
      const answer = await work(current.id)
      if (shot.value?.id === answer.id) shot.value = events.newest(answer)
    } catch (problem) {
      notice.value = (problem as Problem).message
    }
  }

  const estimateAgain = (engine = 'auto', quality: 'draft' | 'best' = 'best'): Promise<void> =>
    changeEstimate((id) => api.estimateDepth(id, engine, quality))
  const cancelEstimate = (): Promise<void> => changeEstimate(api.cancelEstimate)

  function close(): void {
    opened++
    saving?.stop()
    loop?.stop()
    depthLoop?.stop()
    saving = undefined
    loop = depthLoop = undefined
    original.value?.close()
    preview.value?.close()
    dropDetail()
    versionPreviews.value.forEach((bitmap) => bitmap.close())
    versionPreviews.value = new Map()
    things.value = edgeWidths.value = marked.value = undefined
    thing.value = 0
    clearTimeout(wholeTimer)
    shownSide = 0
    shownRecipe = undefined
    originalAsked = ''
    moving = false
    shot.value = version.value = recipe.value = original.value = preview.value = undefined
    nearness.value = depthPhoto.value = hovered.value = undefined
    versions.value = []
    fault.value = notice.value = savingMessage.value = ''
    savingState.value = 'saved'
    previewState.value = 'idle'
    compare.value = 'none'
    compared.value = []
    holding.value = loupe.value = false
    view.value = 'photo'
  }

  return {
    shot, versions, version, recipe, fault, notice, step, view, split, splitAt, holding, hovered, original, preview,
    nearness, depthPhoto, previewState, previewMs, savingState, savingMessage, wantedSide, canUndo, canRedo,
    compare, compared, loupeAt, splitLevel, loupe, marked, detail, originalDetail, things, thing, edgeWidths, versionPreviews, seen,
    look, rename, remove, bringBack, copyParts, compareVersions, loadThings, focusOnThing, loadEdgeWidths, loadOriginalDetail,
    open, close, use, live, commit, focusOn, undo, redo, goTo, loadAgain, duplicate, bringInDepth, estimateAgain, cancelEstimate,
  }
})
