import type { NodeState } from '../api/client'

/** Work by how urgent it is, as people call it. */
export const urgencyNames: Record<string, string> = {
  draft: 'First depth of photos',
  reading: 'Reading of clips',
  better: 'Better depth of photos',
  clip: 'Depth and tracks of clips',
  delivery: 'Deliveries',
  ahead: 'Rendering ahead',
}

/** How long ago or how long, in a unit that fits. */
export function quietText(seconds: number): string {
  if (seconds < 90) return `${Math.round(seconds)} s`
  return seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${Math.round(seconds / 3600)} h`
}

/** What whoever runs the installation should look at; empty when a node is as it should be. */
export function nodeProblem(node: NodeState): string {
  if (node.problem) return node.problem
  return node.state === 'gone' ? 'gone: it has not been seen, and others take up its work' : ''
}
