import { shallowRef, type ShallowRef } from 'vue'
import type { Recipe, Version } from '../api/client'
import type { useAsking } from './asking'
import { LARGEST_PREVIEW } from './sight'

const SMALLEST = 16

type Source = {
  versions: ShallowRef<Version[]>
  version: ShallowRef<Version | undefined>
  ask: ReturnType<typeof useAsking>['ask']
  /** A recipe for the moment that is shown. */
  atMoment: (recipe: Recipe) => Recipe
  attempt: (work: () => Promise<void>) => Promise<void>
}

/** Previews of the versions that are compared with the one that is worked on, by id. */
export function useVersionPreviews({ versions, version, ask, atMoment, attempt }: Source) {
  const previews = shallowRef(new Map<string, ImageBitmap>())
  let comparing = 0

  /** One after the other; those that are there stay. */
  async function compare(ids: string[], side: number): Promise<void> {
    const ticket = ++comparing
    const longSide = Math.min(LARGEST_PREVIEW, Math.max(SMALLEST, Math.ceil(side)))
    for (const each of versions.value.filter(({ id }) => ids.includes(id) && id !== version.value?.id)) {
      await attempt(async () => {
        const patch = await ask(atMoment(each.recipe), longSide, 'versions')
        if (!patch || ticket !== comparing) return
        previews.value.get(each.id)?.close()
        previews.value = new Map(previews.value).set(each.id, patch.bitmap)
      })
      if (ticket !== comparing) return
    }
  }

  function close(): void {
    comparing++
    previews.value.forEach((bitmap) => bitmap.close())
    previews.value = new Map()
  }

  return { previews, compare, close }
}
