import { computed, ref, type Ref } from 'vue'
import type { FocusPlace } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useLadder } from '../../stores/ladder'
import { usePull } from '../../stores/pull'
import { useTouchups } from '../../stores/touchups'
import type { Place, StageView } from './stageView'

/** A pointer that has moved less has clicked. */
const DRAG = 4
const AIM_STEP = 0.02
const FINE_AIM_STEP = 0.004
/** The split never leaves the picture. */
const SPLIT_MARGIN = 0.02

const limited = (value: number, least: number, most: number): number => Math.min(most, Math.max(least, value))
const inside = (at: Place): boolean => at.x >= 0 && at.y >= 0 && at.x <= 1 && at.y <= 1

/** What pointer and keyboard do on the stage: move the picture, zoom, focus on a spot or an area, and drag the split. */
export function useAiming(root: Ref<HTMLElement | undefined>, view: StageView) {
  const bench = useBench()
  const touchups = useTouchups()
  const ladder = useLadder()
  const pull = usePull()
  const dragging = ref<'pan' | 'split' | 'patch' | undefined>()
  /** The area that is dragged open, in pixels of the stage. */
  const patch = ref<{ x: number; y: number; width: number; height: number }>()
  /** Where the keyboard aims, in shares of the picture. */
  const aim = ref<Place>()
  /** In pixels of the stage. */
  const pointer = ref<Place>({ x: 0, y: 0 })
  let start = { x: 0, y: 0, view: view.viewport.value, moved: false }

  const aimStyle = computed(() => {
    const at = aim.value && view.paneOf(aim.value)
    return at && { left: `${at.x}px`, top: `${at.y}px` }
  })

  function inStage(event: MouseEvent): Place {
    const box = root.value?.getBoundingClientRect()
    return { x: event.clientX - (box?.left ?? 0), y: event.clientY - (box?.top ?? 0) }
  }

  function inPane(event: MouseEvent): Place {
    const { x, y } = inStage(event)
    return view.inPane(x, y)
  }

  function place(event: MouseEvent): Place {
    const { x, y } = inPane(event)
    return view.shares(x, y)
  }

  function wheel(event: WheelEvent): void {
    // Two fingers spreading on a touch pad arrive as small steps with the control key.
    view.zoom(Math.exp(-event.deltaY * (event.ctrlKey ? 0.01 : 0.0015)), inPane(event))
  }

  function down(event: PointerEvent): void {
    if (event.button > 1) return
    root.value?.setPointerCapture(event.pointerId)
    start = { x: event.clientX, y: event.clientY, view: view.viewport.value, moved: false }
    aim.value = undefined
    const pans = event.button === 1 || event.altKey || bench.step !== 'focus' || !inside(place(event))
    dragging.value = pans ? 'pan' : 'patch'
  }

  function splitDown(event: PointerEvent): void {
    root.value?.setPointerCapture(event.pointerId)
    dragging.value = 'split'
  }

  function move(event: PointerEvent): void {
    const at = place(event)
    bench.hovered = inside(at) ? at : undefined
    pointer.value = inStage(event)
    if (!dragging.value) return
    const dx = event.clientX - start.x
    const dy = event.clientY - start.y
    if (Math.hypot(dx, dy) > DRAG) start.moved = true
    if (dragging.value === 'split') {
      bench.splitAt = limited(bench.splitLevel ? at.y : at.x, SPLIT_MARGIN, 1 - SPLIT_MARGIN)
    } else if (dragging.value === 'pan' && start.moved) {
      view.show({ scale: start.view.scale, x: start.view.x + dx, y: start.view.y + dy })
    } else if (dragging.value === 'patch' && start.moved) {
      patch.value = {
        x: pointer.value.x - Math.max(0, dx),
        y: pointer.value.y - Math.max(0, dy),
        width: Math.abs(dx),
        height: Math.abs(dy),
      }
    }
  }

  /** Puts the band there, or the next end of a pull. */
  function focus(wanted: FocusPlace, name: string): void {
    if (pull.active) void pull.click(wanted)
    else void bench.focusOn(wanted, name)
  }

  function up(event: PointerEvent): void {
    const at = place(event)
    const box = patch.value
    if (dragging.value === 'patch' && box) {
      const corner = view.inPane(box.x, box.y)
      const from = view.shares(corner.x, corner.y)
      const to = view.shares(corner.x + box.width, corner.y + box.height)
      focus({ kind: 'patch', ...from, width: to.x - from.x, height: to.y - from.y }, 'Focus on an area')
    } else if (
      dragging.value &&
      dragging.value !== 'split' &&
      !start.moved &&
      event.button === 0 &&
      bench.step === 'focus' &&
      inside(at)
    ) {
      focus({ kind: 'spot', ...at }, 'Focus on a spot')
    }
    calledOff()
  }

  function calledOff(): void {
    dragging.value = undefined
    patch.value = undefined
  }

  /** The keyboard aims, zooms and focuses: arrows move the aim, and the picture with it where it would leave the stage. */
  function key(event: KeyboardEvent): void {
    if (event.target !== root.value) return
    const by = event.shiftKey ? FINE_AIM_STEP : AIM_STEP
    const steps: Record<string, [number, number]> = {
      ArrowLeft: [-by, 0],
      ArrowRight: [by, 0],
      ArrowUp: [0, -by],
      ArrowDown: [0, by],
    }
    const step = steps[event.key]
    const at = aim.value ?? { x: 0.5, y: 0.5 }
    if (step) {
      const { x, y, width, height } = bench.seen
      const next = {
        x: limited(at.x + step[0] * Math.min(1, width + 0.05), 0, 1),
        y: limited(at.y + step[1] * Math.min(1, height + 0.05), 0, 1),
      }
      aim.value = bench.hovered = next
      if (!view.fitted.value && (next.x < x || next.x > x + width || next.y < y || next.y > y + height))
        view.centreOn(next)
    } else if (event.key === 'Enter' && bench.step === 'focus') {
      focus({ kind: 'spot', ...at }, 'Focus on a spot')
    } else if (event.key === 'Enter' && bench.step === 'depth' && ladder.open) {
      ladder.add(at.x, at.y, event.shiftKey)
    } else if (event.key === 'Enter' && bench.step === 'touchup') {
      touchups.begin({ ...at, pressure: 1 })
      touchups.end()
    } else if (event.key === '+' || event.key === '-') {
      view.zoom(event.key === '+' ? 1.25 : 0.8, view.paneOf(at))
    } else return
    event.preventDefault()
  }

  return { dragging, patch, aim, aimStyle, pointer, wheel, down, splitDown, move, up, calledOff, key }
}
