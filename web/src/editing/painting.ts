import { frameOf } from './moments'
import type { Recipe, Stroke, Touchup } from '../api/client'
import { usualTouchup } from '../api/generated/settings'

/** How the next stroke paints; sizes in shares of the picture's longer side. */
export type Brush = Omit<Stroke, 'points'>
export type Action = Touchup['action']
export type Point = { x: number; y: number; pressure: number }

export const SMALLEST = 0.001
export const LARGEST = 1
const SIZE_STEP = 1.15
/** How far beside the picture a point may lie, in shares of its width and height. */
const FARTHEST = 3
const DIGITS = 1e5
const PRESSURE_TOLERANCE = 0.05

export const actionNames: Record<Action, string> = { focus: 'Focus', blur: 'Blur', match: 'Match', reveal: 'Reveal' }
export const actionHints: Record<Action, string> = {
  focus: 'Paint over what should be sharp: it moves to the depth of the sharp band',
  blur: 'Paint over what should be blurred: it moves out of the band, behind it or in front',
  match: 'Paint over what has a wrong depth: it takes the depth picked elsewhere, or of the first point of the stroke',
  reveal: 'Paint the untouched photo back; depth stays as it is',
}
export const usualStrength: Record<Action, number> = { focus: 1, blur: 0.3, match: 1, reveal: 1 }

export function strengthText(action: Action, strength: number): string {
  const share = `${Math.round(Math.abs(strength) * 100)} %`
  if (action !== 'blur' || strength === 0) return share
  return `${share} ${strength > 0 ? 'behind' : 'in front'}`
}

/** A place on the picture or beside it: a pointer can be dragged anywhere. */
export function nearPicture({ x, y }: { x: number; y: number }, pressure = 1): Point {
  const near = (share: number): number => Math.min(FARTHEST, Math.max(-FARTHEST, share))
  return { x: near(x), y: near(y), pressure }
}

const rounded = (value: number): number => Math.round(value * DIGITS) / DIGITS

/** A size a step larger or smaller, by the wheel or a key. */
export function resized(size: number, steps: number): number {
  return rounded(Math.min(LARGEST, Math.max(SMALLEST, size * SIZE_STEP ** steps)))
}

/** The next point held level or upright with the first one, by which way the stroke goes. */
export function straightened(first: Point, point: Point, aspect: number): Point {
  const level = Math.abs(point.x - first.x) * aspect > Math.abs(point.y - first.y)
  return level ? { ...point, y: first.y } : { ...point, x: first.x }
}

/**
 * The points that say the same line: none left out lies farther than `tolerance` from what stays (Douglas and Peucker, 1973).
 * Lengths in shares of the width.
 */
export function simplified(points: Point[], aspect: number, tolerance: number): Point[] {
  if (points.length < 3) return points
  const kept = new Uint8Array(points.length)
  kept[0] = kept[points.length - 1] = 1
  const stack: [number, number][] = [[0, points.length - 1]]
  for (let span = stack.pop(); span; span = stack.pop()) {
    const [from, to] = span
    let most = 1
    let farthest = -1
    for (let i = from + 1; i < to; i++) {
      const off = distance(points, from, to, i, aspect, tolerance)
      if (off > most) {
        most = off
        farthest = i
      }
    }
    if (farthest < 0) continue
    kept[farthest] = 1
    stack.push([from, farthest], [farthest, to])
  }
  return points.filter((_, i) => kept[i])
}

function distance(points: Point[], from: number, to: number, i: number, aspect: number, tolerance: number): number {
  const a = points[from] as Point
  const b = points[to] as Point
  const p = points[i] as Point
  const dx = b.x - a.x
  const dy = (b.y - a.y) / aspect
  const px = p.x - a.x
  const py = (p.y - a.y) / aspect
  const length = dx * dx + dy * dy
  const along = length ? Math.max(0, Math.min(1, (px * dx + py * dy) / length)) : 0
  const pressure = Math.abs(p.pressure - a.pressure - along * (b.pressure - a.pressure)) / PRESSURE_TOLERANCE
  return Math.max(Math.hypot(px - along * dx, py - along * dy) / tolerance, pressure)
}

