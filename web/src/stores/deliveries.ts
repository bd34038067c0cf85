import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, Problem, type Delivery } from '../api/client'
import { useEvents } from './events'

export const useDeliveries = defineStore('deliveries', () => {
  const deliveries = ref<Delivery[]>([])
  const loading = ref(true)
  const fault = ref('')

  async function load(): Promise<void> {
    try {
      deliveries.value = await api.deliveries()
      fault.value = ''
    } catch (problem) {
      fault.value = (problem as Problem).message
    } finally {
      loading.value = false
    }
  }

  async function attempt(action: Promise<unknown>): Promise<void> {
    try {
      await action
    } catch (problem) {
      fault.value = (problem as Problem).message
    }
    await load()
  }

  useEvents().listen({ deliveries: () => void load(), reconnected: () => void load() })

  return {
    deliveries,
    loading,
    fault,
    load,
    cancel: (id: string) => attempt(api.cancelDelivery(id)),
    remove: (id: string) => attempt(api.deleteDelivery(id)),
  }
})
