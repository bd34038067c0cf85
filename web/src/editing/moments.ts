import type { Recipe, Schemas, Touchup } from '../api/client'
import { settings } from '../api/generated/settings'
import { eased, type Curve, type EaseKind } from './ease'
import { followedBand, type Wakes } from './follow'
import { shapesAt } from './shapes'
import { actingAt, LATEST } from './span'

/** What a clip's recipe is at a moment, and marks. The formulas are the server's. */

export type Marks = Schemas['Marks']
export type MarkKind = keyof Marks
export type Mark = Marks[MarkKind][number]
type Between = Record<string, number>

/** The values of each kind of mark, and where they stand in the recipe. */
const VALUES: Record<MarkKind, readonly string[]> = {
  band: ['near', 'far', 'nearFalloff', 'farFalloff', 'tiltAcross', 'tiltDown'],
  aperture: ['fNumber', 'strength'],
  gain: ['front', 'behind'],
  opacity: ['opacity'],
}
export const KINDS = Object.keys(VALUES) as MarkKind[]

/** Values that go in even ratios: an iris moves in stops. */
const IN_RATIOS = new Set(['fNumber'])
const MICROS = 1e6
/** Marks that lie nearer, in seconds, are one: frames of 120 a second are twice as far apart. */
const SAME = 0.004

/** As far as apertures go, and how much stronger than the lens either side may be. */
export const WIDEST = settings['aperture.fNumber'].least
export const NARROWEST = settings['aperture.fNumber'].most
export const MOST_GAIN = settings['gain.behind'].most
const MOST_STRENGTH = settings['aperture.strength'].most

const clamped = (value: number, least: number, most: number): number => Math.max(least, Math.min(most, value))

function numbers(mark: object): Between {
  return mark as unknown as Between
}

/** The values of a kind at a time in seconds; undefined when it has no marks. */
export function valuesAt(marks: Marks, kind: MarkKind, seconds: number): Between | undefined {
  const all: Mark[] = marks[kind]
  const next = all.findIndex((each) => each.at > seconds)
  const from = next < 0 ? all.at(-1) : all[Math.max(0, next - 1)]
  const to = next > 0 ? all[next] : undefined
  if (!from) return undefined
  const share = to ? eased(from.ease, from.curve, (seconds - from.at) / (to.at - from.at)) : 0
  return Object.fromEntries(
    VALUES[kind].map((name) => {
      const a = numbers(from)[name] ?? 0
      const b = to ? (numbers(to)[name] ?? a) : a
      return [name, IN_RATIOS.has(name) && share > 0 ? a * (b / a) ** share : a + (b - a) * share]
    }),
  )
}

/** Changed ends of the time in which a touch-up acts; an end that passes the other one takes it along to the clip's end. */
export function within(
  { from, to, fade }: Pick<Touchup, 'from' | 'to' | 'fade'>,
  part: { from?: number; to?: number; fade?: number },
): Pick<Touchup, 'from' | 'to' | 'fade'> {
  const out = { from, to, fade, ...part }
  if (out.from <= out.to) return out
  return part.from === undefined ? { ...out, from: 0 } : { ...out, to: LATEST }
}

/** Whether a touch-up acts at all times. */
export function actsAlways({ from, to }: Pick<Touchup, 'from' | 'to'>): boolean {
  return from === 0 && to === LATEST
}

const NONE: Marks = { band: [], aperture: [], gain: [], opacity: [] }
/** The band at a time, by marks and by what is followed. */
export function bandAt(recipe: Recipe, seconds: number, wakes?: Wakes): Recipe['band'] {
  const band = { ...recipe.band, ...valuesAt(recipe.marks, 'band', seconds) }
  return wakes ? followedBand(recipe, band, wakes, seconds) : band
}

