import { ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import { api, type Problem, type Recipe, type Region, type Shot, type Version } from '../api/client'
import { useAsking, type Shown } from './asking'
import { recipeKey as key } from './painting'
import { airy, within, type Patch } from './patches'
import { usePreviewLoop, type PreviewState } from './previewLoop'
import { useSight } from './sight'
import { useUntouched } from './untouched'
import { useVersionPreviews } from './versionPreviews'

/** How the result is compared with the photo, or versions with each other. */
export type Compare = 'none' | 'split' | 'beside' | 'versions'

/** What pictures are made of. */
type Source = {
  shot: ShallowRef<Shot | undefined>
  /** What it is at the moment that is shown. */
  recipe: Readonly<Ref<Recipe | undefined>>
  /** The frame of a clip that is shown. */
  frame: Ref<number>
  /** The whole recipe of another version for the moment that is shown: its marks and follows are the server's to look up. */
  atMoment: (recipe: Recipe) => Recipe
  versions: ShallowRef<Version[]>
  version: ShallowRef<Version | undefined>
  compare: Ref<Compare>
  holding: Ref<boolean>
  isMoving: () => boolean
  isPainting: () => boolean
  tell: (message: string) => void
}

/** How long a zoom rests before it is drawn, in milliseconds: each size on the way would take seconds in a large photo. */
const ZOOM_REST = 120
/** How long nothing moves before the rest of the picture follows, in milliseconds; strokes come one after the other. */
const WHOLE_AFTER = 500
const WHOLE_AFTER_PAINT = 1500

/** The pictures of a shot: the untouched photo, the newest preview, and both at full resolution where one has zoomed in. */
export function usePictures(source: Source) {
  const { shot, recipe, frame, versions, version, compare, holding } = source
  const preview = shallowRef<ImageBitmap>()
  /** What can be seen of the result when zoomed in, at its full resolution. */
  const detail = shallowRef<Patch>()
  const previewState = ref<PreviewState>('idle')
  const previewMs = ref(0)

  const sight = useSight(shot)
  const { ask, keep, forget } = useAsking(shot)
  const isCompared = (): boolean => holding.value || compare.value === 'split' || compare.value === 'beside'
  const untouched = useUntouched({ shot, frame, sight, isCompared, attempt })
  const others = useVersionPreviews({ versions, version, ask, atMoment: source.atMoment, attempt })

  /** Of the picture as a whole: how large it is, and of which recipe. */
  let shownSide = 0
  let shownRecipe = ''
  /** Longer side of the picture of which a part was drawn last. */
  let drawnSide = 0
  let wholeTimer: ReturnType<typeof setTimeout> | undefined
  let zoomTimer: ReturnType<typeof setTimeout> | undefined
  /** Whether a zoom that still rests is shown as being drawn. */
  let announced = false
  let loop: ReturnType<typeof usePreviewLoop<Recipe, Shown>> | undefined

  async function attempt(work: () => Promise<void>): Promise<void> {
    try {
      await work()
    } catch (problem) {
      source.tell((problem as Problem).message)
    }
  }

  /** A new recipe line: what was on its way is no longer wanted. */
  function begin(): void {
    loop?.stop()
    loop = usePreviewLoop<Recipe, Shown>({
      fetch: async (wish, quality, signal) => {
        const region = sight.isZoomed() ? airy(sight.seen.value) : undefined
        const side = sight.sideFor(quality)
        const patch = await ask(wish, side, 'bench', { ...(region && { region }), draft: quality === 'draft', signal })
        if (patch && !region) shownSide = Math.max(patch.bitmap.width, patch.bitmap.height)
        if (patch && region && quality === 'final') drawnSide = side
        return patch
      },
      show: (patch, quality, milliseconds) => {
        keep(patch)
        if (patch.region.width < 1 || patch.region.height < 1) {
          detail.value?.bitmap.close()
          detail.value = patch
          if (quality === 'final') wholeLater()
        } else showWhole(patch)
        previewMs.value = Math.round(milliseconds)
        if (quality === 'draft' && !sight.isZoomed()) sight.draftTook(milliseconds)
      },
      state: (state, problem) => {
        previewState.value = state
        if (problem) source.tell((problem as Problem).message)
        else if (state === 'final') source.tell('')
      },
    })
  }

  /** Before the page has laid the picture out nothing is asked for: it will look then. */
  function request(wish: Recipe, moving: boolean): void {
    if (!sight.isTold()) return
    zoomNoMore()
    loop?.request(wish, moving)
  }

  function showWhole({ bitmap, recipe: of }: Patch): void {
    if (preview.value) forget(preview.value)
    preview.value?.close()
    preview.value = bitmap
    shownRecipe = of
    if (!sight.isZoomed()) dropDetail()
  }

  function dropDetail(): void {
    if (detail.value) forget(detail.value.bitmap)
    detail.value?.bitmap.close()
    detail.value = undefined
    untouched.dropDetail()
  }

  /** The rest of the picture around a region that was drawn is brought up to date once nothing moves. */
  function wholeLater(): void {
    clearTimeout(wholeTimer)
    const wish = recipe.value
    if (!wish || shownRecipe === key(wish)) return
    const wait = source.isPainting() ? WHOLE_AFTER_PAINT : WHOLE_AFTER
    wholeTimer = setTimeout(() => {
      if (recipe.value === wish && !source.isMoving() && previewState.value === 'final')
        void attempt(() => askWhole(wish))
    }, wait)
  }

  async function askWhole(wish: Recipe): Promise<void> {
    const side = sight.fittedSide()
    const patch = await ask(wish, side, 'whole')
    if (!patch || key(recipe.value) !== patch.recipe) return
    shownSide = side
    showWhole(patch)
  }

  /** After the part that can be seen has changed: what lacks resolution there is drawn. */
  function look(side: number, fitting: number, region: Region): void {
    if (!shot.value || !(side > 0)) return
    sight.turn(side, fitting, region)
    const wish = recipe.value
    if (!wish || !loop) return
    zoomNoMore()
    if (sight.isZoomed()) {
      const has = detail.value
      const covered = has?.recipe === key(wish) && within(region, has.region)
      if (!covered || !sight.isFine(has)) lookCloser(wish)
      void untouched.loadDetail()
    } else {
      dropDetail()
      const larger = sight.sideFor('final') > shownSide && sight.wantedSide() > shownSide
      if (larger || shownRecipe !== key(wish)) loop.request(wish, false)
    }
  }

  /** What was drawn at this size before is soon there again; at a new one a draft would take as long as the picture itself. */
  function lookCloser(wish: Recipe): void {
    if (sight.sideFor('final') === drawnSide) {
      request(wish, false)
      return
    }
    if (previewState.value === 'final') {
      previewState.value = 'refining'
      announced = true
    }
    zoomTimer = setTimeout(() => {
      if (recipe.value) request(recipe.value, false)
    }, ZOOM_REST)
  }

  function zoomNoMore(): void {
    clearTimeout(zoomTimer)
    if (announced) previewState.value = 'final'
    announced = false
  }

  watch([holding, compare], () => void untouched.loadDetail())

  /** A small region of result and photo at full resolution; undefined while something else is being drawn. */
  async function loupeAt(region: Region): Promise<{ result: ImageBitmap; photo: ImageBitmap } | undefined> {
    const current = shot.value
    const wish = recipe.value
    if (!current || !wish || previewState.value !== 'final') return undefined
    const patch = await ask(wish, sight.longest(), 'loupe', { region })
    if (!patch) return undefined
    const photo = await api.photoRegion(current, sight.longest(), region, frame.value)
    return { result: patch.bitmap, photo: await createImageBitmap(await photo.blob()) }
  }

  /** Another moment is shown: what was drawn of the one before is not it. */
  function turn(): void {
    clearTimeout(wholeTimer)
    if (preview.value) forget(preview.value)
    preview.value?.close()
    preview.value = undefined
    shownRecipe = ''
    dropDetail()
  }

  function close(): void {
    clearTimeout(wholeTimer)
    zoomNoMore()
    loop?.stop()
    loop = undefined
    forget()
    sight.forget()
    dropDetail()
    untouched.close()
    others.close()
    preview.value?.close()
    preview.value = undefined
    previewState.value = 'idle'
    drawnSide = shownSide = 0
    shownRecipe = ''
  }

  const { original, originalDetail } = untouched
  const shown = {
    original,
    preview,
    detail,
    originalDetail,
    versionPreviews: others.previews,
    previewState,
    previewMs,
    seen: sight.seen,
    look,
    compareVersions: others.compare,
    loupeAt,
  }
  return { shown, original, open: untouched.open, showOriginal: untouched.show, turn, begin, request, close }
}
