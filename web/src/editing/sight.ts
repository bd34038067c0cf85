import { shallowRef, type ShallowRef } from 'vue'
import type { Region, Shot } from '../api/client'
import { ALL, type Patch } from './patches'
import type { Quality } from './previewLoop'

/** Longer side of the largest preview of a whole picture, as the server makes it. */
export const LARGEST_PREVIEW = 2560
/** Longer sides of drafts. They are few, so that the server keeps the photo and its depth at each. */
const DRAFTS = [320, 400, 512, 640, 800, 1024]
/** The first draft's. */
export const FIRST_DRAFT = 640
/** How long a draft may take, in milliseconds: thirty a second. */
const DRAFT_TIME = 33
/** A size is left when its drafts take so much longer than that, or may be larger when they take this share of it. */
const TOO_LONG = 1.2
const SHORT = 0.7
/** How much the newest draft counts. */
const NEWEST = 0.4
/** What a draft costs grows with this power of its side: a part of it does not grow at all. */
const COST_POWER = 1.6
/** Zoomed in at least this much, only what can be seen is drawn, at its full resolution. */
const ZOOMED = 1.2
/** A part this large, as a share of the picture, is drawn as the whole. */
const NEARLY_ALL = 0.95
/** A picture with this share of the pixels that are wanted is as good: sizes are rounded. */
const FINE = 0.98
/** Before the page has told how large it shows the picture. */
const FIRST_SIDE = 1100
const SMALLEST_PREVIEW = 16

/**
 * Chooses the size of drafts by what the last ones cost, so that there are thirty a second whatever the machine. The first draft of a size does
 * not count: the server makes the photo and its depth at that size for it.
 */
export function draftPace(): { side: () => number; took: (milliseconds: number) => void } {
  let at = DRAFTS.indexOf(FIRST_DRAFT)
  let cost: number | undefined
  let fresh = true

  const side = (index: number): number => DRAFTS[index] ?? FIRST_DRAFT
  const fits = (index: number, now: number): boolean => now * (side(index) / side(at)) ** COST_POWER <= DRAFT_TIME

  function go(to: number): void {
    if (to === at) return
    at = to
    cost = undefined
    fresh = true
  }

  function took(milliseconds: number): void {
    if (fresh) {
      fresh = false
      return
    }
    cost = cost === undefined ? milliseconds : cost + NEWEST * (milliseconds - cost)
    if (cost > DRAFT_TIME * TOO_LONG) {
      let to = Math.max(0, at - 1)
      while (to > 0 && !fits(to, cost)) to--
      go(to)
    } else if (cost < DRAFT_TIME * SHORT && at + 1 < DRAFTS.length && fits(at + 1, cost)) go(at + 1)
  }

  return { side: () => side(at), took }
}

/** What of a shot can be seen, and at which size it is to be drawn. Sizes are longer sides in pixels. */
export function useSight(shot: ShallowRef<Shot | undefined>) {
  const seen = shallowRef<Region>(ALL)
  /** What the whole picture has on screen now, and what it has when it fits. */
  let wanted = FIRST_SIDE
  let fitting = FIRST_SIDE
  /** Whether the page has said how large it shows the picture. */
  let told = false
  const pace = draftPace()

  const longest = (): number => Math.max(shot.value?.width ?? 1, shot.value?.height ?? 1)
  const isZoomed = (): boolean => wanted > fitting * ZOOMED && seen.value.width * seen.value.height < NEARLY_ALL

  /** Zoomed in, sizes a step apart: the server keeps what it has made of the photo for the next move. */
  function sideFor(quality: Quality): number {
    const step = Math.floor(2 * Math.log2(longest() / Math.max(1, wanted)))
    const exact = isZoomed() ? longest() / 2 ** (Math.max(0, step) / 2) : wanted
    const side = Math.max(SMALLEST_PREVIEW, Math.min(longest(), Math.ceil(exact)))
    if (isZoomed()) return quality === 'draft' ? Math.ceil(side / 2) : side
    return Math.min(side, quality === 'draft' ? pace.side() : LARGEST_PREVIEW)
  }

  /** Whether a part has as many pixels as can be seen. */
  function isFine({ bitmap, region }: Patch): boolean {
    const widthShare = (shot.value?.width ?? 1) / longest()
    return bitmap.width >= sideFor('final') * widthShare * region.width * FINE
  }

  return {
    seen,
    longest,
    isZoomed,
    sideFor,
    isFine,
    wantedSide: (): number => wanted,
    fittedSide: (): number => Math.min(LARGEST_PREVIEW, Math.ceil(fitting)),
    isTold: (): boolean => told,
    /** Another picture will be shown. */
    forget(): void {
      told = false
    },
    turn(side: number, whole: number, region: Region): void {
      told = true
      wanted = side
      fitting = whole
      seen.value = region
    },
    /** After a draft that took so many milliseconds. */
    draftTook: pace.took,
  }
}