/** The plain recipe at a time, without marks and spans. */
export function recipeAt(recipe: Recipe, micros: number, wakes?: Wakes): Recipe {
  const seconds = micros / MICROS
  const band = bandAt(recipe, seconds, wakes)
  const aperture = valuesAt(recipe.marks, 'aperture', seconds)
  const gain = valuesAt(recipe.marks, 'gain', seconds)
  const opacity = valuesAt(recipe.marks, 'opacity', seconds)
  const always = (each: Touchup): boolean => each.from === 0 && each.to === LATEST && each.fade === 0
  return {
    ...recipe,
    marks: NONE,
    touchups: recipe.touchups.every(always)
      ? recipe.touchups
      : recipe.touchups.map((each) =>
          always(each)
            ? each
            : { ...each, strength: each.strength * actingAt(each, seconds), from: 0, to: LATEST, fade: 0 },
        ),
    follows: [],
    shapes: recipe.shapes.length ? shapesAt(recipe.shapes, seconds, wakes) : recipe.shapes,
    band,
    ...(aperture && { aperture: { ...recipe.aperture, ...aperture } }),
    ...(gain && { gain: { ...recipe.gain, ...gain } }),
    ...(opacity && { opacity: opacity.opacity ?? 1 }),
  }
}

const frames = new WeakMap<Recipe, number>()

/** Remembers of which frame a recipe is. */
export function ofFrame(recipe: Recipe, frame: number): Recipe {
  frames.set(recipe, frame)
  return recipe
}

/** The frame that a recipe is of; 0 for photos. */
export function frameOf(recipe: Recipe): number {
  return frames.get(recipe) ?? 0
}

/** A changed recipe of the same moment. */
export function sameMoment(from: Recipe, part: Partial<Recipe>): Recipe {
  return ofFrame({ ...from, ...part }, frameOf(from))
}

/** What of a part of a recipe belongs to a kind of marks. */
function marked(kind: MarkKind, part: Partial<Recipe>): Between | undefined {
  if (kind === 'opacity') return part.opacity === undefined ? undefined : { opacity: part.opacity }
  const own = part[kind]
  return own && Object.fromEntries(VALUES[kind].map((name) => [name, numbers(own)[name] ?? 0]))
}

function sorted(all: Mark[]): Mark[] {
  return [...all].sort((a, b) => a.at - b.at)
}

const withKind = (marks: Marks, kind: MarkKind, all: Mark[]): Marks => ({ ...marks, [kind]: all }) as Marks

/** Marks with one at a time, in the place of the one that lies there. */
export function withMark(marks: Marks, kind: MarkKind, seconds: number, values: object): Marks {
  const all: Mark[] = marks[kind]
  const there = all.find((each) => Math.abs(each.at - seconds) < SAME)
  const before = all.findLast((each) => each.at < seconds)
  const ease = there ?? before
  const mark = {
    ease: ease?.ease ?? 'smooth',
    curve: there ? there.curve : [],
    ...values,
    at: there?.at ?? seconds,
  } as Mark
  if (mark.ease === 'drawn' && !there) mark.ease = 'smooth'
  return withKind(marks, kind, sorted([...all.filter((each) => each !== there), mark]))
}

/** A band at a time in seconds. */
export type BandThen = { at: number; band: Recipe['band'] }

/** Marks with a smooth pull from one band to another; what lay between them goes. */
export function withPull(marks: Marks, one: BandThen, other: BandThen): Marks {
  const [from, to] = one.at <= other.at ? [one, other] : [other, one]
  const beside = marks.band.filter((each) => each.at < from.at - SAME || each.at > to.at + SAME)
  const ends = [from, to].map(({ at, band }) => ({ ...band, at, ease: 'smooth' as const, curve: [], follow: false }))
  return withKind(marks, 'band', sorted([...beside, ...ends]))
}

/**
 * A clip's recipe after something was changed at a moment: what has marks gets one there, and so does the band, whose first mark
 * changes nothing elsewhere; all else goes for the whole clip.
 */
export function writtenAt(recipe: Recipe, micros: number, part: Partial<Recipe>): Recipe {
  let marks = part.marks ?? recipe.marks
  for (const kind of KINDS) {
    const values = marked(kind, part)
    const moves = kind === 'band' || recipe.marks[kind].length > 0
    const follow = kind === 'band' && recipe.follows.some((each) => each.focus) ? { follow: true } : {}
    if (values && moves) marks = withMark(marks, kind, micros / MICROS, { ...values, ...follow })
  }
  return { ...recipe, ...part, marks }
}

/** One mark of a kind, by its time. */
export type Chosen = { kind: MarkKind; at: number }

export function isChosen(chosen: Chosen[], kind: MarkKind, mark: { at: number }): boolean {
  return chosen.some((each) => each.kind === kind && Math.abs(each.at - mark.at) < SAME)
}

