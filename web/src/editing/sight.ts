import { shallowRef, type ShallowRef } from 'vue'
import type { Region, Shot } from '../api/client'
import { ALL, type Patch } from './patches'
import type { Quality } from './previewLoop'

/** Longer side of the largest preview of a whole picture, as the server makes it. */
export const LARGEST_PREVIEW = 2560
const LARGEST_DRAFT = 640
const SMALLEST_DRAFT = 320
const DRAFT_STEP = 64
/** A draft that takes longer than this, in milliseconds, is made smaller. */
const DRAFT_TIME = 80
/** Zoomed in at least this much, only what can be seen is drawn, at its full resolution. */
const ZOOMED = 1.2
/** A part this large, as a share of the picture, is drawn as the whole. */
const NEARLY_ALL = 0.95
/** A picture with this share of the pixels that are wanted is as good: sizes are rounded. */
const FINE = 0.98
/** Before the page has told how large it shows the picture. */
const FIRST_SIDE = 1100
const SMALLEST_PREVIEW = 16

/** The size of the next draft, a step smaller or larger than one that took this long: few sizes, so that the server keeps them. */
export function nextDraftSide(side: number, milliseconds: number): number {
  if (milliseconds > DRAFT_TIME) return Math.max(SMALLEST_DRAFT, side - DRAFT_STEP)
  return milliseconds < DRAFT_TIME / 2 ? Math.min(LARGEST_DRAFT, side + DRAFT_STEP) : side
}

/** What of a shot can be seen, and at which size it is to be drawn. Sizes are longer sides in pixels. */
export function useSight(shot: ShallowRef<Shot | undefined>) {
  const seen = shallowRef<Region>(ALL)
  /** What the whole picture has on screen now, and what it has when it fits. */
  let wanted = FIRST_SIDE
  let fitting = FIRST_SIDE
  let draft = LARGEST_DRAFT

  const longest = (): number => Math.max(shot.value?.width ?? 1, shot.value?.height ?? 1)
  const isZoomed = (): boolean => wanted > fitting * ZOOMED && seen.value.width * seen.value.height < NEARLY_ALL

  /** Zoomed in, sizes a step apart: the server keeps what it has made of the photo for the next move. */
  function sideFor(quality: Quality): number {
    const step = Math.floor(2 * Math.log2(longest() / Math.max(1, wanted)))
    const exact = isZoomed() ? longest() / 2 ** (Math.max(0, step) / 2) : wanted
    const side = Math.max(SMALLEST_PREVIEW, Math.min(longest(), Math.ceil(exact)))
    if (isZoomed()) return quality === 'draft' ? Math.ceil(side / 2) : side
    return Math.min(side, quality === 'draft' ? draft : LARGEST_PREVIEW)
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
    turn(side: number, whole: number, region: Region): void {
      wanted = side
      fitting = whole
      seen.value = region
    },
    /** After a draft that took so many milliseconds. */
    draftTook(milliseconds: number): void {
      draft = nextDraftSide(draft, milliseconds)
    },
  }
}
