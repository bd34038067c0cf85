/** The scale of a dial: what it shows and how a turn changes it. */
export type Scale = {
  least: number
  most: number
  /** Equal turns give equal ratios instead of equal differences. */
  logarithmic: boolean
  marks: { value: number; label: string }[]
  /** Turns of the finest key step, as a share of the whole. */
  step: number
  text: (value: number) => string
}

const SWEEP = 270

export function share(scale: Scale, value: number): number {
  const clamped = Math.min(scale.most, Math.max(scale.least, value))
  return scale.logarithmic
    ? Math.log(clamped / scale.least) / Math.log(scale.most / scale.least)
    : (clamped - scale.least) / (scale.most - scale.least)
}

export function valueAt(scale: Scale, part: number): number {
  const clamped = Math.min(1, Math.max(0, part))
  return scale.logarithmic
    ? scale.least * Math.pow(scale.most / scale.least, clamped)
    : scale.least + (scale.most - scale.least) * clamped
}

/** Degrees clockwise from straight up, for a share of the sweep. */
export function angle(part: number): number {
  return -SWEEP / 2 + SWEEP * part
}

/** The share that lies in the direction of a point from the dial's centre. */
export function shareAt(dx: number, dy: number): number {
  const degrees = (Math.atan2(dx, -dy) * 180) / Math.PI
  return Math.min(1, Math.max(0, (degrees + SWEEP / 2) / SWEEP))
}

const STOPS = [0.7, 1, 1.4, 2, 2.8, 4, 5.6, 8, 11, 16, 22]

function rounded(value: number): number {
  return value < 10 ? Math.round(value * 10) / 10 : Math.round(value)
}

export const apertureScale: Scale = {
  least: 0.7,
  most: 22,
  logarithmic: true,
  marks: STOPS.map((value) => ({ value, label: String(value) })),
  step: 1 / 60,
  text: (value) => `f/${rounded(value)}`,
}

export const strengthScale: Scale = {
  least: 0,
  most: 100,
  logarithmic: false,
  marks: [0, 20, 40, 60, 80, 100].map((value) => ({ value, label: String(value) })),
  step: 1 / 100,
  text: (value) => `${Math.round(value)} %`,
}

export const bandScale: Scale = {
  least: 0,
  most: 1,
  logarithmic: false,
  marks: [0, 0.2, 0.4, 0.6, 0.8, 1].map((value) => ({ value, label: String(value) })),
  step: 1 / 100,
  text: (value) => value.toFixed(2),
}
