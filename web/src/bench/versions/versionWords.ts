import type { Recipe } from '../../api/client'
import { RECIPE_PATHS, setting, textOf, valueAt, type RecipePath } from '../../editing/settings'

type Words = { name: string; text: (recipe: Recipe) => string }

const counted = (many: number, what: string): string => `${many || 'no'} ${what}${many === 1 ? '' : 's'}`

/** Settings that are said together, or in other words than their own. */
const TOGETHER: Words[] = [
  {
    name: '',
    text: ({ aperture }) =>
      aperture.mode === 'free' ? `strength ${Math.round(aperture.strength)} %` : `f/${aperture.fNumber}`,
  },
  { name: 'band', text: ({ band }) => `${band.far.toFixed(2)} to ${band.near.toFixed(2)}` },
  { name: 'falloff', text: ({ band }) => `${band.nearFalloff.toFixed(2)}, ${band.farFalloff.toFixed(2)}` },
  { name: 'tilt', text: ({ band }) => `${band.tiltAcross.toFixed(2)}, ${band.tiltDown.toFixed(2)}` },
  { name: '', text: ({ aperture }) => `${Math.round(aperture.focalLength)} mm at ${aperture.distance} m` },
  { name: '', text: ({ disc }) => (disc.blades ? `${disc.blades} blades` : 'round disc') },
  { name: 'depth', text: ({ depth }) => depth.source },
  { name: '', text: ({ follows }) => (follows.length ? `${follows.length} followed` : 'nothing followed') },
  { name: '', text: ({ shapes }) => counted(shapes.filter((each) => each.shown).length, 'blur shape') },
  { name: '', text: ({ touchups }) => counted(touchups.filter((each) => each.shown).length, 'touch-up') },
]
const SAID = new Set<RecipePath>([
  'aperture.fNumber',
  'aperture.strength',
  'aperture.focalLength',
  'aperture.distance',
  'disc.blades',
  'band.near',
  'band.far',
  'band.nearFalloff',
  'band.farFalloff',
  'band.tiltAcross',
  'band.tiltDown',
])
const SETTINGS: Words[] = [
  ...TOGETHER,
  ...RECIPE_PATHS.filter((path) => !SAID.has(path)).map((path) => ({
    name: setting(path).called.toLowerCase(),
    text: (recipe: Recipe) => textOf(path, valueAt(recipe, path)),
  })),
]

/** For each recipe its settings that are not the same in all of them. */
export function differences(recipes: Recipe[]): string[] {
  const apart = SETTINGS.filter(({ text }) => new Set(recipes.map(text)).size > 1)
  return recipes.map((recipe) => apart.map(({ name, text }) => `${name} ${text(recipe)}`.trim()).join(' · '))
}
