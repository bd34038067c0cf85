// @vitest-environment happy-dom
import { mount } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { usualRecipe } from '../../api/generated/settings'
import { useBench } from '../../stores/bench'
import Dial from './Dial.vue'
import { apertureScale } from './dial'
import NumberField from './NumberField.vue'
import SettingField from './SettingField.vue'
import SettingSlider from './SettingSlider.vue'

function field(value = 50) {
  const mounted = mount(NumberField, {
    props: { value, label: 'Focal length', hint: 'Of the lens', least: 1, most: 2000, unit: 'mm' },
  })
  return { mounted, input: mounted.get('input'), sent: () => mounted.emitted('commit') }
}

describe('a number field', () => {
  it('takes a number when it is left, with a comma too', async () => {
    const { input, sent } = field()
    await input.setValue('85,4')
    expect(sent()).toEqual([[85.4]])
  })

  it('holds what is typed within its limits and forgets what is no number', async () => {
    const { input, sent } = field()
    await input.setValue('9000')
    expect(sent()).toEqual([[2000]])
    await input.setValue('wide')
    expect(sent()).toHaveLength(1)
    expect((input.element as HTMLInputElement).value).toBe('50')
  })

  it('goes up and down by keys, ten times as far with Shift', async () => {
    const { input, sent } = field()
    await input.trigger('keydown', { key: 'ArrowUp' })
    await input.trigger('keydown', { key: 'ArrowDown', shiftKey: true })
    expect(sent()).toEqual([[51], [40]])
  })

  it('shows its name, its hint and its unit', () => {
    const { mounted, input } = field()
    expect(mounted.text()).toContain('mm')
    expect(mounted.attributes('title')).toBe('Of the lens')
    expect(input.attributes('aria-label')).toBe('Focal length')
  })
})

describe('a dial', () => {
  it('is a slider for keys and screen readers', async () => {
    const mounted = mount(Dial, { props: { value: 2, scale: apertureScale, label: 'aperture', hint: 'The f-number' } })
    expect(mounted.attributes()).toMatchObject({ role: 'slider', 'aria-valuetext': 'f/2', 'aria-valuemin': '0.7' })
    await mounted.trigger('keydown', { key: 'ArrowUp' })
    const next = (mounted.emitted('commit') as number[][])[0]?.[0]
    expect(next).toBeGreaterThan(2)
    await mounted.trigger('keydown', { key: 'End' })
    expect(mounted.emitted('commit')?.at(-1)).toEqual([22])
    await mounted.trigger('keydown', { key: 'a' })
    expect(mounted.emitted('commit')).toHaveLength(2)
  })
})

describe('controls of the recipe', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    useBench().stored = usualRecipe
  })

  it('take range, name, hint and text from the declaration', () => {
    const slider = mount(SettingSlider, { props: { path: 'disc.hollow' } })
    expect(slider.get('input').attributes()).toMatchObject({ min: '0', max: '0.8', 'aria-label': 'Hollow' })
    expect(slider.attributes('title')).toMatch(/^Radius of the dark middle/)
    expect(slider.text()).toContain('0 %')
  })

  it('show while they are dragged and make a step when they are let go', async () => {
    const bench = useBench()
    const live = vi.spyOn(bench, 'live')
    const commit = vi.spyOn(bench, 'commit')
    const input = mount(SettingSlider, { props: { path: 'gain.behind', label: 'Behind', most: 2 } }).get('input')
    ;(input.element as HTMLInputElement).value = '1.5'
    await input.trigger('input')
    expect(live).toHaveBeenCalledWith({ gain: { front: 1, behind: 1.5 } })
    await input.trigger('change')
    expect(commit).toHaveBeenCalledWith('Blur behind', { gain: { front: 1, behind: 1.5 } })
  })

  it('let more follow a value where it has to', async () => {
    const commit = vi.spyOn(useBench(), 'commit')
    const change = (value: number) => ({ band: { ...usualRecipe.band, near: value, far: value } })
    await mount(SettingField, { props: { path: 'band.near', digits: 2, change } })
      .get('input')
      .setValue('0.4')
    expect(commit).toHaveBeenCalledWith('Near edge', { band: { ...usualRecipe.band, near: 0.4, far: 0.4 } })
  })
})
