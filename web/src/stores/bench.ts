import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Problem, type Band, type FocusPlace, type Recipe, type Shot, type Version } from '../api/client'
import { useDepthMap } from '../editing/depthMap'
import { useDepthSources } from '../editing/depthSources'
import { useClipTime } from '../editing/clipTime'
import type { TrackFrame } from '../editing/follow'
import { ofFrame, recipeAt, writtenAt } from '../editing/moments'
import { recipeKey, reused } from '../editing/painting'
import { useFindings } from '../editing/findings'
import { useHistory } from '../editing/history'
import { useLooking } from '../editing/looking'
import { usePictures } from '../editing/pictures'
import { useSaving, type SavingState } from '../editing/saving'
import type { Subject } from '../editing/subjects'
import { usualRecipe } from '../api/generated/settings'
import { pendingStorage } from '../editing/unsent'
import { useVersions } from '../editing/versions'
import { useEvents } from './events'

/** How long an edit waits for the picture while one paints, in milliseconds. */
const BEFORE_SAVING = 200

function usable(state: string): boolean {
  return state === 'ready' || state === 'refining'
}

/** One shot on the Bench. Everything shown derives from `recipe`; `live` moves it, `commit` makes a step of it. */
export const useBench = defineStore('bench', () => {
  const shot = shallowRef<Shot>()
  const versions = shallowRef<Version[]>([])
  const version = shallowRef<Version>()
  /** The recipe as it is stored, with its marks. */
  const stored = shallowRef<Recipe>()
  /** The time of the shot when it is a clip. */
  const time = useClipTime((bitmap) => {
    pictures.showOriginal(bitmap)
    depth.colour()
  })
  const { clip, frame, micros, playing, depthPacks, packFrames, tracks, wakes } = time
  /** What the recipe is at the moment that is shown. */
  const recipe = computed(() => stored.value && now(stored.value))
  const now = (whole: Recipe): Recipe =>
    clip.value ? ofFrame(recipeAt(whole, micros.value, wakes.value), frame.value) : whole
  const fault = ref('')
  const notice = ref('')

  const looking = useLooking()
  const { step, view, compare, holding } = looking.shown

  const savingState = ref<SavingState>('saved')
  const savingMessage = ref('')

  let saving: ReturnType<typeof useSaving> | undefined
  let opened = 0

  let moving = false
  const isPainting = (): boolean => step.value === 'touchup'
  const tell = (message: string): void => {
    notice.value = message
  }
  const pictures = usePictures({
    shot,
    recipe,
    frame,
    atMoment: (whole) => (clip.value ? ofFrame({ ...whole }, frame.value) : whole),
    versions,
    version,
    compare,
    holding,
    isMoving: () => moving,
    isPainting,
    tell,
  })
  const depth = useDepthMap({
    shot,
    recipe,
    original: pictures.original,
    previewState: pictures.shown.previewState,
    isMoving: () => moving,
    isPainting,
    tell,
  })

  const events = useEvents()
  events.listen({
    shot: (event) => {
      if (event.id !== shot.value?.id || event.revision < shot.value.revision) return
      const before = shot.value.state
      shot.value = { ...shot.value, ...event }
      if (usable(event.state) && event.state !== before) void depthArrived(event.id)
      else if (shot.value.clip) void moreOfClip(event.id)
    },
    reconnected: () => {
      if (shot.value && !recipe.value) void open(shot.value.id)
      else if (shot.value) void depthArrived(shot.value.id)
      if (recipe.value && pictures.shown.previewState.value === 'failed') pictures.request(recipe.value, false)
    },
  })

  async function open(id: string): Promise<void> {
    close()
    const ticket = ++opened
    try {
      const [loaded, all] = await Promise.all([api.shot(id), api.versions(id)])
      if (ticket !== opened) return
      shot.value = events.newest(loaded)
      if (loaded.clip) await openClip(loaded)
      if (ticket !== opened) return
      // The result is asked for beside the photo, not after it.
      const photo = loaded.clip ? undefined : openPhoto(loaded)
      if (loaded.depths.length) beginWith(all)
      await photo
    } catch (problem) {
      if (ticket === opened) fault.value = (problem as Problem).message
    }
  }

  async function openPhoto(photo: Shot): Promise<void> {
    await pictures.open(photo)
    if (shot.value?.id === photo.id) depth.colour()
  }

  async function depthArrived(id: string): Promise<void> {
    const ticket = opened
    const [loaded, all] = await Promise.all([api.shot(id), api.versions(id)])
    if (ticket !== opened) return
    if (loaded.revision >= (shot.value?.revision ?? 0)) shot.value = events.newest(loaded)
    beginWith(all)
  }

  /** The versions of the shot are known, and it has depth. */
  function beginWith(all: Version[]): void {
    const id = shot.value?.id
    if (!id) return
    versions.value = all
    const remembered = localStorage.getItem(`version:${id}`)
    const current = all.find((each) => each.id === version.value?.id)
    const first = current ?? all.find((each) => each.id === remembered) ?? all[0]
    // A clip's subject is found again when the scale of all its frames is known; whoever has changed something keeps that.
    const foundAgain = current && version.value && current.lock > version.value.lock
    const untouched = savingState.value === 'saved' && !moving
    if (first && (!recipe.value || (foundAgain && untouched))) use(first)
    if (clip.value) void loadDepthPacks(id)
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
    // What an earlier page left unsent is sent all the same; it is shown once the server has brought it to today's format.
    const unsent = saving.newest()
    stored.value = unsent?.version === usualRecipe.version ? unsent : chosen.recipe
    saving.begin(chosen)
    pictures.begin()
    askPicture(false)
    depth.begin(chosen.shotId)
  }

  const findings = useFindings({ shot, recipe, frame, view, depthHashes: depth.hashes, attempt })
  const { thing, subjects, loadThings } = findings.shown
  watch(depth.hashes, (_, before) => before && recipe.value && !moving && pictures.request(recipe.value, false))

  // What could not be drawn while there was no connection is drawn once there is one again.
  let missed = false
  watch(savingState, (now) => {
    if (now === 'offline') missed = true
    if (now !== 'saved' || !missed) return
    missed = false
    if (recipe.value) pictures.request(recipe.value, false)
  })

  function take(saved: Version, newest: boolean): void {
    version.value = saved
    versions.value = versions.value.map((each) => (each.id === saved.id ? saved : each))
    if (newest && !(stored.value && moving)) stored.value = reused(saved.recipe, stored.value)
  }

  /** A recipe with something changed: in a clip at a moment, by default the one that is shown. */
  function written(whole: Recipe, part: Partial<Recipe>, at = micros.value): Recipe {
    return clip.value ? writtenAt(whole, at, part) : { ...whole, ...part }
  }

  function askPicture(draft: boolean): void {
    if (recipe.value && !playing.value) pictures.request(recipe.value, draft)
  }

  async function openClip(loaded: Shot): Promise<void> {
    if (!loaded.clip?.frames) return
    const ticket = opened
    const found = await api.clip(loaded.id)
    if (ticket !== opened) return
    time.begin(loaded.id, found)
    void loadDepthPacks(loaded.id)
  }

  const loadDepthPacks = (id: string): Promise<void> =>
    attempt(() => time.loadDepthPacks(id, () => shot.value?.id === id))

  let isLooking = false
  /** More of a clip may be there: it has been read, or more of its frames have depth. */
  async function moreOfClip(id: string): Promise<void> {
    if (isLooking) return
    isLooking = true
    await attempt(async () => {
      if (!clip.value || !recipe.value) {
        const loaded = await api.shot(id)
        if (shot.value?.id !== id) return
        shot.value = events.newest(loaded)
        if (!clip.value) await openClip(loaded)
        if (loaded.depths.length) await depthArrived(id)
      } else {
        await loadDepthPacks(id)
      }
    })
    setTimeout(() => (isLooking = false), 1500)
  }

  /** Where a followed point is has become known. */
  function showTrack(id: string, frames: readonly TrackFrame[]): void {
    tracks.value = { ...tracks.value, [id]: frames }
    askPicture(false)
  }

  /** What the picture is made from has become known. */
  const drawAgain = (): void => askPicture(false)

  /** Shows another frame. */
  function turnTo(number: number): void {
    if (!time.turn(number)) return
    findings.forget()
    if (!playing.value) showFrame()
  }

  /** All that is shown of the moment is drawn. */
  function showFrame(): void {
    pictures.turn()
    time.show()
    askPicture(true)
    depth.ask(true)
    findings.turn()
  }
  watch(playing, (runs) => {
    if (!runs && clip.value) showFrame()
  })

  /** Shows a recipe while something is being dragged; nothing is stored. What is `painted` is drawn at once as it will stay. */
  function live(part: Partial<Recipe>, painted = false): void {
    if (!stored.value) return
    moving = true
    stored.value = written(stored.value, part)
    askPicture(!painted)
  }

  /** Makes a step of the history; in a clip at a moment, by default the one that is shown. */
  function commit(name: string, part: Partial<Recipe> = {}, at = micros.value): void {
    if (!stored.value) return
    moving = false
    stored.value = written(stored.value, part, at)
    if (recipeKey(stored.value) === recipeKey(saving?.newest() ?? version.value?.recipe)) return
    askPicture(false)
    saving?.push({ step: name, recipe: stored.value }, step.value === 'touchup' ? BEFORE_SAVING : 0)
  }

  /** A step of the history that is given as a whole, as changes of marks are. */
  function rewrite(name: string, whole: Recipe): void {
    if (!stored.value) return
    moving = false
    stored.value = whole
    if (recipeKey(whole) === recipeKey(saving?.newest() ?? version.value?.recipe)) return
    askPicture(false)
    saving?.push({ step: name, recipe: whole })
  }

  /** Ends a drag that was called off: what is stored is shown again. */
  function release(): void {
    if (!stored.value || !moving) return
    moving = false
    stored.value = saving?.newest() ?? version.value?.recipe ?? stored.value
    askPicture(false)
  }

  /** The answer holds for what was shown when it was asked for, however late it comes. */
  async function focusOn(place: FocusPlace, name: string): Promise<void> {
    const current = shot.value
    const asked = recipe.value
    if (!current || !asked) return
    const on = version.value?.id
    const at = micros.value
    await attempt(async () => {
      const band: Band = await api.focus(current.id, asked, place)
      if (version.value?.id === on) commit(name, { band }, at)
    })
  }

  const history = useHistory({
    version,
    saving: () => saving,
    moved: (there) => {
      moving = false
      take(there, true)
      askPicture(false)
    },
    outdated: (message) => {
      savingState.value = 'conflict'
      savingMessage.value = message
    },
    tell,
  })

  /** After another tab was faster: its state, without what was not sent from here. */
  async function loadAgain(): Promise<void> {
    const current = version.value
    if (!current) return
    saving?.discard()
    use(await api.version(current.id))
    savingState.value = 'saved'
    savingMessage.value = ''
  }

  /** Does something of which only a failure needs to be told. */
  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
    } catch (problem) {
      notice.value = (problem as Problem).message
    }
  }

  const versionList = useVersions({
    versions,
    version,
    use,
    attempt,
    whenSent: async () => (await saving?.whenSent()) ?? false,
  })

  /** Focuses on the next thing in the photo, or the one before. */
  async function focusOnThing(number: number): Promise<void> {
    await loadThings()
    const all = subjects.value
    if (!all.length) {
      notice.value = 'No clear subject was found in this photo. Click what should be sharp.'
      return
    }
    thing.value = ((number - 1 + all.length) % all.length) + 1
    const { kind, number: own } = all[thing.value - 1] as Subject
    await focusOn({ kind, number: own }, `${kind === 'face' ? 'Face' : 'Subject'} ${thing.value}`)
  }

  const depthSources = useDepthSources({ shot, recipe, newest: events.newest, commit, attempt })

  function close(): void {
    opened++
    saving?.stop()
    pictures.close()
    depth.close()
    saving = undefined
    findings.forget()
    thing.value = 0
    moving = false
    time.close()
    shot.value = version.value = stored.value = undefined
    versions.value = []
    fault.value = notice.value = savingMessage.value = ''
    savingState.value = 'saved'
    looking.forget()
  }

  return {
    shot,
    versions,
    version,
    recipe,
    stored,
    clip,
    frame,
    micros,
    playing,
    depthPacks,
    packFrames,
    tracks,
    wakes,
    showTrack,
    drawAgain,
    turnTo,
    fault,
    notice,
    ...looking.shown,
    ...depth.shown,
    ...findings.shown,
    savingState,
    savingMessage,
    ...history,
    ...pictures.shown,
    open,
    close,
    use,
    live,
    commit,
    rewrite,
    release,
    focusOn,
    loadAgain,
    ...versionList,
    focusOnThing,
    ...depthSources,
  }
})
