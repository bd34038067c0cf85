import { describe, expect, it } from 'vitest'
import {
  levelOf,
  levelsOf,
  metresAt,
  withLevelAt,
  withMetres,
  withoutRung,
  withRung,
  withTie,
  type Rung,
} from './ladder'

const rung = (x: number, more: Partial<Rung> = {}): Rung => ({ x, y: 0.5, tied: false, metres: 0, at: 0, ...more })
const places = (rungs: readonly Rung[]): string => rungs.map((each) => `${each.tied ? '=' : ''}${each.x}`).join(' ')

describe('A ladder', () => {
  const three = [rung(1, { metres: 1 }), rung(2, { tied: true }), rung(3, { metres: 4 })]

  it('has levels of rungs that stand equally far', () => {
    expect(levelsOf(three)).toEqual([
      { numbers: [0, 1], metres: 1 },
      { numbers: [2], metres: 4 },
    ])
    expect([0, 1, 2].map((each) => levelOf(three, each))).toEqual([0, 0, 1])
  })

  it('takes a rung behind another, or as far as it', () => {
    expect(places(withRung([], rung(9), -1))).toBe('9')
    expect(places(withRung([], rung(9, { tied: true }), -1))).toBe('9')
    expect(places(withRung(three, rung(9), 0))).toBe('1 =2 9 3')
    expect(places(withRung(three, rung(9, { tied: true }), 2))).toBe('1 =2 3 =9')
  })

  it('loses a rung, and what was tied to it stays', () => {
    expect(withoutRung(three, 0)).toEqual([rung(2, { metres: 1 }), rung(3, { metres: 4 })])
    expect(places(withoutRung(three, 1))).toBe('1 3')
  })

  it('has levels put elsewhere, without a distance that contradicts the order then', () => {
    const moved = withLevelAt(three, 1, 0)
    expect(places(moved)).toBe('3 1 =2')
    expect(moved.map((each) => each.metres)).toEqual([0, 1, 0])
    expect(withLevelAt([rung(1), rung(2, { metres: 3 })], 0, 1).map((each) => each.metres)).toEqual([3, 0])
  })

  it('is tied and untied', () => {
    expect(places(withTie(three, 2, true))).toBe('1 =2 =3')
    expect(withTie(three, 2, true)[2]?.metres).toBe(0)
    expect(places(withTie(three, 1, false))).toBe('1 2 3')
    expect(places(withTie(three, 0, true))).toBe('1 =2 3')
  })

  it('refuses distances that do not grow', () => {
    expect(withMetres(three, 1, 0.5)).toBeUndefined()
    expect(withMetres(three, 0, 3)?.[0]?.metres).toBe(3)
    expect(withMetres(three, 1, 0)?.[2]?.metres).toBe(0)
  })

  it('says what nearness is in metres', () => {
    expect(metresAt({ atZero: 0.1, perNearness: 0.9 }, 1)).toBeCloseTo(1)
    expect(metresAt({ atZero: -0.1, perNearness: 1 }, 0.05)).toBe(Infinity)
  })
})
