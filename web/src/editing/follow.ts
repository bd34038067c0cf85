import type { Band, Recipe, Schemas } from '../api/client'
import { settings } from '../api/generated/settings'
import { eased } from './ease'
import { actingAt, LATEST } from './span'

/** What is followed, and the depth under it. The formulas are the server's. */

export type Follow = Schemas['Follow']
export type TrackFrame = Schemas['TrackFrame']
/** The frames of each follow that is tracked, by its id, and the times of the clip's frames in microseconds. */
export type Wakes = { micros: readonly number[]; tracks: Readonly<Record<string, readonly TrackFrame[]>> }

const MICROS = 1e6
/** Deviations of the smoothing that are looked at, and of the smoothing time one deviation. */
const REACH = 3
const DEVIATION = 0.5
const SHORTEST = 1e-3
/** What depth counts where the point is seen, but not surely. */
const UNSURE = 0.2
/** Seconds in which a mark hands over to what is followed. */
const HAND_OVER = 0.5

export const usualFollow = (id: string, name: string, at: number, x: number, y: number): Follow => ({
  id,
  name,
  puts: [{ at, x, y }],
  eye: false,
  focus: true,
  width: settings['follow.width'].usual,
  lead: 0,
  smooth: settings['follow.smooth'].usual,
  from: 0,
  to: LATEST,
  fade: 0,
})

/** Where in rising times the first lies that is not before one. */
function firstFrom(micros: readonly number[], wanted: number): number {
  let low = 0
  let high = micros.length
  while (low < high) {
    const middle = (low + high) >> 1
    if ((micros[middle] ?? 0) < wanted) low = middle + 1
    else high = middle
  }
  return low
}

/** Nearness under a point around a time; undefined when it is never seen. Only what lies around is looked at: ribbons ask often. */
export function nearnessAt(
  frames: readonly TrackFrame[],
  micros: readonly number[],
  seconds: number,
  smooth: number,
): number | undefined {
  const deviation = Math.max(SHORTEST, DEVIATION * smooth)
  const known = (i: number): number | undefined => (frames[i]?.sure ? (frames[i]?.nearness ?? undefined) : undefined)
  const at = (i: number): number => (micros[i] ?? 0) / MICROS
  const from = firstFrom(micros, (seconds - REACH * deviation) * MICROS)
  const to = firstFrom(micros, (seconds + REACH * deviation) * MICROS + 1)
  let sum = 0
  let weights = 0
  for (let i = from; i < to; i++) {
    const value = known(i)
    if (value === undefined) continue
    const away = at(i) - seconds
    const weight = (frames[i]?.sure === 2 ? 1 : UNSURE) * Math.exp((-away * away) / (2 * deviation * deviation))
    sum += weight * value
    weights += weight
  }
  if (weights > 0) return sum / weights
  let before = from - 1
  while (before >= 0 && known(before) === undefined) before--
  let after = to
  while (after < frames.length && known(after) === undefined) after++
  const first = known(before)
  const next = known(after)
  if (first === undefined || next === undefined) return first ?? next
  return first + ((seconds - at(before)) / (at(after) - at(before))) * (next - first)
}

/** How far marks leave the band to what is followed, in [0,1]. */
export function freeOfMarks(marks: Recipe['marks']['band'], seconds: number): number {
  const last = marks.length - 1
  return marks.reduce((free, mark, i) => {
    const away = seconds - mark.at
    const freeBefore = i === 0 || marks[i - 1]?.follow
    const freeAfter = i === last || mark.follow
    const beside =
      away <= 0 ? i === 0 || (marks[i - 1]?.at ?? 0) <= seconds : i === last || (marks[i + 1]?.at ?? 0) > seconds
    if (!beside) return free
    const own = away !== 0 && (away < 0 ? freeBefore : freeAfter) ? eased('smooth', [], Math.abs(away) / HAND_OVER) : 0
    return Math.min(free, own)
  }, 1)
}

const mixed = (a: Band, near: number, far: number, share: number): Band => ({
  ...a,
  near: a.near + (near - a.near) * share,
  far: a.far + (far - a.far) * share,
})

/** The band at a time: where nothing else holds it, it lies around what is followed. */
export function followedBand(recipe: Recipe, band: Band, wakes: Wakes, seconds: number): Band {
  const free = recipe.follows.length ? freeOfMarks(recipe.marks.band, seconds) : 0
  if (!free) return band
  const followed = recipe.follows.reduce((so, each) => {
    const share = each.focus ? actingAt(each, seconds) : 0
    const frames = wakes.tracks[each.id]
    const depth = share && frames ? nearnessAt(frames, wakes.micros, seconds + each.lead, each.smooth) : undefined
    if (depth === undefined) return so
    return mixed(so, Math.min(1, depth + each.width / 2), Math.max(0, depth - each.width / 2), share)
  }, band)
  return mixed(band, followed.near, followed.far, free)
}

/** Where a point is at a frame, put by hand or tracked. */
export function placeAt(follow: Follow, frames: readonly TrackFrame[] | undefined, frame: number, seconds: number) {
  const put = follow.puts.find((each) => Math.abs(each.at - seconds) < 0.004)
  if (put) return { x: put.x, y: put.y, sure: 2, put: true }
  const tracked = frames?.[frame]
  return tracked && { x: tracked.x, y: tracked.y, sure: tracked.sure, put: false }
}

/** A follow put somewhere at a time, in the place of where it was put there before. */
export function putAt(follow: Follow, at: number, x: number, y: number): Follow {
  const others = follow.puts.filter((each) => Math.abs(each.at - at) >= 0.004)
  return { ...follow, puts: [...others, { at, x, y }].sort((a, b) => a.at - b.at) }
}

/** Stretches of frames at which a point is not sure or not seen: the first, and the first behind. */
export function doubts(frames: readonly TrackFrame[]): { from: number; end: number; hidden: boolean }[] {
  const out: { from: number; end: number; hidden: boolean }[] = []
  frames.forEach(({ sure }, i) => {
    if (sure > 1) return
    const last = out.at(-1)
    if (last?.end === i && last.hidden === !sure) last.end = i + 1
    else out.push({ from: i, end: i + 1, hidden: !sure })
  })
  return out
}
