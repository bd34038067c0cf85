import type { ShallowRef } from 'vue'
import { api, type Problem, type Recipe, type Region, type Shot } from '../api/client'
import { frameOf } from './moments'
import { packed, recipeKey } from './painting'
import { drawn, laidOver, type Patch } from './patches'

/** An answer that is shown, with the wish it answered: the next one to the same wish may be a patch on it. */
export type Shown = Patch & { number: number; wish: string; of: Recipe }

/** What a preview is for. Of one purpose only the newest is drawn; patches are laid over the one on the Bench only. */
export type Purpose = 'bench' | 'whole' | 'versions' | 'loupe'

/** What of the picture is wanted, all by default; and whether a smaller picture soon is better than this size later. */
type More = { region?: Region; draft?: boolean; signal?: AbortSignal }

const PAGE = crypto.randomUUID()
let previewNumber = 0

/** Asks for previews, sending and getting only what has changed. */
export function useAsking(shot: ShallowRef<Shot | undefined>) {
  let onScreen: Shown | undefined

  /** Null when the server dropped it for a newer one of the same purpose. */
  async function ask(wish: Recipe, longSide: number, purpose: Purpose, more: More = {}): Promise<Shown | null> {
    const id = shot.value?.id
    if (!id) return null
    const { region, draft, signal } = more
    const number = ++previewNumber
    const like = `${id} ${purpose} ${longSide} ${JSON.stringify(region)}`
    const base = purpose === 'bench' && onScreen?.wish === like ? onScreen : undefined
    const body = {
      ...packed(wish, base?.of),
      longSide,
      frame: frameOf(wish),
      ...(region && { region }),
      ...(draft && { draft }),
      page: `${PAGE}:${purpose}`,
      number,
      ...(base && { over: base.number }),
    }
    let answer: Response
    try {
      answer = await api.preview(id, body, signal)
    } catch (problem) {
      // The server has forgotten what this page shows.
      if (!base || (problem as Problem).status !== 412) throw problem
      if (onScreen === base) onScreen = undefined
      return ask(wish, longSide, purpose, more)
    }
    if (answer.status === 204) return null
    const patch = {
      bitmap: await createImageBitmap(await answer.blob()),
      region: drawn(answer),
      recipe: recipeKey(wish),
    }
    const named = { number, wish: like, of: wish }
    if (!base || !answer.headers.has('X-Over')) return { ...patch, ...named }
    // What it was meant for is gone when one has moved on meanwhile.
    if (onScreen !== base) return ask(wish, longSide, purpose, more)
    return { bitmap: laidOver(base, patch), region: base.region, recipe: patch.recipe, ...named }
  }

  return {
    ask,
    /** This is what the page shows now. */
    keep(shown: Shown): void {
      onScreen = shown
    },
    /** A bitmap is no longer shown, or nothing at all. */
    forget(bitmap?: ImageBitmap): void {
      if (!bitmap || onScreen?.bitmap === bitmap) onScreen = undefined
    },
  }
}
