import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, Problem, type Fault } from '../api/client'
import { faultName, nextFault } from '../editing/faults'
import { useBench } from './bench'
import { useTouchups } from './touchups'

/** The edge inspector: probable faults of the depth map, one after the other. */
export const useInspector = defineStore('inspector', () => {
  const bench = useBench()
  const touchups = useTouchups()
  const open = ref(false)
  const looking = ref(false)
  const faults = shallowRef<Fault[]>([])
  const at = ref(-1)
  const current = computed(() => (open.value ? faults.value[at.value] : undefined))
  /** The touch-up that mends a fault, by the fault's place; after an undo it can be made again. */
  const mends = shallowRef(new Map<number, string>())
  const mended = computed(() => touchups.all.some((each) => each.id === mends.value.get(at.value)))
  let asked: AbortController | undefined

  async function start(): Promise<void> {
    const { shot, recipe } = bench
    if (!shot || !recipe) return
    asked?.abort()
    asked = new AbortController()
    const { signal } = asked
    open.value = looking.value = true
    faults.value = []
    mends.value = new Map()
    at.value = -1
    try {
      const found = await api.faults(shot.id, recipe, signal)
      if (signal.aborted) return
      faults.value = found
      next()
    } catch (problem) {
      if (signal.aborted) return
      open.value = false
      bench.notice = (problem as Problem).message
    } finally {
      if (!signal.aborted) looking.value = false
    }
  }

  function stop(): void {
    asked?.abort()
    open.value = looking.value = false
    faults.value = []
    mends.value = new Map()
    at.value = -1
  }

  function next(): void {
    at.value = nextFault(faults.value, at.value)
  }

  function previous(): void {
    if (faults.value.length) at.value = (at.value - 1 + faults.value.length) % faults.value.length
  }

  async function judge(verdict: 'accepted' | 'skipped'): Promise<void> {
    const fault = current.value
    const id = bench.shot?.id
    if (!fault || !id) return
    faults.value = faults.value.map((each) => (each === fault ? { ...each, verdict } : each))
    next()
    try {
      await api.inspected(id, fault, verdict)
    } catch (problem) {
      bench.notice = (problem as Problem).message
    }
  }

  function accept(): void {
    const fault = current.value
    if (!fault || mended.value) return
    mends.value = new Map(mends.value).set(at.value, touchups.addMade(fault.proposal, faultName(fault.kind)))
    void judge('accepted')
  }

  function skip(): void {
    void judge('skipped')
  }

  watch([() => bench.shot?.id, () => bench.step], stop)

  return { open, looking, faults, at, current, mended, start, stop, next, previous, accept, skip }
})
