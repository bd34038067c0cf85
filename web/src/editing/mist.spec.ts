import { expect, it } from 'vitest'
import { usualRecipe } from '../api/generated/settings'
import { hides } from './mist'

const dense = { ...usualRecipe.atmosphere.mist, density: 1, start: 1 }

it('hides more the farther away', () => {
  const shares = [1, 0.5, 0.2, 0].map((nearness) => hides(dense, nearness))
  expect(shares[0]).toBe(0)
  expect(shares[1]).toBeCloseTo(0.369, 2)
  expect(shares[3]).toBeCloseTo(1 - Math.exp(-4), 5)
  expect([...shares].sort((a, b) => a - b)).toEqual(shares)
})

it('begins where it is set', () => {
  expect(hides({ ...dense, start: 0.5 }, 0.5)).toBe(0)
  expect(hides({ ...dense, start: 0.5 }, 0.4)).toBeGreaterThan(0.1)
  expect(hides({ ...dense, start: 0 }, 0)).toBe(0)
  expect(hides({ ...dense, density: 0 }, 0)).toBe(0)
})
