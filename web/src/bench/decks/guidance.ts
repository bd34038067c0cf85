import type { Recipe, Shot } from '../../api/client'
import { radiusPerNearness, reality } from './lens'
import { NEAREST, outside, tiltAt, type EdgeWidths, type Nearness } from '../../editing/nearness'

/** A plain sentence about this shot, with the figure behind it. */
export type Note = { key: string; text: string }

const WIDE = 28
const SOFT = 2.2
const FEW_EDGES = 40
const OVERDONE = 0.05
const CLEAR = 0.6

/** Median width of the photo's own edges inside the sharp band, in pixels at 2048; undefined when it has too few. */
export function softness(widths: EdgeWidths, map: Nearness, band: Recipe['band']): number | undefined {
  const counts = new Uint32Array(256)
  let edges = 0
  for (let y = 0, i = 0; y < widths.height; y++) {
    const row = Math.min(map.height - 1, Math.floor((y * map.height) / widths.height)) * map.width
    for (let x = 0; x < widths.width; x++, i++) {
      const width = widths.samples[i] ?? 0
      if (!width) continue
      const nearness =
        (map.samples[row + Math.min(map.width - 1, Math.floor((x * map.width) / widths.width))] ?? 0) / NEAREST
      const tilt = tiltAt(band, (x + 0.5) / widths.width, (y + 0.5) / widths.height)
      if (outside(band, nearness - tilt) !== 0) continue
      counts[width] = (counts[width] ?? 0) + 1
      edges++
    }
  }
  if (edges < FEW_EDGES) return undefined
  let width = 0
  // The sharpest quarter decides: a soft thing has no sharp edges at all, a sharp one has soft shadows too.
  for (let sum = 0; width < 255 && (sum += counts[width] ?? 0) < edges / 4;) width++
  return width / 50
}

/** What an experienced photographer would say about the shot and its recipe. */
export function guidance(shot: Shot, recipe: Recipe, soft: number | undefined, map: Nearness | undefined): Note[] {
  const notes: Note[] = []
  const everything = recipe.band.near >= 1 && recipe.band.far <= 0
  const { focalLength, sensorWidth } = shot.camera
  if (focalLength && sensorWidth) {
    const equivalent = Math.round((focalLength * 36) / sensorWidth)
    if (equivalent < WIDE && !everything) {
      notes.push({
        key: 'wide',
        text: `Taken at ${equivalent} mm (as on 36 mm film): a wide view with strong blur looks false. Less is more.`,
      })
    }
  }
  const share = (2 * radiusPerNearness(recipe, shot.width, shot.height)) / Math.max(shot.width, shot.height)
  if (
    !everything &&
    share > OVERDONE &&
    reality(recipe, shot.width, shot.height).warning.startsWith('No lens blurs this much')
  ) {
    notes.push({
      key: 'strong',
      text: `Far points become discs ${Math.round(share * 100)} % of the width: no lens blurs this much at this framing.`,
    })
  }
  if (soft !== undefined && soft > SOFT && !everything) {
    notes.push({
      key: 'soft',
      text: `The photo is soft where the focus is: its sharpest edges there are ${soft.toFixed(1)} px wide at 2048 px.`,
    })
  }
  const estimate = shot.depths.find((each) => each.source === 'estimated')
  if (
    estimate?.origin === 'learned' &&
    estimate.quality &&
    estimate.confidence !== null &&
    estimate.confidence < CLEAR
  ) {
    notes.push({
      key: 'subject',
      text: `No clear subject was found (${Math.round(estimate.confidence * 100)} % sure). Click what should be sharp.`,
    })
  }
  if (map && isFlat(map)) {
    notes.push({
      key: 'flat',
      text: 'The depth map has one depth only: there is nothing to set apart. Bring a map in, or estimate again.',
    })
  }
  return notes
}

export function isFlat(map: Nearness): boolean {
  let low = NEAREST
  let high = 0
  for (const sample of map.samples) {
    if (sample < low) low = sample
    if (sample > high) high = sample
  }
  return high - low < NEAREST / 200
}
