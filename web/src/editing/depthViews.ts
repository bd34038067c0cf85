import type { Band } from '../api/client'
import { NEAREST, outside, tiltAt, type Nearness } from './nearness'

/** How depth is shown over the picture. */
export type DepthView = 'photo' | 'zones' | 'contours' | 'grey' | 'check'

const STEPS = 4096
const SHIFT = 4
/** A tilted band is at most this far from any nearness. */
const MOST_TILT = 2

// In front warm, behind cool: two hues that every kind of colour vision tells apart.
export const NEAR = [227, 154, 78] as const
export const FAR = [78, 140, 204] as const
export const INSIDE = [143, 185, 150] as const
/** Nearness from one contour line to the next. */
export const CONTOUR = 0.05

/** Packed RGBA colours (little-endian) of nearness from -2 to 3, less the band's tilt. */
export function colours(view: DepthView, band: Band, strongest: number): Uint32Array {
  const table = new Uint32Array(STEPS * (1 + 2 * MOST_TILT))
  for (let i = 0; i < table.length; i++) {
    const nearness = i / (STEPS - 1) - MOST_TILT
    if (view === 'grey') {
      const grey = Math.round(Math.min(1, Math.max(0, nearness)) * 255)
      table[i] = pack(grey, grey, grey, 255)
    } else if (view === 'zones') {
      const distance = outside(band, nearness)
      const tint = distance < 0 ? NEAR : FAR
      // The tint starts visibly at the band's edge and grows with the blur.
      const alpha = distance === 0 ? 0 : 50 + 150 * Math.min(1, Math.abs(distance) / strongest)
      table[i] = pack(tint[0], tint[1], tint[2], Math.round(alpha))
    }
  }
  return table
}

function pack(r: number, g: number, b: number, a: number): number {
  return ((a << 24) | (b << 16) | (g << 8) | r) >>> 0
}

/** Paints the map through a table of colours; for browsers that cannot draw it themselves. */
export function paint(map: Nearness, table: Uint32Array, band: Band, view: DepthView, into: ImageData): void {
  const pixels = new Uint32Array(into.data.buffer)
  const samples = map.samples
  const level = view === 'grey' || (!band.tiltAcross && !band.tiltDown)
  for (let y = 0, i = 0; y < map.height; y++) {
    for (let x = 0; x < map.width; x++, i++) {
      const tilt = level ? 0 : tiltAt(band, (x + 0.5) / map.width, (y + 0.5) / map.height)
      pixels[i] = table[((samples[i] as number) >> SHIFT) + Math.round((MOST_TILT - tilt) * (STEPS - 1))] as number
    }
  }
}

/** The largest distance from the band that occurs, at least a tenth. */
export function strongestDistance(band: Band): number {
  return Math.max(0.1, Math.abs(outside(band, 0)), Math.abs(outside(band, 1)))
}

export { NEAREST }
