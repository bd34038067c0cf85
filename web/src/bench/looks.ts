import type { DepthView } from '../editing/depthViews'
import type { Compare } from '../editing/pictures'
import { useBench } from '../stores/bench'

export const views: { key: DepthView; name: string; hint: string }[] = [
  { key: 'photo', name: 'Photo', hint: 'The result' },
  { key: 'zones', name: 'Zones', hint: 'In front of the band orange, behind it blue, stronger where more blurred' },
  {
    key: 'contours',
    name: 'Contours',
    hint: 'A line for every twentieth of the depth: orange in front of the band, green in it, blue behind',
  },
  { key: 'grey', name: 'Grey', hint: 'The depth map, white is near' },
  {
    key: 'check',
    name: 'Focus check',
    hint: 'Edges that are sharp in the photo itself light up: nothing can make sharp what the lens left soft',
  },
]

/** Ways of looking at the result, which buttons and keys have in common. */
export function useLooks() {
  const bench = useBench()

  function nextView(by: number): void {
    const at = views.findIndex((each) => each.key === bench.view)
    bench.view = views[(at + by + views.length) % views.length]?.key ?? 'photo'
  }

  /** Split upright, then level, then off. */
  function nextSplit(): void {
    if (!bench.split) {
      bench.compare = 'split'
      bench.splitLevel = false
    } else if (!bench.splitLevel) bench.splitLevel = true
    else bench.compare = 'none'
  }

  function toggleCompare(kind: Compare): void {
    bench.compare = bench.compare === kind ? 'none' : kind
  }

  return { nextView, nextSplit, toggleCompare }
}
