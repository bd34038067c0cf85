import { computed, ref, shallowRef } from 'vue'
import type { DepthView } from './depthViews'
import type { Compare } from './pictures'

export type Step = 'depth' | 'focus' | 'touchup' | 'lens' | 'shapes' | 'atmosphere' | 'deliver'

/** What one does with the shot, and how one looks at it; none of it is stored. */
export function useLooking() {
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

  /** For the next shot. The step stays. */
  function forget(): void {
    marked.value = hovered.value = undefined
    compare.value = 'none'
    compared.value = []
    holding.value = loupe.value = false
    view.value = 'photo'
  }

  return {
    shown: { step, view, compare, compared, split, splitAt, splitLevel, loupe, holding, hovered, marked },
    forget,
  }
}
