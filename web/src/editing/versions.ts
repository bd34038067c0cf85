import type { ShallowRef } from 'vue'
import { api, type Version } from '../api/client'

/** The versions of a shot, the one that is worked on, and how to turn to another. */
type Source = {
  versions: ShallowRef<Version[]>
  version: ShallowRef<Version | undefined>
  use: (version: Version) => void
  attempt: (work: () => Promise<unknown>) => Promise<void>
  /** Settles when nothing is left to send, with false when something could not be sent. */
  whenSent: () => Promise<boolean>
}

/** What can be done with versions as a whole. */
export function useVersions({ versions, version, use, attempt, whenSent }: Source) {
  async function duplicate(name: string): Promise<void> {
    if (!version.value) return
    const copy = await api.duplicate(version.value.id, name)
    versions.value = [...versions.value, copy]
    use(copy)
  }

  async function rename(id: string, name: string): Promise<void> {
    await attempt(async () => {
      const changed = await api.renameVersion(id, name)
      versions.value = versions.value.map((each) => (each.id === id ? changed : each))
      if (version.value?.id === id) version.value = { ...version.value, name: changed.name }
    })
  }

  /** Hides a version; the one that was removed can be brought back. */
  async function remove(id: string): Promise<void> {
    await attempt(async () => {
      await api.deleteVersion(id)
      versions.value = versions.value.filter((each) => each.id !== id)
      const next = versions.value[0]
      if (version.value?.id === id && next) use(next)
    })
  }

  async function bringBack(id: string): Promise<void> {
    await attempt(async () => {
      const back = await api.bringVersionBack(id)
      versions.value = [...versions.value, back]
      use(back)
    })
  }

  /** Gives other shots parts of the recipe; returns how many were changed. */
  async function copyParts(parts: string[], shots: string[]): Promise<number> {
    const current = version.value
    if (!current || !(await whenSent())) return 0
    return (await api.copyParts(current.id, parts, shots)).changed
  }

  /** Makes a version of a recipe from another machine; returns why it may not fit, or null. */
  async function takeRecipeFile(file: File): Promise<string | null> {
    if (!version.value) return null
    const taken = await api.takeRecipeFile(version.value.shotId, file)
    versions.value = [...versions.value, taken.version]
    use(taken.version)
    return taken.warning
  }

  return { duplicate, rename, remove, bringBack, copyParts, takeRecipeFile }
}
