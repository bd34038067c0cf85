import { describe, expect, it } from 'vitest'
import type { TrackFrame } from './follow'
import {
  hasMarkAt,
  placeAt,
  placedAt,
  pointAt,
  shapesAt,
  tiedTo,
  unmarkedAt,
  usualNamed,
  type Place,
  type Shape,
} from './shapes'

const PLACE: Place = { x: 0.3, y: 0.4, width: 0.1, height: 0.1, turn: 0 }
const shape = (part: Partial<Shape> = {}): Shape => ({ ...usualNamed('s', 'Sign', 'ellipse', PLACE), ...part })

/** A point that goes from the left to the right in ten seconds, at ten frames a second, hidden from 4 to 5 s. */
const micros = Array.from({ length: 101 }, (_, i) => i * 1e5)
const frames: TrackFrame[] = micros.map((_, i) => ({
  x: i > 40 && i < 50 ? 0.9 : i / 100,
  y: 0.5,
  sure: i > 40 && i < 50 ? 0 : 2,
  nearness: 0.5,
}))
const wakes = { micros, tracks: { a: frames } }

describe('where a shape lies', () => {
  it('goes from mark to mark, grows by shares and turns the shorter way', () => {
    const on = shape({
      marks: [
        { at: 1, ease: 'straight', curve: [], ...PLACE, turn: 170 },
        { at: 3, ease: 'hold', curve: [], x: 0.5, y: 0.8, width: 0.4, height: 0.1, turn: -170 },
      ],
    })
    expect(placeAt(on, 0).x).toBe(0.3)
    const half = placeAt(on, 2)
    expect(half.x).toBeCloseTo(0.4, 9)
    expect(half.width).toBeCloseTo(0.2, 9)
    expect(half.turn).toBeCloseTo(0, 9)
    expect(placeAt(on, 9).y).toBe(0.8)
  })

  it('is carried by the point it is tied to, also while that is hidden', () => {
    const on = tiedTo(shape(), 'a', 2, wakes)
    expect(placeAt(on, 2, wakes).x).toBeCloseTo(0.3, 9)
    expect(placeAt(on, 4.5, wakes).x).toBeCloseTo(0.55, 9)
    expect(placeAt(on, 4.5).x).toBe(0.3)
    expect(pointAt(frames, micros, 4.5)?.x).toBeCloseTo(0.45, 9)
    expect(pointAt([{ x: 0, y: 0, sure: 0, nearness: 0 }], [0], 0)).toBeUndefined()
  })

  it('stays where it is when it is tied to another point or let go', () => {
    const on = tiedTo(shape(), 'a', 2, wakes)
    const free = tiedTo(on, '', 6, wakes)
    expect(free.follow).toBe('')
    expect(placeAt(free, 6, wakes).x).toBeCloseTo(0.7, 9)
    expect(placeAt(free, 1, wakes).x).toBeCloseTo(0.7, 9)
  })
})

describe('a shape that is put elsewhere', () => {
  it('lies there at all times without marks', () => {
    const on = placedAt(shape(), 5, { ...PLACE, x: 0.6 })
    expect(on.marks).toEqual([])
    expect(on.x).toBe(0.6)
  })

  it('gets a mark there when it has some, or is to have one', () => {
    const marked = placedAt(shape(), 1, PLACE, undefined, true)
    expect(hasMarkAt(marked, 1)).toBe(true)
    const moved = placedAt(marked, 3, { ...PLACE, x: 0.6 })
    expect(moved.marks.map((each) => each.at)).toEqual([1, 3])
    expect(placeAt(moved, 1).x).toBe(0.3)
    const one = unmarkedAt(moved, 1)
    expect(one.marks).toHaveLength(1)
    const none = unmarkedAt(one, 3)
    expect(none.marks).toEqual([])
    expect(none.x).toBe(0.6)
  })

  it('lies where it was put while a point carries it', () => {
    const on = placedAt(tiedTo(shape(), 'a', 2, wakes), 6, { ...PLACE, x: 0.5 }, wakes)
    expect(placeAt(on, 6, wakes).x).toBeCloseTo(0.5, 9)
    expect(placeAt(on, 2, wakes).x).toBeCloseTo(0.1, 9)
  })

  it('never gets smaller than what can be seen, nor leaves what the server takes', () => {
    const on = placedAt(shape(), 0, { x: 9, y: -9, width: 0, height: 9, turn: 200 })
    expect(on).toMatchObject({ x: 3, y: -2, width: 0.004, height: 4, turn: 20 })
  })
})

it('acts only in its time, fades, and is plain at a moment', () => {
  const on = shape({ from: 1, to: 3, fade: 1, strength: 20, follow: 'a', tiedAt: 2 })
  expect(shapesAt([on], 0.5, wakes)).toEqual([])
  const [half] = shapesAt([on], 1.5, wakes)
  expect(half).toMatchObject({ strength: 10, follow: '', tiedAt: 0, marks: [], from: 0, fade: 0 })
  expect(shapesAt([{ ...on, shown: false }], 2, wakes)).toEqual([])
})
