import { expect, it } from 'vitest'
import { subjectsOf } from './subjects'

it('steps through faces before other things', () => {
  const found = {
    width: 2,
    height: 1,
    labels: 'AQI=',
    things: [{ number: 1, x: 0.5, y: 0.6 }],
    faces: [{ number: 1, left: 0.2, top: 0.1, width: 0.2, height: 0.4, eyes: [] }],
  }
  const [face, thing] = subjectsOf(found)
  expect(face).toMatchObject({ kind: 'face', number: 1 })
  expect([face?.x, face?.y]).toEqual([expect.closeTo(0.3), expect.closeTo(0.3)])
  expect(thing).toEqual({ kind: 'thing', number: 1, x: 0.5, y: 0.6 })
  expect(subjectsOf(undefined)).toEqual([])
})
