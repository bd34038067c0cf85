import { describe, expect, it } from 'vitest'
import type { Touchup } from '../api/client'
import {
  depthKeyOf,
  nearPicture,
  newTouchup,
  packed,
  reordered,
  resized,
  reused,
  simplified,
  straightened,
  strengthText,
  strokeOf,
  touchupsKey,
  type Point,
  type Brush,
} from './painting'

const at = (x: number, y: number, pressure = 1): Point => ({ x, y, pressure })
const brush: Brush = {
  erases: false,
  size: 0.1,
  softness: 0,
  buildUp: 1,
  cling: 0.6,
  edges: 'photo',
  pressure: 'nothing',
}

describe('strokes', () => {
  it('keep the points that say the line and drop the others', () => {
    const line = Array.from({ length: 1000 }, (_, i) => at(i / 1000, 0.5))
    expect(simplified(line, 1.5, 1e-4)).toEqual([line[0], line[999]])
    const corner = [...line, ...Array.from({ length: 500 }, (_, i) => at(0.999, 0.5 + i / 1000))]
    expect(simplified(corner, 1.5, 1e-4)).toHaveLength(3)
    // A change of pressure counts like a bend.
    const pressed = line.map((each, i) => ({ ...each, pressure: i < 500 ? 0.2 : 1 }))
    expect(simplified(pressed, 1.5, 1e-4).length).toBeGreaterThan(3)
  })

  it('survive a million points', () => {
    const many = Array.from({ length: 1_000_000 }, (_, i) => at(i / 1e6, 0.5 + 0.2 * Math.sin(i / 50_000)))
    expect(simplified(many, 1.5, 0.5 / 6000).length).toBeLessThan(1000)
  })

  it('are written in five digits', () => {
    expect(strokeOf(brush, [at(1 / 3, 2 / 3, 0.777)], 1.5, 6000).points).toEqual([0.33333, 0.66667, 0.78])
  })

  it('stay near the picture however far the pointer goes', () => {
    expect(nearPicture({ x: -40, y: 0.2 })).toEqual(at(-3, 0.2))
    expect(nearPicture({ x: 0.1, y: 9 }, 0.5)).toEqual(at(0.1, 3, 0.5))
  })

  it('are held level or upright by the way they go', () => {
    expect(straightened(at(0.5, 0.5), at(0.7, 0.55), 1.5)).toMatchObject({ x: 0.7, y: 0.5 })
    expect(straightened(at(0.5, 0.5), at(0.51, 0.9), 1.5)).toMatchObject({ x: 0.5, y: 0.9 })
  })
})

describe('the brush', () => {
  it('grows and shrinks by steps within bounds', () => {
    expect(resized(0.1, 1)).toBeCloseTo(0.115)
    expect(resized(resized(0.1, 1), -1)).toBeCloseTo(0.1, 4)
    expect(resized(0.001, -5)).toBe(0.001)
    expect(resized(1, 5)).toBe(1)
  })
})

describe('touch-ups', () => {
  const made = (action: 'focus' | 'blur' | 'reveal', all: Touchup[] = []): Touchup => newTouchup(action, all, 0.5)
  const stroked = (touchup: Touchup): Touchup => ({ ...touchup, strokes: [strokeOf(brush, [at(0.5, 0.5)], 1.5, 100)] })

  it('are named and numbered by their action', () => {
    const first = made('blur')
    expect(first.name).toBe('Blur 1')
    expect(made('blur', [first]).name).toBe('Blur 2')
    expect(made('focus', [first]).name).toBe('Focus 1')
    expect(strengthText('blur', -0.3)).toBe('30 % in front')
    expect(strengthText('focus', 1)).toBe('100 %')
  })

  it('change their order, and not beyond the ends', () => {
    const [a, b, c] = [made('focus'), made('blur'), made('reveal')]
    expect(reordered([a, b, c], b.id, -1)).toEqual([b, a, c])
    expect(reordered([a, b, c], a.id, -1)).toEqual([a, b, c])
    expect(reordered([a, b, c], c.id, 1)).toEqual([a, b, c])
  })

  it('that come back from the server as they are stay the same', () => {
    const here = [stroked(made('focus')), stroked(made('blur'))]
    const recipe = (touchups: Touchup[]) => ({ touchups }) as unknown as Parameters<typeof depthKeyOf>[0]
    const copy = JSON.parse(JSON.stringify(here)) as Touchup[]
    const changed = { ...(copy[1] as Touchup), strength: 0.7 }
    const back = reused(recipe([copy[0] as Touchup, changed]), recipe(here)).touchups
    expect(back[0]).toBe(here[0])
    expect(back[1]).toBe(changed)
  })

  it('are left out where the one who gets the recipe has them', () => {
    const recipe = (touchups: Touchup[]) => ({ opacity: 1, touchups }) as unknown as Parameters<typeof depthKeyOf>[0]
    const [a, b] = [stroked(made('focus')), stroked(made('blur'))]
    const weaker = { ...b, strength: 0.1 }
    expect(packed(recipe([a, b]), undefined)).toEqual({ recipe: recipe([a, b]) })
    expect(packed(recipe([a, weaker]), recipe([a, b]))).toEqual({ recipe: recipe([weaker]), order: [a.id, b.id] })
    expect(packed(recipe([b]), recipe([a, b]))).toEqual({ recipe: recipe([]), order: [b.id] })
    // Two of one id cannot be told apart by it.
    expect(packed(recipe([a, a]), recipe([a]))).toEqual({ recipe: recipe([a, a]) })
  })

  it('make depth anew only where they change it', () => {
    const recipe = { depth: { snap: 1 }, band: { near: 0.5 }, touchups: [] } as unknown as Parameters<
      typeof depthKeyOf
    >[0]
    const plain = depthKeyOf(recipe)
    expect(depthKeyOf({ ...recipe, touchups: [stroked(made('reveal'))] })).toBe(plain)
    expect(depthKeyOf({ ...recipe, touchups: [made('focus')] })).toBe(plain)
    const focus = [stroked(made('focus'))]
    expect(depthKeyOf({ ...recipe, touchups: focus })).not.toBe(plain)
    const moved = { ...recipe, band: { ...recipe.band, near: 0.7 } }
    expect(depthKeyOf({ ...moved, touchups: focus })).toBe(depthKeyOf({ ...recipe, touchups: focus }))
    const blur = [stroked(made('blur'))]
    expect(depthKeyOf({ ...moved, touchups: blur })).not.toBe(depthKeyOf({ ...recipe, touchups: blur }))
    expect(touchupsKey(focus)).toBe(touchupsKey(JSON.parse(JSON.stringify(focus)) as Touchup[]))
  })
})
