import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { api, Problem, type Settings } from '../api/client'

/** What may be chosen for all shots, and what this installation has. */
export const useSettings = defineStore('settings', () => {
  const settings = shallowRef<Settings>()
  const fault = ref('')
  const told = ref(localStorage.getItem('told-no-network') === 'yes')

  const usable = computed(() => settings.value?.engines.filter((each) => !each.problem) ?? [])
  /** The networks are missing and that has not been said yet. */
  const sayNoNetwork = computed(() => settings.value !== undefined && !settings.value.learned && !told.value)

  async function attempt(work: () => Promise<Settings>): Promise<void> {
    try {
      settings.value = await work()
      fault.value = ''
    } catch (problem) {
      fault.value = (problem as Problem).message
    }
  }

  const load = (): Promise<void> => attempt(api.settings)
  const useEngine = (name: string): Promise<void> => attempt(() => api.useDepthEngine(name))

  function understood(): void {
    told.value = true
    localStorage.setItem('told-no-network', 'yes')
  }

  return { settings, usable, sayNoNetwork, fault, load, useEngine, understood }
})
