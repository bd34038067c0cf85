import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, Problem, type InstallationState } from '../api/client'

/** How the installation is, for whoever runs it. */
export const useInstallation = defineStore('installation', () => {
  const state = shallowRef<InstallationState>()
  const fault = ref('')

  async function load(): Promise<void> {
    try {
      state.value = await api.state()
      fault.value = ''
    } catch (problem) {
      fault.value = (problem as Problem).message
    }
  }

  return { state, fault, load }
})