/** Marks without those that are chosen; the last value of a kind stays in the recipe. */
export function withoutMarks(recipe: Recipe, chosen: Chosen[]): Recipe {
  let out = recipe
  for (const kind of KINDS) {
    const all: Mark[] = recipe.marks[kind]
    const left = all.filter((each) => !isChosen(chosen, kind, each))
    if (left.length === all.length) continue
    if (left.length === 0 && all[0]) {
      const values = Object.fromEntries(VALUES[kind].map((name) => [name, numbers(all[0] as Mark)[name]]))
      out =
        kind === 'opacity' ? { ...out, opacity: values.opacity ?? 1 } : { ...out, [kind]: { ...out[kind], ...values } }
    }
    out = { ...out, marks: withKind(out.marks, kind, left) }
  }
  return out
}

/**
 * The chosen marks moved by some seconds, or copies of them there; none passes another of its kind that stays where it is.
 *
 * @returns the marks, and those that are chosen now
 */
export function movedMarks(
  marks: Marks,
  chosen: Chosen[],
  by: number,
  last: number,
  copies: boolean,
): { marks: Marks; chosen: Chosen[] } {
  let out = marks
  const now: Chosen[] = []
  for (const kind of KINDS) {
    const all: Mark[] = marks[kind]
    const moving = all.filter((each) => isChosen(chosen, kind, each))
    if (!moving.length) continue
    const staying = copies ? all : all.filter((each) => !moving.includes(each))
    const moved = moving.map((each) => ({ ...each, at: Math.max(0, Math.min(last, each.at + by)) }))
    const free = staying.filter((each) => !moved.some((other) => Math.abs(other.at - each.at) < SAME))
    const apart = sorted([...free, ...moved]).filter(
      (each, i, list) => i === 0 || each.at - (list[i - 1]?.at ?? 0) >= SAME,
    )
    out = withKind(out, kind, apart)
    now.push(...moved.map(({ at }) => ({ kind, at })))
  }
  return { marks: out, chosen: now }
}

/** How a value answers to being raised by a share of the whole height. */
const RAISED: Record<Exclude<MarkKind, 'band'>, (mark: Between, by: number, free: boolean) => Between> = {
  aperture: (mark, by, free): Between =>
    free
      ? { strength: clamped((mark.strength ?? 0) + by * MOST_STRENGTH, 0, MOST_STRENGTH) }
      : // Higher on the strip is wider.
        { fNumber: clamped((mark.fNumber ?? 1) * (WIDEST / NARROWEST) ** by, WIDEST, NARROWEST) },
  gain: (mark, by) => ({ behind: clamped((mark.behind ?? 1) + by * MOST_GAIN, 0, MOST_GAIN) }),
  opacity: (mark, by) => ({ opacity: clamped((mark.opacity ?? 1) + by, 0, 1) }),
}

/** The chosen marks with their values raised by a share of the whole height: a band moves as it is, nearer or farther. */
export function raisedMarks(marks: Marks, chosen: Chosen[], by: number, free: boolean): Marks {
  return KINDS.reduce((out, kind) => {
    const all = (marks[kind] as Mark[]).map((each) => {
      if (!isChosen(chosen, kind, each)) return each
      const mark = numbers(each)
      if (kind !== 'band') return { ...each, ...RAISED[kind](mark, by, free) }
      const near = mark.near ?? 0
      const far = mark.far ?? 0
      const step = clamped(by, -far, 1 - near)
      return { ...each, near: near + step, far: far + step }
    })
    return withKind(out, kind, all as Mark[])
  }, marks)
}

/** The chosen marks with another ease. */
export function withEase(marks: Marks, chosen: Chosen[], ease: EaseKind, curve: Curve = []): Marks {
  return KINDS.reduce(
    (out, kind) =>
      withKind(
        out,
        kind,
        (marks[kind] as Mark[]).map((each) =>
          isChosen(chosen, kind, each) ? { ...each, ease, curve, ...(kind === 'band' && { follow: false }) } : each,
        ),
      ),
    marks,
  )
}

/** Chosen marks of the band from which on it keeps to what is followed. */
export function withFollowing(marks: Marks, chosen: Chosen[]): Marks {
  return {
    ...marks,
    band: marks.band.map((each) => (isChosen(chosen, 'band', each) ? { ...each, follow: true } : each)),
  }
}
