import type { Fault } from '../api/client'

const names: Record<string, string> = {
  edge: 'Depth edge beside the edge',
  thin: 'Thin part',
  hole: 'Hole',
  island: 'Island',
  matte: 'Unsure subject',
}
const hints: Record<string, string> = {
  edge: 'Depth changes where the picture shows no edge, and not where it shows one',
  thin: 'A thin part has the depth of what is beside it for some of its length',
  hole: 'This is farther than all around it and does not look so',
  island: 'This is nearer than all around it and does not look so',
  matte: 'The subject network is not sure whether this belongs to the subject, so depth lies between the two',
}

export const faultName = (kind: string): string => names[kind] ?? kind
export const faultHint = (kind: string): string => hints[kind] ?? ''

/** The next fault nobody has looked at, going on from a place in the list; any next one when all were looked at. */
export function nextFault(faults: Pick<Fault, 'verdict'>[], at: number): number {
  if (!faults.length) return -1
  for (let step = 1; step <= faults.length; step++) {
    const index = (at + step) % faults.length
    if (faults[index]?.verdict === null) return index
  }
  return (at + 1) % faults.length
}

export function inspectorText(faults: Pick<Fault, 'verdict'>[], at: number): string {
  if (!faults.length) return 'No depth breaks off beside an edge'
  const open = faults.filter((each) => each.verdict === null).length
  return `${at + 1} of ${faults.length}, ${open ? `${open} not looked at` : 'all looked at'}`
}
