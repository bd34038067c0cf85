import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { api, type Problem, type Schemas } from '../api/client'
import {
  levelOf,
  levelsOf,
  MOST_RUNGS,
  withLevelAt,
  withMetres,
  withoutRung,
  withRung,
  withTie,
  type Rung,
} from '../editing/ladder'
import { useBench } from './bench'

const MICROS = 1e6

/** The ladder on the Bench: things from near to far, which the depth map follows. */
export const useLadder = defineStore('ladder', () => {
  const bench = useBench()
  /** Whether a click on the picture puts a rung there. */
  const open = ref(false)
  /** The rung behind which the next one comes. */
  const chosen = ref(-1)
  const stands = shallowRef<Schemas['LadderView']>()
  const rungs = computed<Rung[]>(() => bench.stored?.depth.ladder ?? [])
  const levels = computed(() => levelsOf(rungs.value))
  const full = computed(() => rungs.value.length >= MOST_RUNGS)

  function put(step: string, ladder: Rung[]): void {
    const depth = bench.stored?.depth
    if (depth) bench.commit(step, { depth: { ...depth, ladder } })
  }

  const now = (): number => (bench.clip ? bench.micros / MICROS : 0)

  function add(x: number, y: number, tied: boolean): void {
    if (full.value) {
      bench.notice = `A ladder has at most ${MOST_RUNGS} rungs.`
      return
    }
    const after = chosen.value in rungs.value ? chosen.value : rungs.value.length - 1
    const rung = { x, y, tied, metres: 0, at: now() }
    const ladder = withRung(rungs.value, rung, after)
    chosen.value = ladder.findIndex((each) => each.x === x && each.y === y && each.at === rung.at)
    put(tied ? 'Rung tied' : 'Rung', ladder)
  }

  /** Puts a rung elsewhere: in a clip, at the moment that is shown. */
  function move(number: number, x: number, y: number): void {
    const at = now()
    put(
      'Rung moved',
      rungs.value.map((each, own) => (own === number ? { ...each, x, y, at } : each)),
    )
  }

  function remove(number: number): void {
    chosen.value = Math.min(number, rungs.value.length - 1) - 1
    put('Rung removed', withoutRung(rungs.value, number))
  }

  function reorder(level: number, to: number): void {
    const lands = Math.min(levels.value.length - 1, Math.max(0, to))
    if (lands === level) return
    const first = rungs.value[levels.value[level]?.numbers[0] ?? 0]
    const ladder = withLevelAt(rungs.value, level, lands)
    chosen.value = ladder.findIndex((each) => each.x === first?.x && each.y === first.y)
    put(lands < level ? 'Rung nearer' : 'Rung farther', ladder)
  }

  const tie = (number: number, tied: boolean): void =>
    put(tied ? 'Rung tied' : 'Rung untied', withTie(rungs.value, number, tied))

  function tell(level: number, metres: number): void {
    const ladder = withMetres(rungs.value, level, metres)
    if (ladder) put('Distance of a rung', ladder)
    else bench.notice = 'Distances must grow from rung to rung.'
  }

  function clear(): void {
    chosen.value = -1
    put('Ladder removed', [])
  }

  /** What changes how it stands. */
  const key = computed(() =>
    rungs.value.length && bench.shot
      ? JSON.stringify([bench.shot.id, bench.shot.depths.map((each) => each.hash), bench.stored?.depth])
      : '',
  )
  watch(
    key,
    async (now) => {
      if (!now || !bench.shot || !bench.recipe) {
        stands.value = undefined
        return
      }
      try {
        const view = await api.ladder(bench.shot.id, bench.recipe)
        if (now === key.value) stands.value = view
      } catch (problem) {
        if (now === key.value) bench.notice = (problem as Problem).message
      }
    },
    { immediate: true },
  )

  const levelOfRung = (number: number): number => levelOf(rungs.value, number)

  return { open, chosen, rungs, levels, full, stands, add, move, remove, reorder, tie, tell, clear, levelOfRung }
})
