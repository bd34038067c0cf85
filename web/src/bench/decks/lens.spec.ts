import { describe, expect, it } from 'vitest'
import type { Recipe } from '../../api/client'
import { brightness, discPixels, outline, type Disc } from './disc'
import { fastest, fNumberLike, radiusPerNearness, reality, strengthLike } from './lens'

const EVEN: Disc = { blades: 0, curvature: 0, turn: 0, rim: 0, hollow: 0, squeeze: 0, stretch: 1 }

const recipe = (aperture: Partial<Recipe['aperture']>): Recipe =>
  ({
    band: { near: 0.55, far: 0.45, nearFalloff: 0, farFalloff: 0 },
    gain: { front: 1, behind: 1 },
    aperture: {
      mode: 'f-number',
      fNumber: 2,
      focalLength: 50,
      sensorWidth: 36,
      distance: 2.5,
      strength: 35,
      ...aperture,
    },
  }) as Recipe

describe('the lens and the free strength', () => {
  it('say of each other what blurs as much', () => {
    const strength = strengthLike(recipe({}), 6000, 4000)
    const free = recipe({ mode: 'free', strength })
    expect(radiusPerNearness(free, 6000, 4000)).toBeCloseTo(radiusPerNearness(recipe({}), 6000, 4000), 6)
    expect(fNumberLike(free, 6000, 4000)).toBeCloseTo(2, 6)
    expect(fNumberLike(recipe({}), 6000, 4000)).toBeCloseTo(2, 6)
  })
})

describe('what real lens would draw it', () => {
  it('names the lens that is set when it is made', () => {
    expect(reality(recipe({}), 6000, 4000)).toEqual({ line: 'Like 50 mm f/2.0 at 2.5 m', warning: '' })
  })

  it('finds a longer lens of the same framing when none is fast enough', () => {
    // By hand: 50 mm f/0.7 at 2.5 m draws 2500 / (0.7 * 2450 * 36) = 4.05 % of the width; 85 mm from 4.25 m needs
    // 7225 / (0.0405 * 4165 * 36) = f/1.19, 105 mm from 5.25 m f/1.47.
    const found = reality(recipe({ fNumber: 0.7 }), 6000, 4000)
    expect(found.line).toBe('Like 105 mm f/1.5 from 5.3 m')
    expect(found.warning).toContain('No 50 mm lens opens to f/0.70')
  })

  it('says plainly when no lens blurs so much', () => {
    expect(
      reality(recipe({ mode: 'free', strength: 100, focalLength: 24, distance: 20 }), 6000, 4000).warning,
    ).toContain('No lens blurs this much')
    const uneven = { ...recipe({}), gain: { front: 0.5, behind: 1 } }
    expect(reality(uneven, 6000, 4000).warning).toContain('unevenly')
    expect(reality(recipe({ mode: 'free', strength: 0 }), 6000, 4000).line).toContain('No blur')
  })

  it('knows that small sensors have faster lenses', () => {
    expect(fastest(50, 36)).toBe(0.95)
    expect(fastest(200, 36)).toBe(2)
    expect(fastest(7, 7)).toBe(0.95)
  })
})

describe('the picture of the disc', () => {
  const centre = { x: 0, y: 0 }
  const at = (disc: Disc, x: number, y: number, place = centre) => brightness(disc, outline(disc), place, x, y)

  it('keeps the area of blades and stretch', () => {
    for (const disc of [EVEN, { ...EVEN, blades: 5 }, { ...EVEN, blades: 7, curvature: 0.4, stretch: 1.6 }]) {
      const edge = outline(disc)
      let area = 0
      for (let i = 0; i < 720; i++) area += (edge((Math.PI * i) / 360) ** 2 * Math.PI) / 720
      expect(area).toBeCloseTo(Math.PI, 1)
    }
  })

  it('is bright at an outlined rim, dark in a hollow middle, cut at the corner', () => {
    expect(at({ ...EVEN, rim: 1 }, 0.98, 0)).toBeGreaterThan(1.7)
    expect(at({ ...EVEN, rim: 1 }, 0, 0)).toBeCloseTo(0.1)
    expect(at({ ...EVEN, hollow: 0.5 }, 0.3, 0)).toBe(0)
    const corner = { x: 1, y: 0 }
    expect(at({ ...EVEN, squeeze: 0.8 }, 0.9, 0, corner)).toBe(0)
    expect(at({ ...EVEN, squeeze: 0.8 }, 0, 0.7, corner)).toBe(1)
    expect(at({ ...EVEN, squeeze: 0.8 }, 0.9, 0)).toBe(1)
  })

  it('is drawn as grey pixels with a dark surround', () => {
    const pixels = discPixels(EVEN, centre, 32)
    expect(pixels[0]).toBe(0)
    expect(pixels[(16 * 32 + 16) * 4]).toBeGreaterThan(150)
  })
})
