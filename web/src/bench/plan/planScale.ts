import { computed, type Ref } from 'vue'
import { occupied, tiltAt } from '../../editing/nearness'
import { useBench } from '../../stores/bench'

/** Where depth lies in the plan: far is up, the camera at the bottom. `ground` is its room in pixels. */
export function usePlanScale(ground: Readonly<Ref<{ width: number; height: number }>>) {
  const bench = useBench()

  /** The depths that occur. */
  const range = computed(() => {
    const map = bench.nearness
    return map ? occupied(map) : { far: 0, near: 1 }
  })
  const y = (nearness: number): number =>
    Math.min(1.02, Math.max(-0.02, (nearness - range.value.far) / (range.value.near - range.value.far))) *
    ground.value.height
  const nearnessOf = (at: number): number =>
    limited(range.value.far + (at / ground.value.height) * (range.value.near - range.value.far))
  /** Known once there is a map: until then it has no place here. */
  const band = computed(() => (bench.nearness ? bench.recipe?.band : undefined))
  const outer = computed(() => {
    const now = band.value
    return now && { near: Math.min(1, now.near + now.nearFalloff), far: Math.max(0, now.far - now.farFalloff) }
  })

  /** The height of a nearness of the band at a share of the width: a tilted band lies aslant. */
  function slant(nearness: number, x: number): number {
    return y(nearness + (band.value ? tiltAt(band.value, x, 0.5) : 0))
  }

  return { ground, range, y, nearnessOf, band, outer, slant }
}

export type PlanScale = ReturnType<typeof usePlanScale>

export const limited = (value: number): number => Math.min(1, Math.max(0, value))
