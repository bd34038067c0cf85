import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import { api, type Allowance, type OpenSession, type Problem } from '../api/client'

/** One's own account: its password and where it is signed in. */
export const useAccount = defineStore('account', () => {
  const sessions = shallowRef<OpenSession[]>([])
  const allowance = shallowRef<Allowance>()
  const fault = ref('')
  const done = ref('')

  /** @param said when it worked */
  async function attempt(work: () => Promise<unknown>, said = ''): Promise<boolean> {
    fault.value = ''
    done.value = ''
    try {
      await work()
      sessions.value = await api.sessions()
      await loadAllowance()
      done.value = said
      return true
    } catch (problem) {
      fault.value = (problem as Problem).message
      return false
    }
  }

  async function loadAllowance(): Promise<void> {
    allowance.value = await api.allowance()
  }

  const load = (): Promise<boolean> => attempt(async () => {})
  const changePassword = (before: string, password: string): Promise<boolean> =>
    attempt(() => api.changePassword(before, password), 'The password is changed; all other sessions have ended.')
  const end = (id: string): Promise<boolean> => attempt(() => api.endSession(id))
  const endOthers = (): Promise<boolean> => attempt(api.endOtherSessions, 'All other sessions have ended.')

  return { sessions, allowance, fault, done, load, loadAllowance, changePassword, end, endOthers }
})
