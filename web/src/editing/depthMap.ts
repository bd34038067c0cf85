import { computed, shallowRef, watch, type Ref, type ShallowRef } from 'vue'
import { api, type Problem, type Recipe, type Shot } from '../api/client'
import { decodeNearness, type Nearness } from './nearness'
import { depthKeyOf } from './painting'
import { usePreviewLoop, type PreviewState } from './previewLoop'

/** How long depth and masks wait after a stroke, in milliseconds: between strokes that follow each other they would be in the way. */
export const AFTER_PAINT = 700

/** Whose depth it is. */
type Source = {
  shot: ShallowRef<Shot | undefined>
  recipe: Readonly<Ref<Recipe | undefined>>
  /** The untouched photo. */
  original: ShallowRef<ImageBitmap | undefined>
  /** Of the picture, which comes first. */
  previewState: Ref<PreviewState>
  isMoving: () => boolean
  isPainting: () => boolean
  tell: (message: string) => void
}

/** Depth as it is after the touch-ups, kept up to date with the recipe, and the photo's colours under it. */
export function useDepthMap({ shot, recipe, original, previewState, isMoving, isPainting, tell }: Source) {
  const nearness = shallowRef<Nearness>()
  const depthPhoto = shallowRef<ImageData>()
  /** Names all depth maps of the shot. */
  const hashes = computed(() => shot.value?.depths.map((each) => each.hash).join() ?? '')
  const key = computed(() => (recipe.value && shot.value ? depthKeyOf(recipe.value) + hashes.value : ''))
  let loop: ReturnType<typeof usePreviewLoop<Recipe, Nearness>> | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  /** The bitmap that the colours are from. */
  let colouredBy: ImageBitmap | undefined
  /** On opening, the picture comes first. */
  let later = false

  function ask(moving: boolean): void {
    later = false
    if (recipe.value) loop?.request(recipe.value, moving)
  }

  /** A version of the shot is taken up. */
  function begin(id: string): void {
    loop?.stop()
    loop = usePreviewLoop<Recipe, Nearness>({
      fetch: async (wish, _quality, signal) => decodeNearness(await api.nearness(id, wish, signal)),
      show: (map) => {
        colour(map)
        nearness.value = map
      },
      state: (state, problem) => {
        if (state === 'failed') tell((problem as Problem).message)
      },
    })
    if (nearness.value) ask(false)
    else later = true
  }
  watch(previewState, (state) => later && (state === 'final' || state === 'failed') && ask(false))

  /** The photo's colours under each sample of the map, for the plan and the depth views. */
  function colour(map = nearness.value): void {
    const bitmap = original.value
    if (!map || !bitmap) return
    const fits = depthPhoto.value?.width === map.width && depthPhoto.value.height === map.height
    if (fits && colouredBy === bitmap) return
    colouredBy = bitmap
    const context = new OffscreenCanvas(map.width, map.height).getContext('2d')
    context?.drawImage(bitmap, 0, 0, map.width, map.height)
    depthPhoto.value = context?.getImageData(0, 0, map.width, map.height)
  }

  watch(key, (now, before) => {
    // What is asked for when a version is taken up is not asked for twice.
    if (!now || !before || !recipe.value) return
    clearTimeout(timer)
    if (!isPainting()) ask(isMoving())
    // While one paints the result comes first.
    else if (!isMoving()) timer = setTimeout(() => ask(false), AFTER_PAINT)
  })

  function close(): void {
    loop?.stop()
    loop = undefined
    nearness.value = depthPhoto.value = undefined
    colouredBy = undefined
  }

  return { shown: { nearness, depthPhoto }, hashes, ask, begin, colour, close }
}
