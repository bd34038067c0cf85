import { describe, expect, it } from 'vitest'
import { usualRecipe } from '../api/generated/settings'
import { changed, control, RECIPE_PATHS, setting, textOf, valueAt } from './settings'

describe('the settings of a recipe', () => {
  it('are found and changed by their paths, and nothing else with them', () => {
    expect(valueAt(usualRecipe, 'disc.stretch')).toBe(1)
    expect(valueAt(usualRecipe, 'opacity')).toBe(1)
    expect(changed(usualRecipe, 'opacity', 0.4)).toEqual({ opacity: 0.4 })
    expect(changed(usualRecipe, 'disc.rim', -0.5)).toEqual({ disc: { ...usualRecipe.disc, rim: -0.5 } })
  })

  it('all begin with their default, within their range, and have a name and a text', () => {
    for (const path of RECIPE_PATHS) {
      const { least, most, usual, called } = setting(path)
      expect(valueAt(usualRecipe, path), path).toBe(usual)
      expect(usual >= least && usual <= most, path).toBe(true)
      expect(called, path).not.toBe('')
      expect(textOf(path, usual), path).toMatch(/\d/)
    }
  })

  it('tell a control all that it needs', () => {
    expect(control('disc.turn')).toMatchObject({
      label: 'Turn',
      hint: 'How far the blades are turned',
      least: 0,
      most: 360,
      step: 1,
    })
    expect(textOf('disc.turn', 12.4)).toBe('12°')
    expect(textOf('glints.strength', 0.25)).toBe('25 %')
    expect(setting('depth.snap').usualBy).toEqual({ estimated: 1, camera: 0.5, file: 0 })
  })
})
