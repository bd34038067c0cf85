import type { Recipe } from '../api/client'

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

/** The edge of the disc as an SVG path around (0, 0) with the area of a circle of `radius`. */
export function discPath(blades: number, curvature: number, turn: number, radius: number): string {
  const edge = (angle: number): number => {
    if (blades === 0) return 1
    const sector = (2 * Math.PI) / blades
    const along = angle - (turn * Math.PI) / 180 + Math.PI / 2
    const within = along - sector * Math.floor(along / sector) - sector / 2
    const straight = Math.cos(sector / 2) / Math.cos(within)
    return straight + curvature * (1 - straight)
  }
  const angles = Array.from({ length: 240 }, (_, i) => (2 * Math.PI * i) / 240)
  const mean = Math.sqrt(angles.reduce((sum, angle) => sum + edge(angle) ** 2, 0) / angles.length)
  const points = angles.map((angle) => {
    const r = (edge(angle) / mean) * radius
    return `${(r * Math.cos(angle)).toFixed(2)},${(r * Math.sin(angle)).toFixed(2)}`
  })
  return `M${points.join('L')}Z`
}
