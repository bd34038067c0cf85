import { useEventListener } from '@vueuse/core'
import type { Ref } from 'vue'
import { useBench } from '../../stores/bench'
import { useFollows } from '../../stores/follows'
import { useTimeline } from '../../stores/timeline'
import { useLooks } from '../looks'
import { steps } from '../steps'

type Options = {
  /** The picture, which is fitted and enlarged. */
  stage: Ref<{ refit: () => void; fullSize: () => void } | undefined>
  /** Whether something lies over the Bench that has the keys. */
  away: () => boolean
  askForKeys: () => void
}

function typing(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  return target.tagName === 'INPUT' || target.tagName === 'SELECT' || target.tagName === 'TEXTAREA'
}

/** The keys of the whole Bench; those of the picture, the plan and the strip are theirs. */
export function useBenchKeys({ stage, away, askForKeys }: Options): void {
  const bench = useBench()
  const timeline = useTimeline()
  const follows = useFollows()
  const { nextView, nextSplit, toggleCompare } = useLooks()

  /** Keys that move in time, as editors are used to. */
  function timeKey(event: KeyboardEvent, key: string, command: boolean): boolean {
    const on = event.target as HTMLElement
    const elsewhere = event.defaultPrevented || on.closest('[role=application], [role=slider], .plan') !== null
    const far = event.shiftKey ? 10 : 1
    if (key === 'arrowleft' || key === 'arrowright') {
      if (elsewhere) return false
      const by = key === 'arrowleft' ? -1 : 1
      if (command) timeline.jump(by)
      else bench.turnTo(bench.frame + by * far)
      return true
    }
    if (command) return false
    if (key === ' ' && on.tagName !== 'BUTTON') timeline.toggle()
    else if (key === 'k') timeline.stop()
    else if (key === 'l' && !elsewhere)
      timeline.play(bench.playing && timeline.rate > 0 ? Math.min(4, timeline.rate * 2) : 1)
    else if (key === 'j') timeline.play(bench.playing && timeline.rate < 0 ? Math.max(-4, timeline.rate * 2) : -1)
    else if (key === 'i' && event.shiftKey) timeline.setOut()
    else if (key === 'i') timeline.setIn()
    else if (key === 'r') void timeline.render()
    else if (key === 'home') bench.turnTo(timeline.from)
    else if (key === 'end') bench.turnTo(timeline.end - 1)
    else if ((key === 'delete' || key === 'backspace') && timeline.chosen.length) timeline.removeChosen()
    else return false
    return true
  }

  function keydown(event: KeyboardEvent): void {
    const command = event.ctrlKey || event.metaKey
    const key = event.key.toLowerCase()
    if (command && key === 'z') {
      event.preventDefault()
      if (event.shiftKey ? bench.canRedo : bench.canUndo) void (event.shiftKey ? bench.redo() : bench.undo())
    }
    if (!event.altKey && !typing(event) && !away() && bench.clip && timeKey(event, key, command))
      return event.preventDefault()
    if (command || event.altKey || typing(event) || away()) return
    const step = steps[['f1', 'f2', 'f3', 'f4', 'f5', 'f6', 'f7'].indexOf(key)]
    if (step) {
      event.preventDefault()
      bench.step = step.key
    } else if (key === 'o') bench.holding = true
    else if (key === 's') nextSplit()
    else if (key === 'b') toggleCompare('beside')
    else if (key === 'g') bench.loupe = !bench.loupe
    else if (key === 'v') nextView(event.shiftKey ? -1 : 1)
    else if (key === 'c') bench.view = bench.view === 'check' ? 'photo' : 'check'
    else if (key === '?') askForKeys()
    else if (key === 'h') document.querySelector<HTMLElement>('[data-test=history]')?.click()
    else if (key === 'n') void bench.focusOnThing(bench.thing + (event.shiftKey ? -1 : 1))
    else if (key === 'm') void bench.focusOn({ kind: 'subject' }, 'Main subject')
    else if (key === 'e' && bench.clip && bench.step === 'focus') void follows.addEye()
    else if (key === '0') stage.value?.refit()
    else if (key === '1') stage.value?.fullSize()
  }

  function keyup(event: KeyboardEvent): void {
    if (event.key.toLowerCase() === 'o') bench.holding = false
  }

  useEventListener(window, 'keydown', keydown)
  useEventListener(window, 'keyup', keyup)
}
