import type { Band } from '../api/client'

/** Nearness of every pixel, 0 farthest to 65535 nearest. */
export type Nearness = { width: number; height: number; samples: Uint16Array }

export const NEAREST = 65535

/** Width of the photo's own edges in fiftieths of a pixel; 0 where there is none. */
export type EdgeWidths = { width: number; height: number; samples: Uint8Array }

/** Two little-endian integers, width and height, then one 16-bit sample for each pixel. */
export function decodeNearness(bytes: ArrayBuffer): Nearness {
  const head = new DataView(bytes)
  const width = head.getUint32(0, true)
  const height = head.getUint32(4, true)
  if (bytes.byteLength !== 8 + 2 * width * height) throw new Error('the depth map is incomplete')
  return { width, height, samples: new Uint16Array(bytes, 8) }
}

/** One byte for each pixel: how sure the estimate is there, 255 for quite. */
export type Sure = EdgeWidths

export function decodeEdgeWidths(bytes: ArrayBuffer): EdgeWidths {
  const head = new DataView(bytes)
  return { width: head.getUint32(0, true), height: head.getUint32(4, true), samples: new Uint8Array(bytes, 8) }
}

/** How much nearer than in the middle the band lies at a place, in shares of width and height. */
export function tiltAt(band: Band, x: number, y: number): number {
  return band.tiltAcross * (2 * x - 1) + band.tiltDown * (2 * y - 1)
}

/** Nearness in [0,1] at shares of width and height. */
export function nearnessAt(map: Nearness, x: number, y: number): number {
  const px = Math.min(map.width - 1, Math.max(0, Math.floor(x * map.width)))
  const py = Math.min(map.height - 1, Math.max(0, Math.floor(y * map.height)))
  return (map.samples[py * map.width + px] ?? 0) / NEAREST
}

/** Signed distance outside the band after the falloff: positive behind, negative in front; as the server computes it. */
export function outside(band: Band, nearness: number): number {
  if (nearness > band.near) return -eased(nearness - band.near, band.nearFalloff)
  if (nearness < band.far) return eased(band.far - nearness, band.farFalloff)
  return 0
}

function eased(distance: number, falloff: number): number {
  return distance < falloff ? (distance * distance) / (2 * falloff) : distance - falloff / 2
}

/** A plane at or beyond an end of the map: all of the picture lies on one side of it. */
export function coversNothing(band: Band): boolean {
  return band.near === band.far && (band.far >= 1 || band.near <= 0)
}

export function coversEverything(band: Band): boolean {
  return band.near >= 1 && band.far <= 0
}

/** How much of the picture lies at each nearness from `far` to `near`: `bins` shares, the fullest being 1. */
export function histogram(map: Nearness, bins: number, far = 0, near = 1): Float32Array {
  const counts = new Float32Array(bins)
  const scale = bins / (near - far)
  for (const sample of map.samples) {
    const bin = Math.floor((sample / (NEAREST + 1) - far) * scale)
    if (bin >= 0 && bin < bins) counts[bin] = (counts[bin] ?? 0) + 1
  }
  // The root keeps thin parts visible beside a sky that fills half of the picture.
  let most = 1
  for (let i = 0; i < bins; i++) {
    counts[i] = Math.sqrt(counts[i] ?? 0)
    most = Math.max(most, counts[i] ?? 0)
  }
  return counts.map((count) => count / most)
}

/** The nearness that all but a thousandth of the picture lies between, with some air, for a plan that it fills. */
export function occupied(map: Nearness): { far: number; near: number } {
  const bins = 512
  const counts = new Uint32Array(bins)
  for (const sample of map.samples) {
    const bin = (sample * bins) >> 16
    counts[bin] = (counts[bin] ?? 0) + 1
  }
  const rare = map.samples.length / 1000
  let far = 0
  for (let sum = 0; far < bins - 1 && (sum += counts[far] ?? 0) < rare;) far++
  let near = bins - 1
  for (let sum = 0; near > far && (sum += counts[near] ?? 0) < rare;) near--
  const air = Math.max(0.03, ((near - far) / bins) * 0.08)
  return { far: Math.max(0, far / bins - air), near: Math.min(1, (near + 1) / bins + air) }
}
