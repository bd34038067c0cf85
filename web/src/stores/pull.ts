import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type FocusPlace, type Problem } from '../api/client'
import { withPull, type BandThen } from '../editing/moments'
import { useBench } from './bench'

const MICROS = 1e6

/** A pull of focus by two clicks at two moments, which is one step of the history. */
export const usePull = defineStore('pull', () => {
  const bench = useBench()
  const active = ref(false)
  const first = shallowRef<BandThen>()

  watch(
    () => [bench.step, bench.shot?.id],
    () => stop(),
  )

  function stop(): void {
    active.value = false
    first.value = undefined
  }

  const toggle = (): void => {
    const before = active.value
    stop()
    active.value = !before
  }

  /** What is to be clicked next, in words. */
  const words = computed(() => {
    if (!active.value) return 'Pull focus'
    return first.value ? 'Click where it ends' : 'Click where it begins'
  })

  /** One of the two clicks. */
  async function click(place: FocusPlace): Promise<void> {
    const { shot, recipe } = bench
    if (!shot || !recipe) return
    const at = bench.micros / MICROS
    if (first.value?.at === at) {
      bench.notice = 'Go to another moment first: a pull goes from one to the other.'
      return
    }
    try {
      const here = { at, band: await api.focus(shot.id, recipe, place) }
      if (!active.value || bench.shot?.id !== shot.id || !bench.stored) return
      if (!first.value) {
        first.value = here
        return
      }
      bench.rewrite('Pull focus', { ...bench.stored, marks: withPull(bench.stored.marks, first.value, here) })
      stop()
    } catch (problem) {
      bench.notice = (problem as Problem).message
    }
  }

  return { active, first, words, toggle, stop, click }
})
