import type { Recipe } from '../../api/client'

type Setting = { name: string; text: (recipe: Recipe) => string }

const percent = (value: number): string => `${Math.round(value * 100)} %`

const counted = (touchups: number): string => `${touchups || 'no'} touch-up${touchups === 1 ? '' : 's'}`

const SETTINGS: Setting[] = [
  { name: '', text: ({ aperture }) => (aperture.mode === 'free' ? `strength ${Math.round(aperture.strength)} %` : `f/${aperture.fNumber}`) },
  { name: 'band', text: ({ band }) => `${band.far.toFixed(2)} to ${band.near.toFixed(2)}` },
  { name: 'falloff', text: ({ band }) => `${band.nearFalloff.toFixed(2)}, ${band.farFalloff.toFixed(2)}` },
  { name: 'tilt', text: ({ band }) => `${band.tiltAcross.toFixed(2)}, ${band.tiltDown.toFixed(2)}` },
  { name: '', text: ({ aperture }) => `${Math.round(aperture.focalLength)} mm at ${aperture.distance} m` },
  { name: 'in front', text: ({ gain }) => percent(gain.front) },
  { name: 'behind', text: ({ gain }) => percent(gain.behind) },
  { name: '', text: ({ disc }) => (disc.blades ? `${disc.blades} blades` : 'round disc') },
  { name: 'rim', text: ({ disc }) => disc.rim.toFixed(2) },
  { name: 'hollow', text: ({ disc }) => percent(disc.hollow) },
  { name: 'squeeze', text: ({ disc }) => percent(disc.squeeze) },
  { name: 'stretch', text: ({ disc }) => disc.stretch.toFixed(2) },
  { name: 'glints', text: ({ glints }) => percent(glints) },
  { name: 'opacity', text: ({ opacity }) => percent(opacity) },
  { name: 'depth', text: ({ depth }) => depth.source },
  { name: '', text: ({ touchups }) => counted(touchups.filter((each) => each.shown).length) },
]

/** For each recipe its settings that are not the same in all of them. */
export function differences(recipes: Recipe[]): string[] {
  const apart = SETTINGS.filter(({ text }) => new Set(recipes.map(text)).size > 1)
  return recipes.map((recipe) => apart.map(({ name, text }) => `${name} ${text(recipe)}`.trim()).join(' · '))
}
