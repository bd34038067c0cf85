import { computed, ref, shallowRef, watch, type ComputedRef, type Ref, type ShallowRef } from 'vue'
import { api, type Recipe, type Shot, type Things } from '../api/client'
import type { DepthView } from './depthViews'
import { decodeEdgeWidths, type EdgeWidths, type Sure } from './nearness'
import { subjectsOf } from './subjects'

/** Whose findings they are. */
type Source = {
  shot: ShallowRef<Shot | undefined>
  recipe: Readonly<Ref<Recipe | undefined>>
  /** The frame of a clip that is shown. */
  frame: Ref<number>
  view: Ref<DepthView>
  /** Names all depth maps of the shot. */
  depthHashes: ComputedRef<string>
  /** Does something of which only a failure needs to be told. */
  attempt: (work: () => Promise<unknown>) => Promise<void>
}

/** What is found in a photo, or a frame: things to focus on, how wide its edges are, how sure its depth is. Each is loaded when it is wanted. */
export function useFindings({ shot, recipe, frame, view, depthHashes, attempt }: Source) {
  const things = shallowRef<Things>()
  const thing = ref(0)
  /** What there is to step through: faces before other things. */
  const subjects = computed(() => subjectsOf(things.value))
  const edgeWidths = shallowRef<EdgeWidths>()
  /** How sure the estimate is; undefined where that is not known, or depth is not estimated. */
  const sure = shallowRef<Sure>()

  async function loadThings(): Promise<void> {
    const current = shot.value
    if (!current || things.value) return
    await attempt(async () => (things.value = await api.things(current.id, frame.value)))
  }

  let widthsAsked = false
  async function loadEdgeWidths(): Promise<void> {
    const current = shot.value
    if (!current || edgeWidths.value || widthsAsked) return
    widthsAsked = true
    await attempt(async () => (edgeWidths.value = decodeEdgeWidths(await api.edgeWidths(current.id, frame.value))))
    widthsAsked = false
  }
  watch(view, (now) => now === 'check' && void loadEdgeWidths())

  /** What the certainty that is shown, or is to be, is of. Clips have none. */
  const sureKey = computed(() =>
    shot.value &&
    !shot.value.clip &&
    recipe.value?.depth.source === 'estimated' &&
    shot.value.depths.some((each) => each.source === 'estimated') &&
    ['zones', 'contours', 'grey'].includes(view.value)
      ? `${shot.value.id} ${depthHashes.value}`
      : '',
  )
  watch(sureKey, async (now) => {
    const current = shot.value
    if (!now || !current) {
      sure.value = undefined
      return
    }
    await attempt(async () => {
      const bytes = await api.sure(current.id)
      if (now === sureKey.value) sure.value = bytes && decodeEdgeWidths(bytes)
    })
  })

  /** All of it is of what was shown before. */
  function forget(): void {
    things.value = edgeWidths.value = undefined
  }

  /** Another frame is shown. */
  function turn(): void {
    if (view.value === 'check') void loadEdgeWidths()
  }

  return { shown: { things, thing, subjects, edgeWidths, sure, loadThings, loadEdgeWidths }, forget, turn }
}
