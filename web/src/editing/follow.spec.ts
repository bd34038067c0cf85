import { expect, test } from 'vitest'
import { usualBand, usualRecipe } from '../api/generated/settings'
import {
  doubts,
  followedBand,
  freeOfMarks,
  nearnessAt,
  placeAt,
  putAt,
  usualFollow,
  type TrackFrame,
  type Wakes,
} from './follow'
import { recipeAt, writtenAt } from './moments'

/** Depth that grows by a tenth a second at 25 frames a second, hidden from 4 to 5 s: as in the server's test. */
const micros = Array.from({ length: 250 }, (_, i) => i * 40_000)
const frames: TrackFrame[] = micros.map((at) => {
  const hidden = at >= 4e6 && at < 5e6
  return { x: at / 1e7, y: 0.5, sure: hidden ? 0 : 2, nearness: hidden ? null : at / 1e7 }
})
const wakes: Wakes = { micros, tracks: { a: frames } }
const band = { ...usualBand, near: 0.95, far: 0.85 }
const follow = { ...usualFollow('a', 'A', 0, 0, 0.5), width: 0.04, smooth: 0.2 }
const recipe = { ...usualRecipe, band, follows: [follow] }
const mark = (at: number, free = false) => ({ ...band, at, ease: 'hold' as const, curve: [], follow: free })
const centre = (seconds: number, changed = recipe): number => {
  const { near, far } = followedBand(changed, band, wakes, seconds)
  return (near + far) / 2
}

test('the band lies around the depth under the point, also while it is hidden', () => {
  expect(followedBand(recipe, band, wakes, 3).near).toBeCloseTo(0.32, 3)
  expect(centre(4.5)).toBeCloseTo(0.45, 2)
  expect(nearnessAt([{ x: 0, y: 0, sure: 0, nearness: null }], [0], 0, 1)).toBeUndefined()
})

test('it can lead, and acts within its time only', () => {
  expect(centre(2, { ...recipe, follows: [{ ...follow, lead: 1 }] })).toBeCloseTo(0.3, 3)
  const late = { ...recipe, follows: [{ ...follow, from: 2, to: 8, fade: 1 }] }
  expect(centre(1, late)).toBeCloseTo(0.9, 5)
  expect(centre(2.5, late)).toBeCloseTo((0.9 + 0.25) / 2, 2)
})

test('marks take over between the first and the last and hand over smoothly', () => {
  expect(freeOfMarks([], 1)).toBe(1)
  const marks = [mark(6), mark(7)]
  expect(freeOfMarks(marks, 6)).toBe(0)
  expect(freeOfMarks(marks, 6.5)).toBe(0)
  expect(freeOfMarks(marks, 7.25)).toBeCloseTo(0.5, 5)
  expect(freeOfMarks(marks, 3)).toBe(1)
  expect(freeOfMarks([mark(1, true), mark(7)], 3)).toBe(1)
})

test('what is shown of a moment follows nothing any more, and a change there is a mark that lets it go on', () => {
  const shown = recipeAt(recipe, 3_000_000, wakes)
  expect(shown.follows).toEqual([])
  expect((shown.band.near + shown.band.far) / 2).toBeCloseTo(0.3, 3)
  const after = writtenAt(recipe, 3_000_000, { band })
  expect(after.marks.band).toHaveLength(1)
  expect(after.marks.band[0]?.follow).toBe(true)
})

test('a point lies where it was put by hand, else where it was tracked', () => {
  expect(placeAt(follow, frames, 0, 0)).toMatchObject({ x: 0, put: true })
  expect(placeAt(follow, frames, 50, 2)).toMatchObject({ x: 0.2, sure: 2, put: false })
  const put = putAt(putAt(follow, 2, 0.4, 0.6), 2.001, 0.5, 0.6)
  expect(put.puts).toHaveLength(2)
  expect(put.puts[1]).toMatchObject({ x: 0.5 })
})

test('stretches of doubt are told with where the point is not seen at all', () => {
  const some = [2, 1, 1, 0, 2].map((sure) => ({ x: 0, y: 0, sure, nearness: null }))
  expect(doubts(some)).toEqual([
    { from: 1, end: 3, hidden: false },
    { from: 3, end: 4, hidden: true },
  ])
})
