// A drag draws in quick succession; slower than this it does not feel live.
const SLOW = 26
const DRAG = 220
const ENOUGH = 3
const REST = 160
const MOST = 4

/**
 * How coarsely something is drawn that follows a drag: 1 as fine as the screen, twice as coarse each time some drawings in a row
 * came late. Once nothing moves it is drawn finely again.
 */
export function createPace(fine: () => void, now: () => number = () => performance.now()) {
  let coarseness = 1
  let late = 0
  let before = -Infinity
  let timer: ReturnType<typeof setTimeout> | undefined
  let resting = false

  /** Called at each drawing; answers how coarse it should be. */
  function drawn(): number {
    const at = now()
    const since = at - before
    before = at
    if (resting) {
      resting = false
      return 1
    }
    if (since < DRAG) {
      late = since > SLOW ? late + 1 : Math.max(0, late - 1)
      if (late >= ENOUGH && coarseness < MOST) {
        coarseness *= 2
        late = 0
      }
    } else late = 0
    clearTimeout(timer)
    if (coarseness > 1) timer = setTimeout(rest, REST)
    return coarseness
  }

  function rest(): void {
    coarseness = 1
    late = 0
    resting = true
    fine()
  }

  return { drawn, stop: () => clearTimeout(timer) }
}
