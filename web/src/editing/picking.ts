import type { PickOut } from '../api/client'

/** A box in shares of the picture. */
export type PickBox = Pick<PickOut, 'left' | 'top' | 'width' | 'height'>
/** Which sides of a box move along. */
export type Sides = { left: boolean; top: boolean; right: boolean; bottom: boolean }

/** Smaller than this no object is meant. */
const SMALLEST = 0.01
const DIGITS = 1e5

const limited = (value: number): number => Math.round(Math.min(1, Math.max(0, value)) * DIGITS) / DIGITS

/** The box between two corners, within the picture; undefined when it is too small to hold anything. */
export function boxBetween(a: { x: number; y: number }, b: { x: number; y: number }): PickBox | undefined {
  const left = limited(Math.min(a.x, b.x))
  const top = limited(Math.min(a.y, b.y))
  const width = limited(limited(Math.max(a.x, b.x)) - left)
  const height = limited(limited(Math.max(a.y, b.y)) - top)
  return width < SMALLEST || height < SMALLEST ? undefined : { left, top, width, height }
}

/** The sides of a box that lie within `reach` of a place, both in the same units; undefined away from all. */
export function sidesAt(box: PickBox, x: number, y: number, reachX: number, reachY: number): Sides | undefined {
  const right = box.left + box.width
  const bottom = box.top + box.height
  if (x < box.left - reachX || x > right + reachX || y < box.top - reachY || y > bottom + reachY) return undefined
  const sides = {
    left: Math.abs(x - box.left) <= reachX,
    right: Math.abs(x - right) <= reachX,
    top: Math.abs(y - box.top) <= reachY,
    bottom: Math.abs(y - bottom) <= reachY,
  }
  return Object.values(sides).some(Boolean) ? sides : undefined
}

/** The box with some of its sides at a place. */
export function stretched(box: PickBox, sides: Sides, x: number, y: number): PickBox {
  const right = box.left + box.width
  const bottom = box.top + box.height
  const a = { x: sides.left ? x : box.left, y: sides.top ? y : box.top }
  const b = { x: sides.right ? x : right, y: sides.bottom ? y : bottom }
  return boxBetween(a, b) ?? box
}
