import type { Ref, ShallowRef } from 'vue'
import { api, type Recipe, type Shot } from '../api/client'
import { settings as declared } from '../api/generated/settings'

type Source = {
  shot: ShallowRef<Shot | undefined>
  recipe: Readonly<Ref<Recipe | undefined>>
  /** The newest of what is known of a shot. */
  newest: (shot: Shot) => Shot
  commit: (name: string, part: Partial<Recipe>) => void
  attempt: (work: () => Promise<unknown>) => Promise<void>
}

/** Where the depth of a shot comes from. */
export function useDepthSources({ shot, recipe, newest, commit, attempt }: Source) {
  async function bringInDepth(file: File): Promise<void> {
    const current = shot.value
    if (!current || !recipe.value) return
    if (current.clip) {
      // It is read in the background; then it can be chosen.
      await changeEstimate((id) => api.bringInDepthClip(id, file))
      return
    }
    await attempt(async () => {
      const answer = await api.bringInDepth(current.id, file)
      if (shot.value?.id !== answer.id || !recipe.value) return
      shot.value = newest(answer)
      commit('Depth from file', {
        depth: { ...recipe.value.depth, source: 'file', snap: declared['depth.snap'].usualBy.file },
      })
    })
  }

  async function changeEstimate(work: (id: string) => Promise<Shot>): Promise<void> {
    const current = shot.value
    if (!current) return
    await attempt(async () => {
      const answer = await work(current.id)
      if (shot.value?.id === answer.id) shot.value = newest(answer)
    })
  }

  const estimateAgain = (engine = 'auto', quality: 'draft' | 'best' = 'best'): Promise<void> =>
    changeEstimate((id) => api.estimateDepth(id, engine, quality))
  const cancelEstimate = (): Promise<void> => changeEstimate(api.cancelEstimate)

  return { bringInDepth, estimateAgain, cancelEstimate }
}
