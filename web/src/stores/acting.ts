import { defineStore } from 'pinia'
import { computed } from 'vue'
import { within } from '../editing/moments'
import { useBench } from './bench'
import { useFollows } from './follows'
import { useShapes } from './shapes'
import { useTouchups } from './touchups'

type Part = { from?: number; to?: number; fade?: number }

/** When what is chosen acts in a clip: a touch-up, a blur shape or a follow, by the step that is open. */
export const useActing = defineStore('acting', () => {
  const bench = useBench()
  const touchups = useTouchups()
  const shapes = useShapes()
  const follows = useFollows()

  const chosen = computed(() => {
    if (!bench.clip) return undefined
    if (bench.step === 'touchup') return touchups.selected
    if (bench.step === 'shapes') return shapes.chosen
    return bench.step === 'focus' ? follows.chosen : undefined
  })

  /** Another time for it: while it is dragged, or as a step. */
  function span(part: Part, live = false): void {
    const on = chosen.value
    if (!on) return
    const time = within(on, part)
    const step = `Time of ${on.name}`
    if (bench.step === 'touchup') touchups.span(step, time, live)
    else if (bench.step === 'shapes') shapes.change(step, time, live)
    else follows.change(on.id, step, time, live)
  }

  return { chosen, span }
})
