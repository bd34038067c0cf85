import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type Shot } from '../api/client'
import { useEvents } from './events'
import { useShoots } from './shoots'

const shot = (id: string, shootId = 'a', revision = 1): Shot =>
  ({ id, shootId, name: `${id}.jpg`, revision, state: 'waiting', progress: 0, depths: [] }) as unknown as Shot
const shoot = (id: string, shots = 1) => ({ id, name: id, shots })
const page = <T>(...items: T[]) => ({ items, next: null })
const file = (name: string, bytes = 10): File => ({ name, size: bytes }) as File

describe('shoots', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.restoreAllMocks()
    vi.spyOn(api, 'shoots').mockResolvedValue(page(shoot('a'), shoot('b', 0)))
    vi.spyOn(api, 'shotsOf').mockImplementation(async (id) => (id === 'a' ? page(shot('one')) : page()))
  })

  it('open with the newest, or the one that is wanted', async () => {
    const store = useShoots()
    await store.load()
    expect([store.current, store.shots.map((each) => each.id)]).toEqual(['a', ['one']])
    await store.open('b')
    expect([store.current, store.shots]).toEqual(['b', []])
    await store.open('gone')
    expect(store.current).toBe('a')
  })

  it('are looked for on later pages', async () => {
    vi.spyOn(api, 'shoots').mockImplementation(async (after) =>
      after === null ? { items: [shoot('a')], next: 'a' } : { items: [shoot('b')], next: null },
    )
    const store = useShoots()
    await store.load('b')
    expect(store.current).toBe('b')
    expect(store.shoots.map((each) => each.id)).toEqual(['a', 'b'])
  })

  it('say why they cannot be loaded', async () => {
    vi.spyOn(api, 'shoots').mockRejectedValue(new Problem(503, 'The database does not answer.'))
    const store = useShoots()
    await store.load()
    expect(store.fault).toBe('The database does not answer.')
    expect(store.loading).toBe(false)
  })

  it('take files in one after the other and keep what went wrong on screen', async () => {
    const store = useShoots()
    await store.load()
    const bringIn = vi.spyOn(api, 'bringIn').mockImplementation(async (_shoot, { name }) => {
      if (name === 'letter.txt') throw new Problem(422, 'letter.txt: this is not a picture')
      return shot('two')
    })
    await store.bringIn('a', [file('letter.txt'), file('large.tif', 300e6), file('two.jpg')])
    expect(bringIn).toHaveBeenCalledTimes(2)
    expect(store.incoming.map(({ name, fault }) => `${name}: ${fault}`)).toEqual([
      'letter.txt: this is not a picture',
      'large.tif: the file has 286 MB; the limit is 200 MB',
    ])
    expect(store.shots.map((each) => each.id)).toEqual(['one', 'two'])
    expect(store.shoots[0]?.shots).toBe(2)
    store.incoming.map(({ key }) => key).forEach(store.dismiss)
    expect(store.incoming).toEqual([])
  })

  it('move on with the events of their shots', async () => {
    const store = useShoots()
    await store.load()
    let source = new EventTarget()
    class Source extends EventTarget {
      constructor() {
        super()
        source = this // eslint-disable-line @typescript-eslint/no-this-alias
      }
      close(): void {}
    }
    vi.stubGlobal('EventSource', Source)
    useEvents().open()
    const data = JSON.stringify({ id: 'one', shootId: 'a', revision: 5, state: 'ready', progress: 1, problem: null })
    source.dispatchEvent(new MessageEvent('shot', { data }))
    expect(store.shots[0]).toMatchObject({ state: 'ready', name: 'one.jpg', revision: 5 })
  })
})
