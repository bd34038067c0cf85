import { ref, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import { api, Problem, type Recipe, type Region, type Shot, type Version } from '../api/client'
import { packed, recipeKey as key } from './painting'
import { usePreviewLoop, type PreviewState, type Quality } from './previewLoop'

/** How the result is compared with the photo, or versions with each other. */
export type Compare = 'none' | 'split' | 'beside' | 'versions'
/** A part of the picture as it is drawn, and where it lies. */
export type Patch = { bitmap: ImageBitmap; region: Region; recipe: string }
/** An answer that is shown, with the wish it answered: the next one to the same wish may be a patch on it. */
type Shown = Patch & { number: number; wish: string; of: Recipe }

/** What pictures are made of. */
type Source = {
  shot: ShallowRef<Shot | undefined>
  recipe: ShallowRef<Recipe | undefined>
  versions: ShallowRef<Version[]>
  version: ShallowRef<Version | undefined>
  compare: Ref<Compare>
  holding: Ref<boolean>
  isMoving: () => boolean
  isPainting: () => boolean
  tell: (message: string) => void
}

const LARGEST_PREVIEW = 2560
const LARGEST_PHOTO = 1600
const LARGEST_DRAFT = 640
const SMALLEST_DRAFT = 320
const DRAFT_STEP = 64
/** A draft that takes longer than this, in milliseconds, is made smaller. */
const DRAFT_TIME = 80
// Zoomed in at least this much, only what can be seen is drawn, at its full resolution.
const ZOOMED = 1.2
const NEARLY_ALL = 0.95
const AIR = 0.06
const FINE = 0.98
/** How long a zoom rests before it is drawn, in milliseconds: each size on the way would take seconds in a large photo. */
const ZOOM_REST = 120
const WHOLE_AFTER = 500
const WHOLE_AFTER_PAINT = 1500
const PAGE = crypto.randomUUID()
let previewNumber = 0

/** Where a picture lies in the whole, as the server tells it. */
export function drawn(answer: Response): Region {
  const [x = 0, y = 0, w = 1, h = 1, width = 1, height = 1] = (answer.headers.get('X-Region') ?? '0 0 1 1 1 1')
    .split(' ')
    .map(Number)
  return { x: x / width, y: y / height, width: w / width, height: h / height }
}

/** A picture with a smaller one laid over it where it belongs. */
function laidOver(base: Patch, patch: Patch): ImageBitmap {
  const { width, height } = base.bitmap
  const canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d')
  const at = (share: number, from: number, whole: number, pixels: number): number =>
    Math.round(((share - from) / whole) * pixels)
  context?.drawImage(base.bitmap, 0, 0)
  context?.drawImage(
    patch.bitmap,
    at(patch.region.x, base.region.x, base.region.width, width),
    at(patch.region.y, base.region.y, base.region.height, height),
  )
  patch.bitmap.close()
  return canvas.transferToImageBitmap()
}

/** A region with a little of what lies around it, for small moves. */
export function airy({ x, y, width, height }: Region): Region {
  const left = Math.max(0, x - AIR * width)
  const top = Math.max(0, y - AIR * height)
  return {
    x: left,
    y: top,
    width: Math.min(1, x + width * (1 + AIR)) - left,
    height: Math.min(1, y + height * (1 + AIR)) - top,
  }
}

/** The size of the next draft, a step smaller or larger than one that took this long: few sizes, so that the server keeps them. */
export function nextDraftSide(side: number, milliseconds: number): number {
  if (milliseconds > DRAFT_TIME) return Math.max(SMALLEST_DRAFT, side - DRAFT_STEP)
  return milliseconds < DRAFT_TIME / 2 ? Math.min(LARGEST_DRAFT, side + DRAFT_STEP) : side
}

export function within(inner: Region, outer: Region): boolean {
  const slack = 0.002
  return (
    inner.x >= outer.x - slack &&
    inner.y >= outer.y - slack &&
    inner.x + inner.width <= outer.x + outer.width + slack &&
    inner.y + inner.height <= outer.y + outer.height + slack
  )
}

/** The pictures of a shot: the untouched photo, the newest preview, and both at full resolution where one has zoomed in. */
export function usePictures(source: Source) {
  const { shot, recipe, versions, version, compare, holding } = source
  const original = shallowRef<ImageBitmap>()
  const preview = shallowRef<ImageBitmap>()
  /** What can be seen when zoomed in, at its full resolution, of the result and of the untouched photo. */
  const detail = shallowRef<Patch>()
  const originalDetail = shallowRef<Patch>()
  /** Previews of the other versions that are compared, by id. */
  const versionPreviews = shallowRef(new Map<string, ImageBitmap>())
  const previewState = ref<PreviewState>('idle')
  const previewMs = ref(0)
  /** The part of the picture that can be seen. */
  const seen = shallowRef<Region>({ x: 0, y: 0, width: 1, height: 1 })

  /** Longer side, in pixels, that the whole picture has on screen now, and when it fits. */
  let wantedSide = 1100
  let fitSide = 1100
  let draftSide = LARGEST_DRAFT
  let shownSide = 0
  let shownRecipe = ''
  let onScreen: Shown | undefined
  let originalAsked = ''
  let opened = 0
  let wholeTimer: ReturnType<typeof setTimeout> | undefined
  let zoomTimer: ReturnType<typeof setTimeout> | undefined
  /** Whether a zoom that still rests is shown as being drawn. */
  let announced = false
  /** Longer side of the picture of which a part was drawn last. */
  let drawnSide = 0
  let loop: ReturnType<typeof usePreviewLoop<Recipe, Shown>> | undefined

  const longest = (): number => Math.max(shot.value?.width ?? 1, shot.value?.height ?? 1)
  const widthShare = (): number => (shot.value?.width ?? 1) / longest()
  const isZoomed = (): boolean => wantedSide > fitSide * ZOOMED && seen.value.width * seen.value.height < NEARLY_ALL

  /** Zoomed in, sizes a step apart: the server keeps what it has made of the photo for the next move. */
  function sideFor(quality: Quality): number {
    const step = Math.floor(2 * Math.log2(longest() / Math.max(1, wantedSide)))
    const wanted = isZoomed() ? longest() / 2 ** (Math.max(0, step) / 2) : wantedSide
    const side = Math.max(16, Math.min(longest(), Math.ceil(wanted)))
    if (isZoomed()) return quality === 'draft' ? Math.ceil(side / 2) : side
    return Math.min(side, quality === 'draft' ? draftSide : LARGEST_PREVIEW)
  }

  /** Asks for a preview; null when the server dropped it for a newer one of the same purpose. */
  async function ask(
    wish: Recipe,
    longSide: number,
    purpose: string,
    region?: Region,
    signal?: AbortSignal,
  ): Promise<Shown | null> {
    const id = shot.value?.id
    if (!id) return null
    const page = purpose ? `${PAGE}:${purpose}` : PAGE
    const number = ++previewNumber
    const like = `${id} ${purpose} ${longSide} ${JSON.stringify(region)}`
    const base = purpose === '' && onScreen?.wish === like ? onScreen : undefined
    let answer: Response
    try {
      answer = await api.preview(
        id,
        {
          ...packed(wish, base?.of),
          longSide,
          ...(region && { region }),
          page,
          number,
          ...(base && { over: base.number }),
        },
        signal,
      )
    } catch (problem) {
      // The server has forgotten what this page shows.
      if (!base || (problem as Problem).status !== 412) throw problem
      if (onScreen === base) onScreen = undefined
      return ask(wish, longSide, purpose, region, signal)
    }
    if (answer.status === 204) return null
    const drawnPatch = {
      bitmap: await createImageBitmap(await answer.blob()),
      region: drawn(answer),
      recipe: key(wish),
    }
    if (!base || !answer.headers.has('X-Over')) return { ...drawnPatch, number, wish: like, of: wish }
    // What it was meant for is gone when one has moved on meanwhile.
    if (onScreen !== base) return ask(wish, longSide, purpose, region, signal)
    return {
      bitmap: laidOver(base, drawnPatch),
      region: base.region,
      recipe: drawnPatch.recipe,
      number,
      wish: like,
      of: wish,
    }
  }

  async function attempt(work: () => Promise<void>): Promise<void> {
    try {
      await work()
    } catch (problem) {
      source.tell((problem as Problem).message)
    }
  }

  async function open(id: string): Promise<void> {
    const ticket = opened
    const bitmap = await createImageBitmap(await api.photo(id, LARGEST_PHOTO))
    if (ticket === opened) original.value = bitmap
  }

  /** A new recipe line: what was on its way is no longer wanted. */
  function begin(): void {
    loop?.stop()
    loop = usePreviewLoop<Recipe, Shown>({
      fetch: async (wish, quality, signal) => {
        const region = isZoomed() ? airy(seen.value) : undefined
        const side = sideFor(quality)
        const patch = await ask(wish, side, '', region, signal)
        if (patch && !region) shownSide = side
        if (patch && region && quality === 'final') drawnSide = side
        return patch
      },
      show: (patch, quality, milliseconds) => {
        onScreen = patch
        if (patch.region.width < 1 || patch.region.height < 1) {
          detail.value?.bitmap.close()
          detail.value = patch
          if (quality === 'final') wholeLater()
        } else showWhole(patch)
        previewMs.value = Math.round(milliseconds)
        if (quality === 'draft') draftSide = nextDraftSide(draftSide, milliseconds)
      },
      state: (state, problem) => {
        previewState.value = state
        if (problem) source.tell((problem as Problem).message)
        else if (state === 'final') source.tell('')
      },
    })
  }

  function request(wish: Recipe, moving: boolean): void {
    zoomNoMore()
    loop?.request(wish, moving)
  }

  function showWhole({ bitmap, recipe: of }: Patch): void {
    if (onScreen?.bitmap === preview.value) onScreen = undefined
    preview.value?.close()
    preview.value = bitmap
    shownRecipe = of
    if (!isZoomed()) dropDetail()
  }

  function dropDetail(): void {
    if (onScreen?.bitmap === detail.value?.bitmap) onScreen = undefined
    detail.value?.bitmap.close()
    originalDetail.value?.bitmap.close()
    detail.value = originalDetail.value = undefined
    originalAsked = ''
  }

  /** The rest of the picture around a region that was drawn is brought up to date once nothing moves. */
  function wholeLater(): void {
    clearTimeout(wholeTimer)
    const wish = recipe.value
    if (!wish || shownRecipe === key(wish)) return
    wholeTimer = setTimeout(
      () => {
        if (recipe.value !== wish || source.isMoving() || previewState.value !== 'final') return
        const side = Math.min(LARGEST_PREVIEW, Math.ceil(fitSide))
        void attempt(async () => {
          const patch = await ask(wish, side, 'whole')
          if (!patch || key(recipe.value) !== patch.recipe) return
          shownSide = side
          showWhole(patch)
        })
      },
      source.isPainting() ? WHOLE_AFTER_PAINT : WHOLE_AFTER,
    )
  }

  /** After the part that can be seen has changed: what lacks resolution there is drawn. */
  function look(side: number, fitting: number, region: Region): void {
    wantedSide = side
    fitSide = fitting
    seen.value = region
    const wish = recipe.value
    if (!wish || !loop) return
    if (isZoomed()) {
      const has = detail.value
      const covered = has?.recipe === key(wish) && within(region, has.region)
      zoomNoMore()
      if (!covered || !isFine(has)) lookCloser(wish)
      void loadOriginalDetail()
    } else {
      zoomNoMore()
      dropDetail()
      if ((sideFor('final') > shownSide && side > shownSide) || shownRecipe !== key(wish)) loop.request(wish, false)
    }
  }

  /** What was drawn at this size before is soon there again; at a new one a draft would take as long as the picture itself. */
  function lookCloser(wish: Recipe): void {
    if (sideFor('final') === drawnSide) {
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

  function isFine(patch: Patch): boolean {
    return patch.bitmap.width >= sideFor('final') * widthShare() * patch.region.width * FINE
  }

  /** The untouched photo where it is compared, at full resolution. */
  async function loadOriginalDetail(): Promise<void> {
    const current = shot.value
    const comparing = holding.value || compare.value === 'split' || compare.value === 'beside'
    if (!current || !comparing || !isZoomed()) return
    const has = originalDetail.value
    if (has && within(seen.value, has.region) && isFine(has)) return
    const side = sideFor('final')
    const region = airy(seen.value)
    const asked = `${side} ${JSON.stringify(region)}`
    if (asked === originalAsked) return
    originalAsked = asked
    const ticket = opened
    await attempt(async () => {
      const answer = await api.photoRegion(current.id, side, region)
      const bitmap = await createImageBitmap(await answer.blob())
      if (ticket !== opened || asked !== originalAsked) return
      originalDetail.value?.bitmap.close()
      originalDetail.value = { bitmap, region: drawn(answer), recipe: '' }
    })
  }
  watch([holding, compare], () => void loadOriginalDetail())

  let comparing = 0

  /** Previews of versions beside the one that is worked on, one after the other; those that are there stay. */
  async function compareVersions(ids: string[], side: number): Promise<void> {
    const ticket = ++comparing
    const longSide = Math.min(LARGEST_PREVIEW, Math.max(16, Math.ceil(side)))
    for (const each of versions.value.filter(({ id }) => ids.includes(id) && id !== version.value?.id)) {
      await attempt(async () => {
        const patch = await ask(each.recipe, longSide, 'versions')
        if (!patch || ticket !== comparing) return
        versionPreviews.value.get(each.id)?.close()
        versionPreviews.value = new Map(versionPreviews.value).set(each.id, patch.bitmap)
      })
      if (ticket !== comparing) return
    }
  }

  /** A small region of result and photo at full resolution; undefined while something else is being drawn. */
  async function loupeAt(region: Region): Promise<{ result: ImageBitmap; photo: ImageBitmap } | undefined> {
    const current = shot.value
    const wish = recipe.value
    if (!current || !wish || previewState.value !== 'final') return undefined
    const patch = await ask(wish, longest(), 'loupe', region)
    if (!patch) return undefined
    const photo = await api.photoRegion(current.id, longest(), region)
    return { result: patch.bitmap, photo: await createImageBitmap(await photo.blob()) }
  }

  function close(): void {
    opened++
    comparing++
    clearTimeout(wholeTimer)
    zoomNoMore()
    drawnSide = 0
    loop?.stop()
    loop = undefined
    onScreen = undefined
    dropDetail()
    original.value?.close()
    preview.value?.close()
    versionPreviews.value.forEach((bitmap) => bitmap.close())
    versionPreviews.value = new Map()
    original.value = preview.value = undefined
    previewState.value = 'idle'
    shownSide = 0
    shownRecipe = ''
  }

  const shown = {
    original,
    preview,
    detail,
    originalDetail,
    versionPreviews,
    previewState,
    previewMs,
    seen,
    look,
    compareVersions,
    loupeAt,
  }
  return { shown, original, open, begin, request, close }
}
