import type { Recipe } from '../../api/client'

const FULL_STRENGTH = 0.06
const LEAST_FOCUS_NEARNESS = 0.05

/** Blur radius in pixels per unit of nearness outside the band; the formula of the server's lens. */
export function radiusPerNearness(recipe: Recipe, width: number, height: number): number {
  const lens = recipe.aperture
  if (lens.mode === 'free') return (lens.strength / 100) * FULL_STRENGTH * Math.hypot(width, height)
  const share = lens.focalLength ** 2 / (lens.fNumber * (lens.distance * 1000 - lens.focalLength) * lens.sensorWidth)
  const centre = (recipe.band.near + recipe.band.far) / 2
  return ((share / 2) * Math.max(width, height)) / Math.max(LEAST_FOCUS_NEARNESS, centre)
}

/** The free strength that blurs as much as the lens does; over 100 there is none. */
export function strengthLike(recipe: Recipe, width: number, height: number): number {
  const k = radiusPerNearness({ ...recipe, aperture: { ...recipe.aperture, mode: 'f-number' } }, width, height)
  return (100 * k) / (FULL_STRENGTH * Math.hypot(width, height))
}

/** Diameter of a point at infinity as a share of the picture's longer side. */
function shareAtInfinity(recipe: Recipe, width: number, height: number): number {
  const centre = Math.max(LEAST_FOCUS_NEARNESS, (recipe.band.near + recipe.band.far) / 2)
  return (2 * radiusPerNearness(recipe, width, height) * centre) / Math.max(width, height)
}

/** The f-number that blurs as much as the recipe does, with its focal length, sensor and distance. */
export function fNumberLike(recipe: Recipe, width: number, height: number): number {
  return fNumberAt(recipe, shareAtInfinity(recipe, width, height), recipe.aperture.focalLength)
}

/** The same with another focal length, from as far away as gives the same view of what is sharp. */
function fNumberAt(recipe: Recipe, share: number, focalLength: number): number {
  const { distance, sensorWidth, focalLength: own } = recipe.aperture
  const metres = (distance * focalLength) / own
  return focalLength ** 2 / (share * (metres * 1000 - focalLength) * sensorWidth)
}

/** The fastest lenses that are made for a sensor 36 mm wide: from this focal length on, this f-number. */
const FASTEST = [
  [0, 2.8],
  [14, 1.8],
  [20, 1.4],
  [28, 1.2],
  [35, 0.95],
  [58, 1.2],
  [86, 1.4],
  [110, 1.8],
  [150, 2],
  [250, 2.8],
  [450, 4],
  [900, 8],
] as const
const USUAL = [24, 35, 50, 85, 105, 135, 200, 300, 400, 600]

/** The smallest f-number that is made at a focal length; smaller sensors get faster lenses in proportion, down to 0.95. */
export function fastest(focalLength: number, sensorWidth: number): number {
  const crop = Math.max(1, 36 / sensorWidth)
  const found = FASTEST.filter(([from]) => focalLength * crop >= from).at(-1) ?? FASTEST[0]
  return Math.max(0.95, found[1] / crop)
}

/** What real lens would draw a recipe's blur. */
export interface Reality {
  line: string
  /** A plain warning; empty when such a lens is made. */
  warning: string
}

const metresText = (metres: number): string => (metres < 10 ? metres.toFixed(1) : metres.toFixed(0))
const numberText = (n: number): string => (n < 10 ? n.toFixed(1) : n.toFixed(0))

export function reality(recipe: Recipe, width: number, height: number): Reality {
  const { focalLength, sensorWidth, distance } = recipe.aperture
  const share = shareAtInfinity(recipe, width, height)
  if (share === 0) return { line: 'No blur at all: a pinhole', warning: '' }
  const own = fNumberAt(recipe, share, focalLength)
  const uneven = recipe.gain.front !== recipe.gain.behind
  const sides = uneven ? 'No lens blurs its two sides unevenly.' : ''
  if (own >= fastest(focalLength, sensorWidth) * 0.99) {
    return {
      line: `Like ${numberText(focalLength)} mm f/${numberText(own)} at ${metresText(distance)} m`,
      warning: sides,
    }
  }
  const scale = sensorWidth / 36
  for (const usual of USUAL.map((each) => each * scale).filter((each) => each > focalLength)) {
    const wanted = fNumberAt(recipe, share, usual)
    if (wanted >= fastest(usual, sensorWidth)) {
      const away = metresText((distance * usual) / focalLength)
      return {
        line: `Like ${numberText(usual)} mm f/${numberText(wanted)} from ${away} m`,
        warning: sides || `No ${numberText(focalLength)} mm lens opens to f/${own.toFixed(2)}.`,
      }
    }
  }
  return {
    line: `Would take ${numberText(focalLength)} mm f/${own.toFixed(2)} at ${metresText(distance)} m`,
    warning: 'No lens blurs this much at this framing.',
  }
}
