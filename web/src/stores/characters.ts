import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import { api, type Character } from '../api/client'

/** Named discs to start from; they never change, so they are asked for once. */
export const useCharacters = defineStore('characters', () => {
  const all = shallowRef<Character[]>([])
  let asked = false

  async function load(): Promise<void> {
    if (asked) return
    asked = true
    try {
      all.value = await api.characters()
    } catch {
      asked = false
    }
  }

  return { all, load }
})
