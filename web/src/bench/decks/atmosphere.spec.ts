// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, it, vi } from 'vitest'
import { usualRecipe } from '../../api/generated/settings'
import { useBench } from '../../stores/bench'
import AtmosphereDeck from './AtmosphereDeck.vue'

beforeEach(() => setActivePinia(createPinia()))

function deck() {
  const bench = useBench()
  const { mist } = usualRecipe.atmosphere
  bench.stored = { ...usualRecipe, atmosphere: { ...usualRecipe.atmosphere, mist: { ...mist, source: 'picked' } } }
  const commit = vi.spyOn(bench, 'commit').mockImplementation(() => undefined)
  const mounted = mount(AtmosphereDeck, { global: { stubs: { 'v-btn': { template: '<button><slot /></button>' } } } })
  return { bench, commit, mounted }
}

it('takes a picked colour as linear light', async () => {
  const { commit, mounted } = deck()
  const field = mounted.get('input[type=color]')
  ;(field.element as HTMLInputElement).value = '#ff8000'
  await field.trigger('change')
  const [step, change] = commit.mock.calls[0] as [string, { atmosphere: typeof usualRecipe.atmosphere }]
  expect(step).toBe('Colour of the mist')
  const { source, red, green, blue } = change.atmosphere.mist
  expect([source, red, blue]).toEqual(['picked', 1, 0])
  expect(green).toBeCloseTo(0.2159, 3)
})

it('says of a step which side it changes and leaves the other as it is', async () => {
  const { commit, mounted } = deck()
  const warmth = mounted.findAll('input[aria-label=Warmth]')[1]
  if (!warmth) throw new Error('there is no second one')
  ;(warmth.element as HTMLInputElement).value = '0.4'
  await warmth.trigger('change')
  const [step, change] = commit.mock.calls.at(-1) as [string, { atmosphere: typeof usualRecipe.atmosphere }]
  expect(step).toBe('Warmth behind')
  expect(change.atmosphere.behind.warmth).toBe(0.4)
  expect(change.atmosphere.front).toEqual(usualRecipe.atmosphere.front)
})
