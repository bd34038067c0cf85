import type { Recipe, Schemas } from '../api/client'
import { settings, usualShape } from '../api/generated/settings'
import { eased } from './ease'
import type { TrackFrame, Wakes } from './follow'
import { actingAt, LATEST } from './span'

/** Blur shapes, and where they lie at a moment. The formulas are the server's. */

export type Shape = Schemas['BlurShape']
export type Form = Shape['form']
export type Place = Pick<Shape, 'x' | 'y' | 'width' | 'height' | 'turn'>

const MICROS = 1e6
/** Marks that lie nearer, in seconds, are one. */
const SAME = 0.004
/** Every shape looks as before after half a turn. */
const HALF_TURN = 180
export const SMALLEST = 0.004

const clamped = (key: 'x' | 'width', value: number): number =>
  Math.max(settings[`shape.${key}`].least, Math.min(settings[`shape.${key}`].most, value))

/** An angle between -90 and 90 degrees that looks the same. */
export const folded = (turn: number): number => turn - HALF_TURN * Math.round(turn / HALF_TURN)

export const usualNamed = (id: string, name: string, form: Form, place: Partial<Place>): Shape => ({
  ...usualShape,
  id,
  name,
  form,
  ...place,
})

export const placeOf = ({ x, y, width, height, turn }: Place): Place => ({ x, y, width, height, turn })

function between(a: Place, b: Place, share: number): Place {
  const line = (from: number, to: number): number => from + (to - from) * share
  const grown = (from: number, to: number): number => from * (to / from) ** share
  return {
    x: line(a.x, b.x),
    y: line(a.y, b.y),
    width: grown(a.width, b.width),
    height: grown(a.height, b.height),
    turn: share === 0 ? a.turn : folded(a.turn + share * folded(b.turn - a.turn)),
  }
}

/** Where its marks put it, before it is carried by a point. */
function marked({ marks, ...shape }: Shape, seconds: number): Place {
  const next = marks.findIndex((each) => each.at > seconds)
  const from = next < 0 ? marks.at(-1) : marks[Math.max(0, next - 1)]
  const to = next > 0 ? marks[next] : undefined
  if (!from) return placeOf(shape)
  return to ? between(from, to, eased(from.ease, from.curve, (seconds - from.at) / (to.at - from.at))) : placeOf(from)
}

/** Where a tracked point is; straight from where it was seen to where it is seen next. */
export function pointAt(
  frames: readonly TrackFrame[],
  micros: readonly number[],
  seconds: number,
): { x: number; y: number } | undefined {
  let before: number | undefined
  let after: number | undefined
  for (let i = 0; i < Math.min(frames.length, micros.length) && after === undefined; i++) {
    if (!frames[i]?.sure) continue
    if ((micros[i] ?? 0) / MICROS <= seconds) before = i
    else after = i
  }
  const from = frames[before ?? after ?? -1]
  const to = frames[after ?? before ?? -1]
  if (!from || !to) return undefined
  if (from === to) return { x: from.x, y: from.y }
  const start = (micros[before ?? 0] ?? 0) / MICROS
  const share = (seconds - start) / ((micros[after ?? 0] ?? 0) / MICROS - start)
  return { x: from.x + share * (to.x - from.x), y: from.y + share * (to.y - from.y) }
}

/** How far the point that it is tied to has carried it. */
function carried(shape: Shape, seconds: number, wakes?: Wakes): { x: number; y: number } {
  const frames = shape.follow ? wakes?.tracks[shape.follow] : undefined
  const here = frames && wakes ? pointAt(frames, wakes.micros, seconds) : undefined
  const there = frames && wakes ? pointAt(frames, wakes.micros, shape.tiedAt) : undefined
  return here && there ? { x: here.x - there.x, y: here.y - there.y } : { x: 0, y: 0 }
}

/** Where a shape lies at a time. */
export function placeAt(shape: Shape, seconds: number, wakes?: Wakes): Place {
  const place = marked(shape, seconds)
  const by = carried(shape, seconds, wakes)
  return { ...place, x: clamped('x', place.x + by.x), y: clamped('x', place.y + by.y) }
}

/** A shape that lies somewhere at a time: where it has marks it gets one there, else it lies so at all times. */
export function placedAt(shape: Shape, seconds: number, place: Place, wakes?: Wakes, mark = false): Shape {
  const by = carried(shape, seconds, wakes)
  const own: Place = {
    x: clamped('x', place.x - by.x),
    y: clamped('x', place.y - by.y),
    width: Math.max(SMALLEST, clamped('width', place.width)),
    height: Math.max(SMALLEST, clamped('width', place.height)),
    turn: folded(place.turn),
  }
  if (!shape.marks.length && !mark) return { ...shape, ...own }
  const others = shape.marks.filter((each) => Math.abs(each.at - seconds) >= SAME)
  const fresh = { ease: 'smooth' as const, curve: [], ...own, at: seconds }
  return { ...shape, ...own, marks: [...others, fresh].sort((a, b) => a.at - b.at) }
}

/** Without its mark at a time; without any left it stays where the last one was. */
export function unmarkedAt(shape: Shape, seconds: number): Shape {
  const marks = shape.marks.filter((each) => Math.abs(each.at - seconds) >= SAME)
  return marks.length ? { ...shape, marks } : { ...shape, ...marked(shape, seconds), marks }
}

export const hasMarkAt = (shape: Shape, seconds: number): boolean =>
  shape.marks.some((each) => Math.abs(each.at - seconds) < SAME)

/** A shape that lies where it did at a time, and moves along with another point from there, or with none. */
export function tiedTo(shape: Shape, follow: string, seconds: number, wakes?: Wakes): Shape {
  const by = carried(shape, seconds, wakes)
  const shifted = (place: Place): Place => ({
    ...placeOf(place),
    x: clamped('x', place.x + by.x),
    y: clamped('x', place.y + by.y),
  })
  const marks = shape.marks.map((each) => ({ ...each, ...shifted(each) }))
  return { ...shape, ...shifted(shape), marks, follow, tiedAt: follow ? seconds : 0 }
}

/** Those that act at a time, as they are there. */
export function shapesAt(shapes: Recipe['shapes'], seconds: number, wakes?: Wakes): Recipe['shapes'] {
  return shapes
    .map((each) => ({
      ...each,
      ...placeAt(each, seconds, wakes),
      strength: each.strength * actingAt(each, seconds),
      follow: '',
      tiedAt: 0,
      marks: [],
      from: 0,
      to: LATEST,
      fade: 0,
    }))
    .filter((each) => each.shown && each.strength > 0)
}
