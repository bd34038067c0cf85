import type { Recipe } from '../api/client'

export type Mist = Recipe['atmosphere']['mist']

/** Nearness of what lies farthest, were it not normalised; as the server has it. */
const FARTHEST = 0.15
/** Optical depth of what lies farthest at full density. */
const DEEPEST = 4

/** How much of what is this near the mist hides, where it is full. */
export function hides(mist: Mist, nearness: number): number {
  const all = 1 / FARTHEST - 1 / (1 + FARTHEST)
  const way = 1 / (Math.max(0, nearness) + FARTHEST) - 1 / (mist.start + FARTHEST)
  return mist.start === 0 ? 0 : 1 - Math.exp((-DEEPEST * mist.density * Math.max(0, way)) / all)
}
