import type { Recipe } from '../api/client'
import { settings, type SettingPath } from '../api/generated/settings'

/** A number that a recipe has once, not in each of its touch-ups. */
export type RecipePath = Exclude<
  SettingPath,
  `touchup.${string}` | `stroke.${string}` | `follow.${string}` | `shape.${string}` | `rung.${string}`
>

export type Setting = {
  least: number
  most: number
  usual: number
  unit: string
  called: string
  means: string
  usualBy?: Readonly<Record<string, number>>
}

export const RECIPE_PATHS = Object.keys(settings).filter(
  (path) => !/^(touchup|stroke|follow|shape|rung)\./.test(path),
) as RecipePath[]

/** As the format declares it: range, default, unit and name. */
export function setting(path: SettingPath): Setting {
  return settings[path]
}

export function valueAt(recipe: Recipe, path: RecipePath): number {
  return path.split('.').reduce<unknown>((part, key) => (part as Record<string, unknown>)[key], recipe) as number
}

/** What becomes of a recipe when one number of it changes. */
export function changed(recipe: Recipe, path: RecipePath, value: number): Partial<Recipe> {
  const [part, ...keys] = path.split('.') as [keyof Recipe, ...string[]]
  return { [part]: within(recipe[part], keys, value) }
}

function within(part: unknown, [key, ...rest]: string[], value: number): unknown {
  if (key === undefined) return value
  return { ...(part as object), [key]: within((part as Record<string, unknown>)[key], rest, value) }
}

const percent = (value: number): string => `${Math.round(value * 100)} %`

const texts: Record<string, (value: number) => string> = {
  share: percent,
  nearness: (value) => value.toFixed(2),
  side: percent,
  percent: (value) => `${Math.round(value)} %`,
  degrees: (value) => `${Math.round(value)}°`,
  factor: percent,
  millimetres: (value) => `${Math.round(value * 10) / 10} mm`,
  metres: (value) => `${Math.round(value * 100) / 100} m`,
  stops: (value) => `${value > 0 ? '+' : ''}${value.toFixed(1)} stops`,
  none: (value) => `${Math.round(value * 100) / 100}`,
}

/** A value with its unit, as it is shown. */
export function textOf(path: SettingPath, value: number): string {
  return (texts[setting(path).unit] as (value: number) => string)(value)
}

const STEPS: Record<string, number> = { stops: 0.1, degrees: 1, percent: 1, metres: 0.1, millimetres: 1 }

/** What a slider or a field for a number needs. */
export function control(path: SettingPath): { label: string; hint: string; least: number; most: number; step: number } {
  const { called, means, least, most, unit } = setting(path)
  return { label: called, hint: means.charAt(0).toUpperCase() + means.slice(1), least, most, step: STEPS[unit] ?? 0.01 }
}
