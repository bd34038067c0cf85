import type { Band } from '../api/client'
import { NEAREST, outside, type Nearness } from './nearness'

/** How depth is shown over the picture. */
export type DepthView = 'photo' | 'zones' | 'grey'

const STEPS = 4096
const SHIFT = 4

// In front warm, behind cool: two hues that every kind of colour vision tells apart.
const NEAR = [227, 154, 78]
const FAR = [78, 140, 204]

/** One packed RGBA colour (little-endian) for each step of nearness. */
export function colours(view: DepthView, band: Band, strongest: number): Uint32Array {
  const table = new Uint32Array(STEPS)
  for (let i = 0; i < STEPS; i++) {
    const nearness = i / (STEPS - 1)
    if (view === 'grey') {
      const grey = Math.round(nearness * 255)
      table[i] = pack(grey, grey, grey, 255)
    } else if (view === 'zones') {
      const distance = outside(band, nearness)
      const tint = distance < 0 ? NEAR : FAR
      // The tint starts visibly at the band's edge and grows with the blur.
      const alpha = distance === 0 ? 0 : 50 + 150 * Math.min(1, Math.abs(distance) / strongest)
      table[i] = pack(tint[0] ?? 0, tint[1] ?? 0, tint[2] ?? 0, Math.round(alpha))
    }
  }
  return table
}

function pack(r: number, g: number, b: number, a: number): number {
  return ((a << 24) | (b << 16) | (g << 8) | r) >>> 0
}

/** Paints the map through a table of colours. */
export function paint(map: Nearness, table: Uint32Array, into: ImageData): void {
  const pixels = new Uint32Array(into.data.buffer)
  const samples = map.samples
  for (let i = 0; i < pixels.length; i++) pixels[i] = table[(samples[i] as number) >> SHIFT] as number
}

/** The largest distance from the band that occurs, at least a tenth. */
export function strongestDistance(band: Band): number {
  return Math.max(0.1, Math.abs(outside(band, 0)), Math.abs(outside(band, 1)))
}

export { NEAREST }
