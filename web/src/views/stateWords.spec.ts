import { describe, expect, it } from 'vitest'
import { nodeProblem, quietText } from './stateWords'

const node = { name: 'east', role: 'all', version: '1', started: '', state: 'ready', problem: '', quiet: 2 }

describe('how the installation is', () => {
  it('tells times in a unit that fits', () => {
    expect([0, 89, 90, 3600, 7200].map(quietText)).toEqual(['0 s', '89 s', '2 min', '60 min', '2 h'])
  })

  it('names what is wrong with a node', () => {
    expect(nodeProblem(node)).toBe('')
    expect(nodeProblem({ ...node, problem: 'clock' })).toBe('clock')
    expect(nodeProblem({ ...node, state: 'gone' })).toContain('gone')
  })
})
