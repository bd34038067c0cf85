import type { Schemas } from '../api/client'

export type Rung = Schemas['Rung']

/** As many as a recipe holds. */
export const MOST_RUNGS = 50

/** Rungs that stand equally far, by their numbers in the ladder. */
export type Level = { numbers: number[]; metres: number }

export function levelsOf(rungs: readonly Rung[]): Level[] {
  const levels: Level[] = []
  rungs.forEach((rung, number) => {
    if (rung.tied && levels.length) levels.at(-1)?.numbers.push(number)
    else levels.push({ numbers: [number], metres: rung.metres })
  })
  return levels
}

/** The level that a rung is of. */
export function levelOf(rungs: readonly Rung[], number: number): number {
  return rungs.slice(0, number + 1).filter((each) => !each.tied).length - 1
}

/** With one more behind rung `after`: as far as it when it is `tied`, else farther than all that stand as far. */
export function withRung(rungs: readonly Rung[], rung: Rung, after: number): Rung[] {
  const levels = levelsOf(rungs)
  const last = levels[levelOf(rungs, after)]?.numbers.at(-1) ?? -1
  const tied = rung.tied && last >= 0
  return [...rungs.slice(0, last + 1), { ...rung, tied, metres: tied ? 0 : rung.metres }, ...rungs.slice(last + 1)]
}

/** Without one. Those that were tied to it stay where it stood. */
export function withoutRung(rungs: readonly Rung[], number: number): Rung[] {
  const gone = rungs[number]
  return rungs
    .map((each, at) =>
      at === number + 1 && each.tied && gone && !gone.tied ? { ...each, tied: false, metres: gone.metres } : each,
    )
    .filter((_, at) => at !== number)
}

/** With a level at another place in the order. A distance that would contradict the others there is dropped. */
export function withLevelAt(rungs: readonly Rung[], level: number, to: number): Rung[] {
  const levels = levelsOf(rungs)
  const moved = levels[level]
  if (!moved || level === to) return [...rungs]
  const rest = levels.filter((each) => each !== moved)
  const order = [...rest.slice(0, to), moved, ...rest.slice(to)]
  const out = order.flatMap((each) => each.numbers.map((number) => rungs[number] as Rung))
  if (grows(out)) return out
  return out.map((each) => (moved.numbers.some((number) => rungs[number] === each) ? { ...each, metres: 0 } : each))
}

/** With a rung tied to those before it, or standing for itself behind them. */
export function withTie(rungs: readonly Rung[], number: number, tied: boolean): Rung[] {
  return rungs.map((each, at) =>
    at === number ? { ...each, tied: tied && number > 0, metres: tied ? 0 : each.metres } : each,
  )
}

/** With a level's distance, 0 for none; undefined when it contradicts those of other levels. */
export function withMetres(rungs: readonly Rung[], level: number, metres: number): Rung[] | undefined {
  const first = levelsOf(rungs)[level]?.numbers[0]
  const out = rungs.map((each, at) => (at === first ? { ...each, metres } : each))
  return grows(out) ? out : undefined
}

/** Whether the distances that are told grow from rung to rung. */
function grows(rungs: readonly Rung[]): boolean {
  const told = rungs.map((each) => each.metres).filter((each) => each > 0)
  return told.every((each, at) => at === 0 || each > (told[at - 1] ?? 0))
}

/** What a nearness is in metres where two rungs have told; infinite for what is farther than can be told. */
export function metresAt(scale: Schemas['Scale'], nearness: number): number {
  const inverse = scale.atZero + scale.perNearness * nearness
  return inverse > 0 ? 1 / inverse : Number.POSITIVE_INFINITY
}
