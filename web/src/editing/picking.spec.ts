import { expect, test } from 'vitest'
import { boxBetween, sidesAt, stretched } from './picking'

test('a box is the same from whichever corner it is drawn, and stays in the picture', () => {
  expect(boxBetween({ x: 0.5, y: 0.6 }, { x: 0.25, y: 0.1 })).toEqual({
    left: 0.25,
    top: 0.1,
    width: 0.25,
    height: 0.5,
  })
  expect(boxBetween({ x: -0.4, y: 0.5 }, { x: 0.5, y: 1.7 })).toEqual({ left: 0, top: 0.5, width: 0.5, height: 0.5 })
})

test('a click draws no box', () => {
  expect(boxBetween({ x: 0.5, y: 0.5 }, { x: 0.501, y: 0.9 })).toBeUndefined()
})

test('a corner moves two sides, an edge one, the inside none', () => {
  const box = { left: 0.2, top: 0.2, width: 0.4, height: 0.4 }
  expect(sidesAt(box, 0.205, 0.2, 0.01, 0.01)).toEqual({ left: true, top: true, right: false, bottom: false })
  expect(sidesAt(box, 0.4, 0.605, 0.01, 0.01)).toEqual({ left: false, top: false, right: false, bottom: true })
  expect(sidesAt(box, 0.4, 0.4, 0.01, 0.01)).toBeUndefined()
  expect(sidesAt(box, 0.6, 0.9, 0.01, 0.01)).toBeUndefined()
})

test('a side that is pulled past the other turns the box over', () => {
  const box = { left: 0.2, top: 0.2, width: 0.4, height: 0.4 }
  const right = { left: false, top: false, right: true, bottom: false }
  expect(stretched(box, right, 0.8, 0.9)).toEqual({ left: 0.2, top: 0.2, width: 0.6, height: 0.4 })
  expect(stretched(box, right, 0.1, 0.9)).toEqual({ left: 0.1, top: 0.2, width: 0.1, height: 0.4 })
  expect(stretched(box, right, 0.2, 0.9)).toEqual(box)
})
