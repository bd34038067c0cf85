import type { Recipe, Shot } from '../api/client'

export type DepthSource = 'estimated' | 'camera' | 'file'
type Depth = Recipe['depth']
type Map = Shot['depths'][number]

/** As the server has it: an estimate is soft, a camera's map coarse, a map that somebody made is meant as it is. */
export const usualSnap: Record<DepthSource, number> = { estimated: 1, camera: 0.5, file: 0 }

export const UNTRIMMED: Pick<Depth, 'flip' | 'farEnd' | 'nearEnd' | 'bend' | 'edges' | 'settle'> = {
  flip: false,
  farEnd: 0,
  nearEnd: 1,
  bend: 0,
  edges: 0,
  settle: 0,
}

const missing: Record<DepthSource, string> = {
  estimated: 'not yet',
  camera: 'none stored in the photo',
  file: 'none brought in',
}

function metres(value: number): string {
  return value >= 100 ? 'far away' : `${value < 10 ? value.toFixed(2) : value.toFixed(1)} m`
}

/** What is known of a map, in a few words. */
export function sourceLine(map: Map | undefined, source: DepthSource): string {
  if (!map) return missing[source]
  if (source === 'estimated') {
    const subject = map.confidence === null || map.confidence === undefined ? '' : map.confidence >= 0.72 ? ', clear subject' : ', no clear subject'
    return `${map.origin}, ${map.quality ?? 'draft'}${subject}`
  }
  const range = map.nearMetres && map.farMetres ? `, ${metres(map.nearMetres)} to ${metres(map.farMetres)}` : ''
  return `${map.origin}${range}`
}
