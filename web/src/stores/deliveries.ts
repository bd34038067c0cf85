import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, Problem, type Delivery } from '../api/client'
import { usePaged } from '../editing/paged'
import { useEvents } from './events'

export const useDeliveries = defineStore('deliveries', () => {
  const list = usePaged<Delivery>(api.deliveries)
  const loading = ref(true)
  const fault = ref('')

  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
      fault.value = ''
    } catch (problem) {
      fault.value = (problem as Problem).message
    } finally {
      loading.value = false
    }
  }

  const load = (): Promise<void> => attempt(list.load)

  async function change(action: Promise<unknown>): Promise<void> {
    let problem = ''
    await action.catch((reason: Problem) => (problem = reason.message))
    await load()
    if (problem) fault.value = problem
  }

  useEvents().listen({ deliveries: () => void load(), reconnected: () => void load() })

  return {
    deliveries: list.items,
    more: computed(() => list.next.value !== null),
    showMore: () => attempt(list.more),
    loading,
    fault,
    load,
    cancel: (id: string) => change(api.cancelDelivery(id)),
    again: (id: string) => change(api.tryDeliveryAgain(id)),
    remove: (id: string) => change(api.deleteDelivery(id)),
  }
})
