import type { Schemas } from '../api/client'

/** How a value goes from one mark to the next. The formulas are the server's. */

export type EaseKind = Schemas['BandMark']['ease']
export type Curve = { along: number; way: number }[]

/** The share of the way at a share of the time, both in [0,1]. */
export function eased(ease: EaseKind, curve: Curve, time: number): number {
  const t = Math.max(0, Math.min(1, time))
  if (ease === 'hold') return t < 1 ? 0 : 1
  if (ease === 'straight') return t
  return ease === 'smooth' ? t * t * (3 - 2 * t) : onCurve(curve, t)
}

/** A monotone cubic through the points, as Fritsch and Carlson. */
function onCurve(curve: Curve, t: number): number {
  const points = [{ along: 0, way: 0 }, ...curve, { along: 1, way: 1 }]
  const rise = points.slice(1).map((to, i) => {
    const from = points[i] as Curve[number]
    return to.along > from.along ? (to.way - from.way) / (to.along - from.along) : 0
  })
  const slope = (i: number): number => {
    const before = rise[i - 1] ?? rise[0] ?? 0
    const after = rise[i] ?? before
    if (i === 0 || i === points.length - 1) return i === 0 ? after : before
    return before * after <= 0 ? 0 : (2 * before * after) / (before + after)
  }
  let piece = 0
  while (piece < curve.length && t >= (curve[piece]?.along ?? 1)) piece++
  const a = points[piece] as Curve[number]
  const b = points[piece + 1] as Curve[number]
  const length = b.along - a.along
  if (length <= 0) return b.way
  const s = (t - a.along) / length
  const rest = 1 - s
  return (
    a.way * rest * rest * (1 + 2 * s) +
    b.way * s * s * (1 + 2 * rest) +
    length * s * rest * (slope(piece) * rest - slope(piece + 1) * s)
  )
}
