import { describe, expect, it, test } from 'vitest'
import { usualRecipe } from '../api/generated/settings'
import { eased } from './ease'
import {
  frameOf,
  movedMarks,
  ofFrame,
  raisedMarks,
  recipeAt,
  within,
  withMark,
  withoutMarks,
  withPull,
  writtenAt,
} from './moments'
import { recipeKey } from './painting'
import { LATEST } from './span'

const band = (near: number, far: number) => ({ ...usualRecipe.band, near, far })
const seconds = (value: number): number => value * 1e6
/** Focus is pulled from one second to three. */
const pulled = writtenAt(writtenAt(usualRecipe, seconds(1), { band: band(0.9, 0.7) }), seconds(3), {
  band: band(0.3, 0.2),
})

describe('eases', () => {
  it('go as the server has them', () => {
    // 3t²-2t³ at a quarter.
    expect(eased('smooth', [], 0.25)).toBeCloseTo(0.15625, 12)
    expect(eased('straight', [], 0.3)).toBe(0.3)
    expect([eased('hold', [], 0.99), eased('hold', [], 1)]).toEqual([0, 1])
  })

  it('go through what was drawn and never swing over it', () => {
    const curve = [
      { along: 0.2, way: 0.7 },
      { along: 0.6, way: 0.7 },
      { along: 0.8, way: 0.1 },
    ]
    expect(eased('drawn', curve, 0.2)).toBeCloseTo(0.7, 12)
    expect(eased('drawn', curve, 0.4)).toBeCloseTo(0.7, 12)
    for (let t = 0; t <= 1; t += 0.01) {
      const way = eased('drawn', curve, t)
      expect(way).toBeGreaterThanOrEqual(0)
      expect(way).toBeLessThanOrEqual(1)
    }
  })
})

describe('a recipe at a moment', () => {
  it('has the band of its marks, between them by the ease', () => {
    const half = recipeAt(pulled, seconds(2))
    expect(half.band.near).toBeCloseTo(0.6, 12)
    expect(half.band.far).toBeCloseTo(0.45, 12)
    expect(half.marks.band).toEqual([])
    expect(recipeAt(pulled, 0).band.near).toBe(0.9)
    expect(recipeAt(pulled, seconds(9)).band.near).toBe(0.3)
  })

  it('has an iris that moves in stops', () => {
    const marks = {
      ...usualRecipe.marks,
      aperture: [
        { at: 0, ease: 'straight' as const, curve: [], fNumber: 2, strength: 20 },
        { at: 2, ease: 'straight' as const, curve: [], fNumber: 8, strength: 40 },
      ],
    }
    const half = recipeAt({ ...usualRecipe, marks }, seconds(1))
    expect(half.aperture.fNumber).toBeCloseTo(4, 12)
    expect(half.aperture.strength).toBe(30)
  })

  it('is told apart from the same at another frame', () => {
    const a = ofFrame(recipeAt(usualRecipe, 0), 0)
    const b = ofFrame(recipeAt(usualRecipe, 0), 7)
    expect(recipeKey(a)).not.toBe(recipeKey(b))
    expect([frameOf(b), frameOf(usualRecipe)]).toEqual([7, 0])
  })
})

describe('changing a clip at a moment', () => {
  it('makes a mark of the band, and replaces the one that lies there', () => {
    expect(pulled.marks.band.map((each) => each.at)).toEqual([1, 3])
    const again = writtenAt(pulled, seconds(3), { band: band(0.4, 0.2) })
    expect(again.marks.band.map((each) => each.near)).toEqual([0.9, 0.4])
  })

  it('goes for the whole clip where a value has no marks', () => {
    const changed = writtenAt(usualRecipe, seconds(1), { opacity: 0.5 })
    expect([changed.opacity, changed.marks.opacity]).toEqual([0.5, []])
  })
})

test('marks are moved together, copied, and never beyond the clip', () => {
  const both = [
    { kind: 'band' as const, at: 1 },
    { kind: 'band' as const, at: 3 },
  ]
  expect(movedMarks(pulled.marks, both, 0.5, 3.2, false).marks.band.map((each) => each.at)).toEqual([1.5, 3.2])
  const copied = movedMarks(pulled.marks, both.slice(0, 1), 1, 4, true)
  expect(copied.marks.band.map((each) => each.at)).toEqual([1, 2, 3])
  expect(copied.chosen).toEqual([{ kind: 'band', at: 2 }])
})

test('the values of the last mark that is removed stay in the recipe', () => {
  const one = withoutMarks(pulled, [{ kind: 'band', at: 1 }])
  expect(one.marks.band).toHaveLength(1)
  const none = withoutMarks(one, [{ kind: 'band', at: 3 }])
  expect([none.marks.band, none.band.near]).toEqual([[], 0.3])
})

test('the values of marks are raised and lowered, and a band keeps its depth at the ends', () => {
  const both = pulled.marks.band.map(({ at }) => ({ kind: 'band' as const, at }))
  const raised = raisedMarks(pulled.marks, both.slice(0, 1), 0.5, false).band
  expect(raised[0]?.near).toBe(1)
  expect((raised[0]?.near ?? 0) - (raised[0]?.far ?? 0)).toBeCloseTo(
    (pulled.marks.band[0]?.near ?? 0) - (pulled.marks.band[0]?.far ?? 0),
  )
  expect(raised[1]).toEqual(pulled.marks.band[1])
  const iris = { at: 1, ease: 'smooth' as const, curve: [], fNumber: 4, strength: 30 }
  const marks = { ...usualRecipe.marks, aperture: [iris] }
  const chosen = [{ kind: 'aperture' as const, at: 1 }]
  expect(raisedMarks(marks, chosen, 0.1, false).aperture[0]?.fNumber).toBeLessThan(4)
  expect(raisedMarks(marks, chosen, 0.1, true).aperture[0]).toMatchObject({ fNumber: 4, strength: 40 })
})

test('an end of the time in which a touch-up acts takes the other end along when it passes it', () => {
  const span = { from: 1, to: 2, fade: 0.2 }
  expect(within(span, { from: 1.5 })).toEqual({ from: 1.5, to: 2, fade: 0.2 })
  expect(within(span, { from: 3 })).toEqual({ from: 3, to: LATEST, fade: 0.2 })
  expect(within(span, { to: 0.5 })).toEqual({ from: 0, to: 0.5, fade: 0.2 })
})

test('a pull is two smooth marks, whichever was clicked first, and what lay between them goes', () => {
  const near = { ...usualRecipe.band, near: 0.9, far: 0.8 }
  const far = { ...usualRecipe.band, near: 0.3, far: 0.2 }
  const before = withMark(withMark(usualRecipe.marks, 'band', 0, near), 'band', 2, far)
  const after = withPull(before, { at: 3, band: far }, { at: 1, band: near }).band
  expect(after.map(({ at, near: edge, ease }) => [at, edge, ease])).toEqual([
    [0, 0.9, 'smooth'],
    [1, 0.9, 'smooth'],
    [3, 0.3, 'smooth'],
  ])
})
