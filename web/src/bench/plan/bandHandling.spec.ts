// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it } from 'vitest'
import { ref } from 'vue'
import type { Shot, Version } from '../../api/client'
import { usualRecipe } from '../../api/generated/settings'
import { useBench } from '../../stores/bench'
import { useBandHandling } from './bandHandling'
import { usePlanScale } from './planScale'

const HEIGHT = 400
const band = { near: 0.6, far: 0.4, nearFalloff: 0.1, farFalloff: 0.1, tiltAcross: 0, tiltDown: 0 }

function plan() {
  const bench = useBench()
  bench.shot = { id: 's', width: 3000, height: 2000, depths: [] } as unknown as Shot
  bench.version = { id: 'v', recipe: { ...usualRecipe, band }, shotId: 's', history: [] } as unknown as Version
  bench.stored = { ...usualRecipe, band }
  const root = ref<HTMLElement>(document.createElement('div'))
  root.value.setPointerCapture = () => undefined
  const scale = usePlanScale(ref({ width: 250, height: HEIGHT }))
  return { bench, scale, handling: useBandHandling(root, scale) }
}

/** From the farthest to the nearest alike. */
function map() {
  return { width: 100, height: 100, samples: Uint16Array.from({ length: 10000 }, (_, i) => (i / 9999) * 65535) }
}

const at = (y: number, x = 50) => new PointerEvent('pointer', { clientX: x, clientY: y, button: 0, pointerId: 1 })

describe('the band in the plan', () => {
  beforeEach(() => setActivePinia(createPinia()))

  it('has no place, and cannot be taken hold of, before there is a map', () => {
    const { bench, scale, handling } = plan()
    expect(scale.band.value).toBeUndefined()
    handling.down(at(200))
    expect(handling.dragged.value).toBeUndefined()
    bench.nearness = map()
    expect(scale.band.value).toEqual(band)
  })

  it('is moved as a whole, by either edge, and by its falloffs', () => {
    for (const [grip, from, expected] of [
      ['slab', 0.5, { near: 0.7, far: 0.5 }],
      ['near', 0.6, { near: 0.7, far: 0.4 }],
      ['far', 0.4, { near: 0.6, far: 0.5 }],
      ['nearFalloff', 0.7, { near: 0.6, nearFalloff: 0.2 }],
    ] as const) {
      const { bench, scale, handling } = plan()
      bench.nearness = map()
      handling.down(at(scale.y(from)))
      expect(handling.dragged.value).toBe(grip)
      handling.move(at(scale.y(from) + 2))
      expect(bench.recipe?.band, 'less than a drag').toEqual(band)
      handling.move(at(scale.y(from + 0.1)))
      for (const [name, value] of Object.entries(expected))
        expect(bench.recipe?.band[name as keyof typeof band], `${grip}: ${name}`).toBeCloseTo(value, 6)
      setActivePinia(createPinia())
    }
  })

  it('goes back when a drag is called off', () => {
    const { bench, scale, handling } = plan()
    bench.nearness = map()
    handling.down(at(scale.y(0.5)))
    handling.move(at(scale.y(0.8)))
    expect(bench.recipe?.band.near).toBeGreaterThan(0.7)
    handling.cancel()
    expect(bench.recipe?.band).toEqual(band)
  })

  it('keeps its width where a click puts it, and by keys', () => {
    const { bench, scale, handling } = plan()
    bench.nearness = map()
    handling.down(at(scale.y(0.2)))
    handling.up()
    expect(bench.recipe?.band).toMatchObject({ near: expect.closeTo(0.3), far: expect.closeTo(0.1) })
    handling.key(new KeyboardEvent('keydown', { key: 'ArrowDown', shiftKey: true }))
    expect(bench.recipe?.band).toMatchObject({ near: expect.closeTo(0.35), far: expect.closeTo(0.15) })
  })
})
