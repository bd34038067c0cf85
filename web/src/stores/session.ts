import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api } from '../api/client'

/** Who is signed in. */
export const useSession = defineStore('session', () => {
  const name = ref<string | null>(null)
  const openAccounts = ref(false)
  const demo = ref(false)
  /** Whether the State page is there. */
  const administrator = ref(false)
  let loaded = false

  async function load(again = false): Promise<void> {
    if (loaded && !again) return
    const session = await api.session()
    name.value = session.name
    openAccounts.value = session.openAccounts
    demo.value = session.demo
    administrator.value = session.administrator
    loaded = true
  }

  async function signIn(who: string, password: string): Promise<void> {
    await load(true)
    await api.signIn(who, password)
    await load(true)
  }

  async function signOut(): Promise<void> {
    await api.signOut()
    await load(true)
  }

  return { name, openAccounts, demo, administrator, load, signIn, signOut }
})
