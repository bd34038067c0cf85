import { LATEST } from '../../editing/span'
import { KINDS, MOST_GAIN, NARROWEST, valuesAt, WIDEST, type MarkKind, type Marks } from '../../editing/moments'

/** Where things lie on the strip of time. */

/** A line of values over time, in pixels. */
export type Line = { kind: MarkKind; name: string; points: string; marks: { at: number; x: number; y: number }[] }

export const NAMES: Record<MarkKind, string> = { band: 'Band', aperture: 'Aperture', gain: 'Gains', opacity: 'Opacity' }
const EVERY = 3
/** Share of the height above and below lines. */
export const ROOM = 0.08

/** The ribbon: the band's near edge above, its far edge below; nearness 1 is at the top. */
export function ribbon(
  bandAt: (seconds: number) => { near: number; far: number },
  lasts: number,
  width: number,
  height: number,
) {
  const top: string[] = []
  const bottom: string[] = []
  for (let x = 0; x <= width; x += EVERY) {
    const at = bandAt((x / width) * lasts)
    top.push(`${x},${((1 - at.near) * height).toFixed(1)}`)
    // A plane is still seen.
    bottom.push(`${x},${Math.max((1 - at.far) * height, (1 - at.near) * height + 2).toFixed(1)}`)
  }
  return [...top, ...bottom.reverse()].join(' ')
}

/** What of a kind's values is drawn, in [0,1]. */
const SHOWN: Record<Exclude<MarkKind, 'band'>, (values: Record<string, number>, free: boolean) => number> = {
  aperture: (values, free) =>
    free ? (values.strength ?? 0) / 100 : 1 - Math.log2((values.fNumber ?? 1) / WIDEST) / Math.log2(NARROWEST / WIDEST),
  gain: (values) => (values.behind ?? 1) / MOST_GAIN,
  opacity: (values) => values.opacity ?? 1,
}

/** Lines of the other values that have marks. */
export function lines(marks: Marks, free: boolean, lasts: number, width: number, height: number): Line[] {
  return KINDS.filter((kind): kind is Exclude<MarkKind, 'band'> => kind !== 'band' && marks[kind].length > 0).map(
    (kind) => {
      const y = (seconds: number): number => {
        const shown = SHOWN[kind](valuesAt(marks, kind, seconds) ?? {}, free)
        return height * (1 - ROOM - (1 - 2 * ROOM) * Math.max(0, Math.min(1, shown)))
      }
      const points: string[] = []
      for (let x = 0; x <= width; x += EVERY) points.push(`${x},${y((x / width) * lasts).toFixed(1)}`)
      return {
        kind,
        name: NAMES[kind],
        points: points.join(' '),
        marks: marks[kind].map(({ at }) => ({ at, x: (at / lasts) * width, y: y(at) })),
      }
    },
  )
}

/** When a touch-up acts, as a bar so high whose ends slope as it fades. */
export function spanBar(
  span: { from: number; to: number; fade: number },
  lasts: number,
  width: number,
  height: number,
): { from: number; to: number; points: string } {
  const x = (seconds: number): number => (Math.max(0, Math.min(lasts, seconds)) / lasts) * width
  const from = x(span.from)
  const to = span.to === LATEST ? width : x(span.to)
  const half = (to - from) / 2
  const fade = Math.min(half, x(span.fade))
  const top = `${from + (span.from > 0 ? fade : 0)},0 ${to - (span.to < LATEST ? fade : 0)},0`
  return { from, to, points: `${from},${height} ${top} ${to},${height}` }
}

/** Minutes, seconds and hundredths. */
export function timeText(micros: number): string {
  // A microsecond is lost in rounding.
  const hundredths = Math.floor((micros + 2) / 1e4)
  const two = (value: number): string => String(value).padStart(2, '0')
  return `${Math.floor(hundredths / 6000)}:${two(Math.floor(hundredths / 100) % 60)}.${two(hundredths % 100)}`
}
