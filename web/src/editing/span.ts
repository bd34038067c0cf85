/** When something acts in a clip. */

/** As far as spans and marks reach, in seconds. */
export const LATEST = 36000

/** How strongly something acts at a time: it fades in and out, unless its ends are the clip's. */
export function actingAt({ from, to, fade }: { from: number; to: number; fade: number }, seconds: number): number {
  if (seconds < from || seconds > to) return 0
  const faded = (since: number): number => (fade > 0 ? Math.min(1, since / fade) : 1)
  return Math.min(from > 0 ? faded(seconds - from) : 1, to < LATEST ? faded(to - seconds) : 1)
}