/** A stroke as the recipe holds it. */
export function strokeOf(brush: Brush, points: Point[], aspect: number, width: number): Stroke {
  return {
    ...brush,
    points: simplified(points, aspect, 0.5 / width).flatMap(({ x, y, pressure }) => [
      rounded(x),
      rounded(y),
      Math.round(pressure * 100) / 100,
    ]),
  }
}

export function newTouchup(action: Action, all: Touchup[], target: number): Touchup {
  const like = all.filter((each) => each.action === action).length
  return {
    ...usualTouchup,
    id: crypto.randomUUID(),
    name: `${actionNames[action]} ${like + 1}`,
    action,
    strength: usualStrength[action],
    target: rounded(target),
  }
}

/** Whether its mask begins with something that was found or brought in. */
const begins = (touchup: Touchup): boolean =>
  touchup.pickOut !== null || touchup.maskFile !== null || touchup.kept.length > 0

/** Whether anything is painted. */
export function hasPaint(touchup: Touchup): boolean {
  return touchup.strokes.length > 0 || touchup.inverted || begins(touchup)
}

/** The list with one touch-up a place earlier or later. */
export function reordered(all: Touchup[], id: string, by: number): Touchup[] {
  const at = all.findIndex((each) => each.id === id)
  const to = at + by
  const moved = all[at]
  if (!moved || to < 0 || to >= all.length) return all
  const rest = all.filter((each) => each.id !== id)
  return [...rest.slice(0, to), moved, ...rest.slice(to)]
}

const written = new WeakMap<object, string>()

/** Names a text: 64 bits of a hash (after FNV-1a), and its length. */
function nameOf(text: string): string {
  let a = 0x811c9dc5
  let b = 0x1b873593
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i)
    a = Math.imul(a ^ code, 0x01000193)
    b = Math.imul(b ^ code, 0x85ebca6b) ^ (b >>> 13)
  }
  return `${a >>> 0}.${b >>> 0}.${text.length}`
}

/** Tells touch-ups apart; each is read once, for there may be thousands of strokes. */
export function touchupsKey(all: Touchup[]): string {
  return all
    .map((each) => {
      let name = written.get(each)
      if (name === undefined) {
        name = nameOf(JSON.stringify(each))
        written.set(each, name)
      }
      return name
    })
    .join()
}

/**
 * A recipe as it is sent to whoever knows the one before: without the touch-ups that are the same as there, and with the order of
 * all. All of it where that cannot be told by their ids.
 */
export function packed(recipe: Recipe, known: Recipe | undefined): { recipe: Recipe; order?: string[] } {
  const order = recipe.touchups.map((each) => each.id)
  if (
    !known ||
    new Set(order).size < order.length ||
    new Set(known.touchups.map((each) => each.id)).size < known.touchups.length
  )
    return { recipe }
  const before = new Set(known.touchups.map((each) => touchupsKey([each])))
  return { recipe: { ...recipe, touchups: recipe.touchups.filter((each) => !before.has(touchupsKey([each]))) }, order }
}

/** What came from the server with what is here already where the two are equal, so that little is drawn and compared anew. */
export function reused(recipe: Recipe, before: Recipe | undefined): Recipe {
  const known = new Map(before?.touchups.map((each) => [each.id, each]))
  return {
    ...recipe,
    touchups: recipe.touchups.map((each) => {
      const same = known.get(each.id)
      return same && same.strokes.length === each.strokes.length && touchupsKey([same]) === touchupsKey([each])
        ? same
        : each
    }),
  }
}

/** Tells a recipe from others. */
export function recipeKey(recipe: Recipe | undefined): string {
  return recipe ? JSON.stringify({ ...recipe, touchups: 0 }) + touchupsKey(recipe.touchups) + frameOf(recipe) : ''
}

/** What the depth of a recipe depends on. */
export function depthKeyOf({ depth, touchups, band }: Recipe): string {
  const acting = touchups.filter((each) => each.shown && each.action !== 'reveal' && hasPaint(each))
  const followed = acting.some((each) => each.action === 'blur') ? JSON.stringify(band) : ''
  return JSON.stringify(depth) + touchupsKey(acting) + followed
}
