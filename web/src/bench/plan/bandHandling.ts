import { ref, type Ref } from 'vue'
import type { Band } from '../../api/client'
import { tiltAt } from '../../editing/nearness'
import { useBench } from '../../stores/bench'
import { limited, type PlanScale } from './planScale'

const HANDLE = 7
const LEAST = 0.002

type Grip = 'slab' | 'near' | 'far' | 'nearFalloff' | 'farFalloff' | 'tilt'

/** Pointer and keys move the sharp band in the plan, its edges and its slant. */
export function useBandHandling(
  root: Ref<HTMLElement | undefined>,
  { ground, range, nearnessOf, band, outer, slant }: PlanScale,
) {
  const bench = useBench()
  const dragged = ref<Grip>()
  let from = { x: 0, y: 0, band: undefined as Band | undefined, moved: false }

  function gripAt(x: number, at: number): Grip {
    const now = band.value
    const edges = outer.value
    if (!now || !edges) return 'slab'
    const across = Math.min(1, Math.max(0, x / ground.value.width))
    const near = slant(now.near, across)
    const far = slant(now.far, across)
    if (x > ground.value.width - 14 && x < ground.value.width + 14 && Math.abs(at - (near + far) / 2) <= HANDLE)
      return 'tilt'
    // The band's own edges win over the falloffs when they lie on each other, and the slab stays reachable when thin.
    if (near - far > 3 * HANDLE && Math.abs(at - near) <= HANDLE) return 'near'
    if (near - far > 3 * HANDLE && Math.abs(at - far) <= HANDLE) return 'far'
    if (near - far <= 3 * HANDLE && at > near && at <= near + HANDLE) return 'near'
    if (near - far <= 3 * HANDLE && at < far && at >= far - HANDLE) return 'far'
    if (at > far && at < near) return 'slab'
    if (Math.abs(at - slant(edges.near, across)) <= HANDLE) return 'nearFalloff'
    if (Math.abs(at - slant(edges.far, across)) <= HANDLE) return 'farFalloff'
    return 'slab'
  }

  function local(event: PointerEvent): { x: number; y: number } {
    const box = root.value?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }

  function down(event: PointerEvent): void {
    const now = band.value
    if (!now || event.button !== 0) return
    root.value?.setPointerCapture(event.pointerId)
    from = { ...local(event), band: now, moved: false }
    dragged.value = gripAt(from.x, from.y)
  }

  function moved(by: number, grip: Grip, start: Band): Band {
    const delta = (by / ground.value.height) * (range.value.near - range.value.far)
    if (grip === 'tilt') return { ...start, tiltAcross: Math.min(1, Math.max(-1, start.tiltAcross + delta)) }
    if (grip === 'near') return { ...start, near: Math.max(start.far, limited(start.near + delta)) }
    if (grip === 'far') return { ...start, far: Math.min(start.near, limited(start.far + delta)) }
    if (grip === 'nearFalloff') return { ...start, nearFalloff: limited(start.nearFalloff + delta) }
    if (grip === 'farFalloff') return { ...start, farFalloff: limited(start.farFalloff - delta) }
    const held = Math.min(1 - start.near, Math.max(-start.far, delta))
    return { ...start, near: start.near + held, far: start.far + held }
  }

  function move(event: PointerEvent): void {
    const at = local(event)
    if (!dragged.value) {
      cursor.value = gripAt(at.x, at.y) === 'slab' ? 'grab' : 'ns-resize'
      const inGround = at.x <= ground.value.width && at.y <= ground.value.height
      bench.marked = inGround ? { x: at.x / ground.value.width, nearness: nearnessOf(at.y) } : undefined
      return
    }
    if (!from.band || (!from.moved && Math.abs(at.y - from.y) < 3)) return
    from.moved = true
    bench.marked = undefined
    bench.live({ band: moved(at.y - from.y, dragged.value, from.band) })
  }

  const cursor = ref('grab')
  const NAMES: Record<Grip, string> = {
    slab: 'Move the band',
    near: 'Near edge',
    far: 'Far edge',
    nearFalloff: 'Falloff in front',
    farFalloff: 'Falloff behind',
    tilt: 'Turn the band',
  }

  function up(): void {
    const grip = dragged.value
    const start = from.band
    dragged.value = undefined
    if (!grip || !start) return
    if (from.moved) {
      bench.commit(NAMES[grip])
      return
    }
    // A click selects that depth: the band keeps its width and moves there.
    const centre = nearnessOf(from.y) - tiltAt(start, Math.min(1, from.x / ground.value.width), 0.5)
    if (from.y <= ground.value.height && grip === 'slab') {
      const half = Math.min((start.near - start.far) / 2, 0.25)
      bench.commit('Focus in the plan', {
        band: { ...start, near: limited(centre + half), far: limited(centre - half) },
      })
    }
  }

  function cancel(): void {
    dragged.value = undefined
    from = { x: 0, y: 0, band: undefined, moved: false }
    bench.release()
  }

  function key(event: KeyboardEvent): void {
    const now = band.value
    const sign = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
    const level = (event.key === 'l' || event.key === 'L') && now
    if (level) bench.commit('Level the band', { band: { ...now, tiltAcross: 0, tiltDown: 0 } })
    if (!now || !sign) return
    event.preventDefault()
    if (event.altKey) {
      bench.commit('Turn the band', {
        band: moved((sign * 0.02 * ground.value.height) / (range.value.near - range.value.far), 'tilt', now),
      })
      return
    }
    const by = (sign * (event.shiftKey ? 0.05 : 0.01) * ground.value.height) / (range.value.near - range.value.far)
    const next = moved(by, 'slab', now)
    if (Math.abs(next.near - now.near) > LEAST / 10) bench.commit('Move the band', { band: next })
  }

  function leave(): void {
    bench.marked = undefined
  }

  return { dragged, cursor, down, move, up, cancel, leave, key }
}
