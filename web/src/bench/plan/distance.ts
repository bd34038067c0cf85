import type { Recipe, Schemas, Shot } from '../../api/client'
import { metresAt } from '../../editing/ladder'

const HELD = 0.05

function words(metres: number): string {
  if (metres >= 1000) return 'very far'
  if (metres < 1) return `${Math.round(metres * 100)} cm`
  return metres < 10 ? `${metres.toFixed(1)} m` : `${Math.round(metres)} m`
}

/**
 * How far away a nearness is. Rungs of the ladder tell where two of them have distances. The camera tells where it stored its map in metres; else it follows from the distance on which the
 * recipe's lens is focused, and the sharp band's middle. Empty when neither is known.
 */
export function distanceWords(shot: Shot, recipe: Recipe, nearness: number, scale?: Schemas['Scale']): string {
  if (scale) {
    const metres = metresAt(scale, nearness)
    return Number.isFinite(metres) ? words(metres) : 'very far'
  }
  const { source, flip, farEnd, nearEnd, bend } = recipe.depth
  const map = shot.depths.find((each) => each.source === source)
  const untrimmed = !recipe.depth.ladder.length && !flip && farEnd === 0 && nearEnd === 1 && bend === 0
  if (map?.nearMetres && map.farMetres && untrimmed) {
    return words(1 / (1 / map.farMetres + nearness * (1 / map.nearMetres - 1 / map.farMetres)))
  }
  const centre = (recipe.band.near + recipe.band.far) / 2
  if (recipe.aperture.mode !== 'f-number' || centre < HELD) return ''
  return nearness <= 0.002 ? 'very far' : `about ${words((recipe.aperture.distance * centre) / nearness)}`
}
