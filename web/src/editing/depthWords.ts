import type { Recipe, Shot } from '../api/client'

export type DepthSource = Recipe['depth']['source']
type Depth = Recipe['depth']
type Map = Shot['depths'][number]

/** The corrections of a map: all but where it comes from, how its edges follow the photo, and the order that its rungs have. */
export function trims(depth: Depth): Omit<Depth, 'source' | 'snap' | 'ladder'> {
  const rest: Partial<Depth> = { ...depth }
  delete rest.source
  delete rest.snap
  delete rest.ladder
  return rest as Omit<Depth, 'source' | 'snap' | 'ladder'>
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
    const subject = map.confidence === null ? '' : map.confidence >= 0.72 ? ', clear subject' : ', no clear subject'
    return `${map.origin}, ${map.quality ?? 'draft'}${subject}`
  }
  const range = map.nearMetres && map.farMetres ? `, ${metres(map.nearMetres)} to ${metres(map.farMetres)}` : ''
  return `${map.origin}${range}`
}
