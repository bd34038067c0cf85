import { afterEach, expect, it, vi } from 'vitest'
import { loadAnew } from './anew'

const GONE = new TypeError('Failed to fetch dynamically imported module: http://127.0.0.1/assets/Settings-1.js')
const HERE = { pathname: '/shoots', search: '', hash: '' }

afterEach(() => vi.unstubAllGlobals())

async function wentTo(fault: unknown, to: string, answers: () => Promise<Response>): Promise<unknown[]> {
  vi.stubGlobal('fetch', answers)
  const go = vi.fn()
  await loadAnew(fault, to, HERE, go)
  return go.mock.calls.flat()
}

const there = () => Promise.resolve(new Response(null, { status: 200 }))

it('loads a page anew where it was going when its parts are gone from the server', async () => {
  expect(await wentTo(GONE, '/settings?a=1', there)).toEqual(['/settings?a=1'])
})

it('stays while the server is away, when it is there already, and for other faults', async () => {
  expect(await wentTo(GONE, '/settings', () => Promise.reject(new TypeError('no connection')))).toEqual([])
  expect(await wentTo(GONE, '/settings', () => Promise.resolve(new Response(null, { status: 502 })))).toEqual([])
  expect(await wentTo(GONE, '/shoots', there)).toEqual([])
  expect(await wentTo(new Error('nothing of the kind'), '/settings', there)).toEqual([])
})
