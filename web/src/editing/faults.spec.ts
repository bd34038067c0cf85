import { expect, test } from 'vitest'
import { inspectorText, nextFault } from './faults'

const seen = { verdict: 'skipped' as const }
const open = { verdict: null }

test('the next fault is one that nobody has looked at', () => {
  expect(nextFault([seen, open, seen, open], -1)).toBe(1)
  expect(nextFault([seen, open, seen, open], 1)).toBe(3)
  expect(nextFault([seen, open, seen, open], 3)).toBe(1)
})

test('when all were looked at they can still be gone through', () => {
  expect(nextFault([seen, seen], 0)).toBe(1)
  expect(nextFault([seen, seen], 1)).toBe(0)
  expect(nextFault([], 0)).toBe(-1)
})

test('the inspector says where one is and what is left', () => {
  expect(inspectorText([seen, open, open], 1)).toBe('2 of 3, 2 not looked at')
  expect(inspectorText([seen], 0)).toBe('1 of 1, all looked at')
  expect(inspectorText([], -1)).toBe('No depth breaks off beside an edge')
})
