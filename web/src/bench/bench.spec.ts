import { describe, expect, it, vi } from 'vitest'
import type { Recipe, Shot, Things, Version } from '../api/client'
import { usualRecipe } from '../api/generated/settings'
import { distanceWords } from './plan/distance'
import { guidance, isFlat, softness } from './decks/guidance'
import type { EdgeWidths, Nearness } from '../editing/nearness'
import { createPace } from './picture/pace'
import { panesOf, type Shown } from './picture/panes'
import { airy, within } from '../editing/patches'
import { draftPace } from '../editing/sight'
import { outline, unpacked } from './picture/things'
import { encoded, linear } from './picture/tone'
import { differences } from './versions/versionWords'
import { visible } from './picture/viewport'

const recipe: Recipe = {
  ...usualRecipe,
  band: { ...usualRecipe.band, near: 0.55, far: 0.45 },
  depth: { ...usualRecipe.depth, snap: 0.5 },
}
const shot = {
  id: 's',
  width: 3000,
  height: 2000,
  camera: { focalLength: 50, sensorWidth: 36, fNumber: 2, distance: 2.5 },
  depths: [
    {
      source: 'estimated',
      origin: 'learned',
      hash: 'x',
      quality: 'best',
      confidence: 0.95,
      nearMetres: 0,
      farMetres: 0,
    },
  ],
} as unknown as Shot
const map = (values: number[], width: number): Nearness => ({
  width,
  height: values.length / width,
  samples: Uint16Array.from(values.map((each) => Math.round(each * 65535))),
})

describe('distances', () => {
  it('follow from where the lens is focused', () => {
    expect(distanceWords(shot, recipe, 0.5)).toBe('about 2.5 m')
    expect(distanceWords(shot, recipe, 0.25)).toBe('about 5.0 m')
    expect(distanceWords(shot, recipe, 0)).toBe('very far')
    expect(distanceWords(shot, { ...recipe, aperture: { ...recipe.aperture, mode: 'free' } }, 0.5)).toBe('')
  })

  it('are those of the camera where it measured them, as long as nothing is trimmed', () => {
    const measured = {
      ...shot,
      depths: [{ ...shot.depths[0], source: 'camera', nearMetres: 0.5, farMetres: 10 }],
    } as Shot
    const own: Recipe = { ...recipe, depth: { ...recipe.depth, source: 'camera' } }
    expect(distanceWords(measured, own, 1)).toBe('50 cm')
    expect(distanceWords(measured, own, 0)).toBe('10 m')
    expect(distanceWords(measured, { ...own, depth: { ...own.depth, bend: 0.3 } }, 1)).toMatch(/^about/)
  })
})

describe('guidance', () => {
  const keys = (of: Shot, by: Recipe, soft?: number, depth?: Nearness) =>
    guidance(of, by, soft, depth).map((each) => each.key)

  it('says nothing about an ordinary portrait', () => {
    expect(keys(shot, recipe, 1, map([0, 1], 2))).toEqual([])
  })

  it('warns of a wide view, of blur that no lens draws, of a soft source and of a map without depth', () => {
    const wide = { ...shot, camera: { ...shot.camera, focalLength: 5, sensorWidth: 7 } } as Shot
    expect(keys(wide, recipe)).toContain('wide')
    const strong = { ...recipe, aperture: { ...recipe.aperture, focalLength: 200, fNumber: 0.5 } }
    expect(keys(shot, strong)).toContain('strong')
    expect(guidance(shot, recipe, 3.14, undefined)[0]?.text).toContain('3.1 px')
    expect(keys(shot, recipe, undefined, map([0.5, 0.5], 2))).toEqual(['flat'])
  })

  it('says so when no clear subject was found, with how sure the network is', () => {
    const unsure = { ...shot, depths: [{ ...shot.depths[0], confidence: 0.31 }] } as Shot
    expect(guidance(unsure, recipe, undefined, undefined)[0]?.text).toContain('31 % sure')
  })

  it('is silent about blur when everything is sharp', () => {
    const wide = { ...shot, camera: { ...shot.camera, focalLength: 5, sensorWidth: 7 } } as Shot
    expect(keys(wide, { ...recipe, band: { ...recipe.band, near: 1, far: 0 } }, 9)).toEqual([])
  })

  it('measures softness inside the band only, and by the sharpest quarter', () => {
    const width = 200
    const widths: EdgeWidths = {
      width,
      height: 2,
      samples: new Uint8Array(2 * width).fill(60, 0, width).fill(200, width),
    }
    const depth = map([...Array<number>(width).fill(0.9), ...Array<number>(width).fill(0.5)], width)
    expect(softness(widths, depth, recipe.band)).toBe(4)
    expect(softness(widths, depth, { ...recipe.band, near: 1, far: 0.8 })).toBe(1.2)
    expect(softness(widths, depth, { ...recipe.band, near: 0.2, far: 0.1 })).toBeUndefined()
  })

  it('knows a map of one depth', () => {
    expect(isFlat(map([0.5, 0.501], 2))).toBe(true)
    expect(isFlat(map([0.5, 0.6], 2))).toBe(false)
  })
})

