import { ref, watch, type ComputedRef } from 'vue'
import type { Problem, Recipe } from '../api/client'
import { useBench } from './bench'

/** How often something that is being made is asked after, in milliseconds. */
const ASK_AGAIN = 600

/** How far something is, or why it cannot be made. */
export type Making = { done: number; waits: boolean; fault: string }

type Answer = { done: number; waits?: boolean; fault?: string | null }

/**
 * Asks after things of the open clip that the server makes until each is there, and anew when what one depends on has changed.
 *
 * @param all what is to be there
 * @param keyOf what one of them depends on
 */
export function useAskAgain<T extends { id: string }, A extends Answer>(parts: {
  all: ComputedRef<T[]>
  keyOf: (each: T) => string
  ask: (each: T, shot: string, stored: Recipe) => Promise<A>
  made: (id: string, found: A) => void
}) {
  const { all, keyOf } = parts
  const bench = useBench()
  /** Of those that are not there yet. */
  const making = ref<Record<string, Making>>({})
  const timers = new Map<string, ReturnType<typeof setTimeout>>()
  const asked = new Map<string, string>()

  watch(
    () => all.value.map(keyOf).join(),
    () => {
      const known = new Set(all.value.map((each) => each.id))
      for (const id of [...asked.keys()].filter((each) => !known.has(each))) forget(id)
      if (bench.clip) for (const each of all.value) if (asked.get(each.id) !== keyOf(each)) void ask(each.id)
    },
    { immediate: true },
  )

  function forget(id: string): void {
    clearTimeout(timers.get(id))
    timers.delete(id)
    asked.delete(id)
    there(id)
  }

  function there(id: string): void {
    const { [id]: gone, ...rest } = making.value
    if (gone) making.value = rest
  }

  async function ask(id: string): Promise<void> {
    const each = all.value.find((one) => one.id === id)
    const { shot, stored } = bench
    if (!each || !shot || !stored) return
    const key = keyOf(each)
    asked.set(id, key)
    clearTimeout(timers.get(id))
    try {
      const found = await parts.ask(each, shot.id, stored)
      if (asked.get(id) !== key) return
      if (found.done >= 1) {
        there(id)
        parts.made(id, found)
        return
      }
      making.value = {
        ...making.value,
        [id]: { done: found.done, waits: found.waits ?? false, fault: found.fault ?? '' },
      }
      if (!found.fault)
        timers.set(
          id,
          setTimeout(() => void ask(id), ASK_AGAIN),
        )
    } catch (problem) {
      making.value = { ...making.value, [id]: { done: 0, waits: false, fault: (problem as Problem).message } }
    }
  }

  return making
}
