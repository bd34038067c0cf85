import { expect, test } from 'vitest'
import { usualRecipe } from '../../api/generated/settings'
import { LATEST } from '../../editing/span'
import { lines, ribbon, spanBar, timeText } from './strip'

test('time is written in minutes, seconds and hundredths', () => {
  expect(timeText(0)).toBe('0:00.00')
  expect(timeText(83_416_667)).toBe('1:23.41')
  expect(timeText(3_999_999)).toBe('0:04.00')
})

test('the ribbon has the near edge above and stays visible where the band is a plane', () => {
  const points = ribbon(() => ({ near: 0.75, far: 0.25 }), 4, 6, 100).split(' ')
  expect(points[0]).toBe('0,25.0')
  expect(points.at(-1)).toBe('0,75.0')
  expect(
    ribbon(() => ({ near: 0.5, far: 0.5 }), 4, 3, 100)
      .split(' ')
      .at(-1),
  ).toBe('0,52.0')
})

test('only values with marks have lines, and a wider aperture lies higher', () => {
  expect(lines(usualRecipe.marks, false, 4, 30, 100)).toEqual([])
  const marks = {
    ...usualRecipe.marks,
    aperture: [
      { at: 0, ease: 'straight' as const, curve: [], fNumber: 8, strength: 10 },
      { at: 4, ease: 'straight' as const, curve: [], fNumber: 1.4, strength: 90 },
    ],
  }
  const [line] = lines(marks, false, 4, 30, 100)
  expect(line?.marks.map((each) => each.x)).toEqual([0, 30])
  expect(line?.marks[1]?.y).toBeLessThan(line?.marks[0]?.y ?? 0)
})

test('the bar of a touch-up slopes where it fades, and not at the ends of the clip', () => {
  expect(spanBar({ from: 1, to: 3, fade: 0.5 }, 4, 400, 6)).toEqual({
    from: 100,
    to: 300,
    points: '100,6 150,0 250,0 300,6',
  })
  expect(spanBar({ from: 0, to: LATEST, fade: 0.5 }, 4, 400, 6).points).toBe('0,6 0,0 400,0 400,6')
})
