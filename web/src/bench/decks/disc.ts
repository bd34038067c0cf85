import type { Recipe } from '../../api/client'

export type Disc = Recipe['disc']

const RIM_DEPTH = 0.9
const SQUEEZE = 0.9
const ANGLES = 240

function bladeEdge(disc: Disc, angle: number): number {
  if (disc.blades === 0) return 1
  const sector = (2 * Math.PI) / disc.blades
  const along = angle - (disc.turn * Math.PI) / 180 + Math.PI / 2
  const within = along - sector * Math.floor(along / sector) - sector / 2
  const straight = Math.cos(sector / 2) / Math.cos(within)
  return straight + disc.curvature * (1 - straight)
}

/** The outline by angle (radians, y down), for a disc with the area of the unit circle, before the corner squeeze. */
export function outline(disc: Disc): (angle: number) => number {
  let sum = 0
  for (let i = 0; i < ANGLES; i++) sum += bladeEdge(disc, (2 * Math.PI * i) / ANGLES) ** 2
  const scale = 1 / Math.sqrt(sum / ANGLES)
  const stretch = Math.sqrt(disc.stretch)
  return (angle) => {
    const wide = Math.cos(angle) * stretch
    const high = Math.sin(angle) / stretch
    return (bladeEdge(disc, Math.atan2(high, wide)) * scale) / Math.hypot(wide, high)
  }
}

/** A place in the picture relative to its centre; 1 is half the diagonal. */
export interface Place {
  x: number
  y: number
}

/**
 * How bright the disc of a point behind the band is at (x, y), in radii from its centre; 0 outside. The formulas of the
 * server's lens.
 */
export function brightness(disc: Disc, edge: (angle: number) => number, place: Place, x: number, y: number): number {
  const off = Math.hypot(place.x, place.y)
  const half = (SQUEEZE / 2) * disc.squeeze * Math.min(1, off)
  const ux = off > 0 ? place.x / off : 0
  const uy = off > 0 ? place.y / off : 0
  // What two of the disc have in common, one moved outwards and one inwards by as much.
  const share = (side: number): number => {
    const px = x - side * half * ux
    const py = y - side * half * uy
    return Math.hypot(px, py) / edge(Math.atan2(py, px))
  }
  const rho = Math.max(share(1), share(-1))
  if (rho > 1 || Math.hypot(x, y) < disc.hollow) return 0
  return 1 + disc.rim * RIM_DEPTH * (2 * rho * rho - 1)
}

/** The disc as grey RGBA, `size` pixels square, smoothed at its edges; its middle fills 58 % of the width. */
export function discPixels(disc: Disc, place: Place, size: number): Uint8ClampedArray<ArrayBuffer> {
  const edge = outline(disc)
  const out = new Uint8ClampedArray(size * size * 4)
  const scale = 2 / 0.58 / size
  for (let y = 0; y < size; y++) {
    for (let x = 0; x < size; x++) {
      let sum = 0
      for (let q = 0; q < 4; q++) {
        const px = (x + 0.25 + 0.5 * (q & 1) - size / 2) * scale
        const py = (y + 0.25 + 0.5 * (q >> 1) - size / 2) * scale
        sum += brightness(disc, edge, place, px, py)
      }
      const shown = 255 * Math.pow(Math.min(1, (sum / 4) * 0.55), 1 / 2.2)
      out.set([shown * 0.99, shown * 0.975, shown * 0.94, 255], (y * size + x) * 4)
    }
  }
  return out
}
