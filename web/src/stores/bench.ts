import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Problem, type Band, type FocusPlace, type Recipe, type Shot, type Version } from '../api/client'
import type { DepthView } from '../bench/depthViews'
import { decodeNearness, type Nearness } from '../bench/nearness'
import { usePreviewLoop, type PreviewState, type Quality } from '../bench/previewLoop'
import { useSaving, type PendingEdit, type SavingState } from '../bench/saving'
import { usualSnap } from '../bench/depthWords'
import { useEvents } from './events'

export type Step = 'depth' | 'focus' | 'lens' | 'deliver'

const LARGEST_PREVIEW = 2560
const DRAFT_SIDE = 640
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
  const split = ref(false)
  const splitAt = ref(0.5)
  const holding = ref(false)
  const hovered = shallowRef<{ x: number; y: number }>()

  const original = shallowRef<ImageBitmap>()
  const preview = shallowRef<ImageBitmap>()
  const nearness = shallowRef<Nearness>()
  const depthPhoto = shallowRef<ImageData>()
  const previewState = ref<PreviewState>('idle')
  const previewMs = ref(0)
  const savingState = ref<SavingState>('saved')
  const savingMessage = ref('')

  /** Longer side, in pixels, that the whole picture has on screen now. */
  const wantedSide = ref(1100)
  let shownSide = 0
  let saving: ReturnType<typeof useSaving> | undefined
  let loop: ReturnType<typeof usePreviewLoop<Recipe, ImageBitmap>> | undefined
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
    return usePreviewLoop<Recipe, ImageBitmap>({
      fetch: async (wish, quality, signal) => {
        const longSide = previewSide(quality)
        const answer = await api.preview(id, { recipe: wish, longSide, page: PAGE, number: ++previewNumber }, signal)
        if (answer.status === 204) return null
        shownSide = longSide
        return createImageBitmap(await answer.blob())
      },
      show: (bitmap, _quality, milliseconds) => {
        preview.value?.close()
        preview.value = bitmap
        previewMs.value = Math.round(milliseconds)
      },
      state: (state, problem) => {
        previewState.value = state
        if (problem) notice.value = (problem as Problem).message
        else if (state === 'final') notice.value = ''
      },
    })
  }

  function previewSide(quality: Quality): number {
    const size = shot.value
    const full = size ? Math.max(size.width, size.height) : LARGEST_PREVIEW
    const side = Math.max(16, Math.min(LARGEST_PREVIEW, full, Math.ceil(wantedSide.value)))
    return quality === 'draft' ? Math.min(side, DRAFT_SIDE) : side
  }

  // Zooming in asks for a larger preview, zooming out never for a smaller one.
  watch(wantedSide, (side) => {
    if (recipe.value && loop && previewSide('final') > shownSide && side > shownSide) loop.request(recipe.value, false)
  })

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
    shownSide = 0
    moving = false
    shot.value = version.value = recipe.value = original.value = preview.value = undefined
    nearness.value = depthPhoto.value = hovered.value = undefined
    versions.value = []
    fault.value = notice.value = savingMessage.value = ''
    savingState.value = 'saved'
    previewState.value = 'idle'
    split.value = holding.value = false
    view.value = 'photo'
  }

  return {
    shot, versions, version, recipe, fault, notice, step, view, split, splitAt, holding, hovered, original, preview,
    nearness, depthPhoto, previewState, previewMs, savingState, savingMessage, wantedSide, canUndo, canRedo,
    open, close, use, live, commit, focusOn, undo, redo, goTo, loadAgain, duplicate, bringInDepth, estimateAgain, cancelEstimate,
  }
})