describe('things', () => {
  it('are unpacked and outlined along their pixels', () => {
    const things = {
      width: 3,
      height: 2,
      labels: btoa(String.fromCharCode(0, 1, 1, 0, 2, 0)),
      things: [],
    } as unknown as Things
    const labels = unpacked(things)
    expect(Array.from(labels)).toEqual([0, 1, 1, 0, 2, 0])
    expect(outline(labels, 3, 2, 2)).toBe('M1,1H2M1,2H2M1,1V2M2,1V2')
    expect(outline(labels, 3, 2, 1)).toBe('M1,0H3M1,1H3M1,0V1M3,0V1')
  })
})

describe('versions', () => {
  it('tell only what differs between them', () => {
    const bold = { ...recipe, aperture: { ...recipe.aperture, fNumber: 1.2 }, opacity: 0.8 }
    expect(differences([recipe, bold])).toEqual(['f/2 · opacity 100 %', 'f/1.2 · opacity 80 %'])
    expect(differences([recipe, recipe])).toEqual(['', ''])
    const painted = { ...recipe, touchups: [{ shown: true }, { shown: false }] } as Recipe
    expect(differences([recipe, painted])).toEqual(['no touch-ups', '1 touch-up'])
  })

  const version = (id: string): Version => ({ id, name: id, recipe }) as unknown as Version
  const shown: Shown = {
    compare: 'none',
    holding: false,
    original: undefined,
    originalDetail: undefined,
    preview: 'newest' as unknown as ImageBitmap,
    detail: undefined,
    versions: [version('a'), version('b'), version('c')],
    version: version('b'),
    compared: ['a', 'b'],
    versionPreviews: new Map([['a', 'of a' as unknown as ImageBitmap]]),
  }
  const keysOf = (part: Partial<Shown>) => panesOf({ ...shown, ...part }).map((each) => each.key)

  it('are shown beside each other, the one that is worked on with its newest preview', () => {
    expect(panesOf({ ...shown, compare: 'versions' }).map((each) => each.whole)).toEqual(['of a', 'newest'])
    expect(keysOf({ compare: 'versions', compared: ['a'] })).toEqual(['result'])
  })

  it('give way to the original and to what is held', () => {
    expect(keysOf({ compare: 'beside' })).toEqual(['original', 'result'])
    expect(keysOf({ compare: 'beside', holding: true })).toEqual(['original'])
  })
})

describe('regions', () => {
  it('are what can be seen, with air, inside the picture', () => {
    const view = { scale: 1, x: -300, y: 20 }
    const region = visible(view, { width: 600, height: 400 }, { width: 1200, height: 200 })
    expect(region).toEqual({ x: 0.25, y: 0, width: 0.5, height: 1 })
    const more = airy(region)
    expect(within(region, more)).toBe(true)
    expect(more.y).toBe(0)
    expect(more.height).toBe(1)
    expect(within(more, region)).toBe(false)
  })
})

describe('drafts', () => {
  it('become smaller where they take too long, and larger again, within limits', () => {
    /** A machine on which a draft costs so many milliseconds a megapixel, and more the first time at a size. */
    const settled = (millisecondsOfMegapixel: number): number[] => {
      const pace = draftPace()
      const sides = []
      let before = 0
      for (let i = 0; i < 60; i++) {
        const side = pace.side()
        sides.push(side)
        const cost = 6 + (millisecondsOfMegapixel * side * side * 0.67) / 1e6
        pace.took(side === before ? cost : cost + 300)
        before = side
      }
      return sides
    }
    const quick = settled(40)
    expect(quick.at(0)).toBe(640)
    expect(quick.at(-1)).toBe(800)
    const slow = settled(300)
    expect(slow.at(-1)).toBe(320)
    const usual = settled(150)
    expect(usual.at(-1)).toBe(512)
    for (const sides of [quick, slow, usual]) expect(new Set(sides.slice(20)).size).toBe(1)
    expect(settled(2000).at(-1)).toBe(320)
    expect(settled(1).at(-1)).toBe(1024)
  })
})

describe('pace', () => {
  it('draws coarser while a drag is slow and finely once it rests', () => {
    vi.useFakeTimers()
    let at = 0
    const fine = vi.fn(() => pace.drawn())
    const pace = createPace(fine, () => at)
    const drag = (every: number, times: number) => Array.from({ length: times }, () => ((at += every), pace.drawn()))
    expect(drag(16, 10).at(-1)).toBe(1)
    expect(drag(60, 3).at(-1)).toBe(2)
    expect(drag(60, 9).at(-1)).toBe(4)
    vi.advanceTimersByTime(200)
    expect(fine).toHaveLastReturnedWith(1)
    at += 1000
    expect(pace.drawn()).toBe(1)
    vi.useRealTimers()
  })
})

describe('tone', () => {
  it('goes there and back', () => {
    for (const value of [0, 0.01, 0.3, 0.82, 1]) expect(linear(encoded(value))).toBeCloseTo(value, 9)
    expect(encoded(0.82)).toBeCloseTo(0.916, 2)
  })
})
