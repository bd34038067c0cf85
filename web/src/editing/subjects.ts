import type { Things } from '../api/client'

/** Something to focus on, with its middle in shares of the picture. */
export type Subject = { kind: 'face' | 'thing'; number: number; x: number; y: number }

/** Faces before other things. One thing alone needs no choice where there is no face. */
export function subjectsOf(found: Things | undefined): Subject[] {
  if (!found) return []
  const faces = found.faces.map(({ number, left, top, width, height }) => ({
    kind: 'face' as const,
    number,
    x: left + width / 2,
    y: top + height / 2,
  }))
  return [...faces, ...found.things.map((each) => ({ kind: 'thing' as const, ...each }))]
}
