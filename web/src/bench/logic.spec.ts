import { describe, expect, it, vi } from 'vitest'
import { Problem, type Recipe, type Version } from '../api/client'
import { colours } from '../editing/depthViews'
import { apertureScale, share, shareAt, valueAt } from './decks/dial'
import { radiusPerNearness } from './decks/lens'
import { decodeNearness, histogram, nearnessAt, occupied, outside } from '../editing/nearness'
import { usePreviewLoop, type Quality } from '../editing/previewLoop'
import { useSaving, type PendingEdit, type SavingState } from '../editing/saving'
import { fit, toShares, zoomAt } from './picture/viewport'

const band = { near: 0.6, far: 0.5, nearFalloff: 0.1, farFalloff: 0, tiltAcross: 0, tiltDown: 0 }
const moment = (ms = 0) => new Promise((resolve) => setTimeout(resolve, ms))

describe('nearness', () => {
  const bytes = new ArrayBuffer(8 + 2 * 4)
  new DataView(bytes).setUint32(0, 2, true)
  new DataView(bytes).setUint32(4, 2, true)
  new Uint16Array(bytes, 8).set([0, 65535, 32768, 65535])

  it('is read as the server writes it', () => {
    const map = decodeNearness(bytes)
    expect(nearnessAt(map, 0.1, 0.1)).toBe(0)
    expect(nearnessAt(map, 0.9, 0.1)).toBe(1)
    expect(nearnessAt(map, -3, 9)).toBeCloseTo(0.5, 4)
    expect(Array.from(histogram(map, 2))).toEqual([expect.closeTo(Math.sqrt(1 / 3), 5), 1])
  })

  it('fills the plan from the farthest to the nearest that occur', () => {
    const samples = Uint16Array.from({ length: 5000 }, (_, i) => (i === 7 ? 65535 : 13107 + i * 2))
    const range = occupied({ width: 100, height: 50, samples })
    expect(range.far).toBeCloseTo(0.2 - 0.03, 1)
    expect(range.near).toBeCloseTo(0.35 + 0.03, 1)
  })

  it('that is cut off is refused', () => {
    expect(() => decodeNearness(bytes.slice(0, 12))).toThrow('incomplete')
  })

  it('outside the band has the distances of the lens', () => {
    expect(outside(band, 0.2)).toBeCloseTo(0.3)
    expect(outside(band, 0.65)).toBeCloseTo(-0.0125)
    expect(outside(band, 0.9)).toBeCloseTo(-0.25)
    expect(outside(band, 0.55)).toBe(0)
  })

  it('is tinted warm in front, cool behind and not at all inside', () => {
    const table = colours('zones', band, 0.5)
    const rgba = (nearness: number) => {
      const packed = table[Math.round((nearness + 2) * 4095)] ?? 0
      return { r: packed & 255, b: (packed >> 16) & 255, a: packed >>> 24 }
    }
    expect(rgba(0.95).r).toBeGreaterThan(rgba(0.95).b)
    expect(rgba(0.1).b).toBeGreaterThan(rgba(0.1).r)
    expect(rgba(0.55).a).toBe(0)
    expect(rgba(0.05).a).toBeGreaterThan(rgba(0.45).a)
  })
})

describe('viewport', () => {
  it('zooms at the pointer', () => {
    const picture = { width: 600, height: 400 }
    const view = fit({ width: 300, height: 300 }, picture)
    const before = toShares(view, picture, 200, 120)
    const after = toShares(zoomAt(view, 2.5, 200, 120, 0.1), picture, 200, 120)
    expect(after.x).toBeCloseTo(before.x)
    expect(after.y).toBeCloseTo(before.y)
  })
})

describe('dial', () => {
  it('gives every stop the same turn', () => {
    const turns = [1, 2, 4, 8].map((stop) => share(apertureScale, stop))
    expect((turns[1] ?? 0) - (turns[0] ?? 0)).toBeCloseTo((turns[3] ?? 0) - (turns[2] ?? 0))
    expect(valueAt(apertureScale, share(apertureScale, 2.8))).toBeCloseTo(2.8)
    expect(shareAt(0, -1)).toBeCloseTo(0.5)
    expect(shareAt(-1, 1)).toBeCloseTo(0)
  })
})

describe('lens', () => {
  it('has the radius of the thin lens', () => {
    const recipe = {
      aperture: { mode: 'f-number', fNumber: 2, focalLength: 50, sensorWidth: 36, distance: 2.5, strength: 0 },
      band: { near: 0.5, far: 0.5 },
    } as Recipe
    expect(radiusPerNearness(recipe, 6000, 4000)).toBeCloseTo((0.0141723 * 6000) / 2 / 0.5, 1)
  })
})

describe('the preview loop', () => {
  it('asks for no more than one preview at a time and never for a stale one', async () => {
    const asked: [number, Quality][] = []
    const shown: number[] = []
    let running = 0
    const loop = usePreviewLoop<number, number>({
      rest: 30,
      fetch: async (wish, quality) => {
        expect(++running).toBe(1)
        asked.push([wish, quality])
        await moment(12)
        running--
        return wish
      },
      show: (result) => shown.push(result),
      state: () => undefined,
    })
    for (let i = 1; i <= 10; i++) {
      loop.request(i, true)
      await moment(4)
    }
    await moment(120)
    // Ten wishes four milliseconds apart, twelve to answer one: those in between are never asked for, however slow the machine.
    expect(asked.length).toBeLessThan(10)
    expect(asked.at(-1)).toEqual([10, 'final'])
    expect(shown.at(-1)).toBe(10)
    expect([...shown].sort((a, b) => a - b)).toEqual(shown)
  })

  it('gives up a final preview when things move on and a draft when they rest, but never a draft for a draft', async () => {
    const given: [number, Quality][] = []
    const shown: [number, Quality][] = []
    const loop = usePreviewLoop<number, number>({
      rest: 1000,
      fetch: (wish, quality, signal) =>
        new Promise((resolve, reject) => {
          const done = setTimeout(() => resolve(wish), 25)
          signal.addEventListener('abort', () => {
            clearTimeout(done)
            given.push([wish, quality])
            reject(new DOMException('given up', 'AbortError'))
          })
        }),
      show: (result, quality) => shown.push([result, quality]),
      state: (state) => expect(state).not.toBe('failed'),
    })
    loop.request(1, false)
    await moment(5)
    loop.request(2, true)
    await moment(5)
    expect(given).toEqual([[1, 'final']])
    loop.request(3, true)
    await moment(35)
    expect(shown).toEqual([[2, 'draft']])
    loop.request(4, false)
    await moment(5)
    expect(given).toEqual([
      [1, 'final'],
      [3, 'draft'],
    ])
    loop.request(5, false)
    await moment(80)
    expect(shown).toEqual([
      [2, 'draft'],
      [4, 'final'],
      [5, 'final'],
    ])
  })

  it('shows drafts also where each takes longer than a rest', async () => {
    const shown: Quality[] = []
    const loop = usePreviewLoop<number, number>({
      rest: 10,
      fetch: async (wish, _, signal) => {
        await moment(30)
        if (signal.aborted) throw new DOMException('given up', 'AbortError')
        return wish
      },
      show: (_, quality) => shown.push(quality),
      state: () => undefined,
    })
    for (let i = 0; i < 8; i++) {
      loop.request(i, true)
      await moment(25)
    }
    expect(shown.filter((each) => each === 'draft').length).toBeGreaterThan(1)
  })

  it('says when a preview fails and goes on with the next', async () => {
    const states: string[] = []
    let fail = true
    const loop = usePreviewLoop<number, number>({
      fetch: async (wish) => {
        if (fail) throw new Error('away')
        return wish
      },
      show: () => undefined,
      state: (state) => states.push(state),
    })
    loop.request(1, false)
    await moment(5)
    fail = false
    loop.request(2, false)
    await moment(5)
    expect(states).toEqual(['refining', 'failed', 'refining', 'final'])
  })
})

describe('saving', () => {
  function bench(send: (edit: PendingEdit, lock: number) => Promise<Version>, kept: PendingEdit[] = []) {
    const states: SavingState[] = []
    const store = { edits: kept }
    const saving = useSaving({
      send,
      saved: () => undefined,
      state: (state) => states.push(state),
      storage: { load: () => [...store.edits], save: (edits) => (store.edits = [...edits]) },
      retry: 10,
    })
    return { saving, states, store }
  }
  const edit = (step: string): PendingEdit => ({ step, recipe: {} as Recipe })

  it('keeps an edit while the database is away and sends it when it is back', async () => {
    let away = true
    const sent: string[] = []
    const { saving, states, store } = bench(async (pending, lock) => {
      if (away) throw new Problem(503, 'no database')
      sent.push(pending.step)
      return { lock: lock + 1 } as Version
    })
    saving.begin({ lock: 4 } as Version)
    saving.push(edit('one'))
    saving.push(edit('two'))
    await moment(25)
    expect(states).toContain('offline')
    expect(store.edits.map((each) => each.step)).toEqual(['one', 'two'])
    away = false
    await moment(40)
    expect(sent).toEqual(['one', 'two'])
    expect(saving.lock()).toBe(6)
    expect(store.edits).toEqual([])
    expect(states.at(-1)).toBe('saved')
  })

  it('waits with an edit where something comes first, but not when it must be sent', async () => {
    const sent: string[] = []
    const { saving, states, store } = bench(async (pending, lock) => {
      sent.push(pending.step)
      return { lock: lock + 1 } as Version
    })
    saving.begin({ lock: 0 } as Version)
    saving.push(edit('later'), 30)
    expect(store.edits).toHaveLength(1)
    expect(states).toEqual(['saving'])
    await moment(5)
    expect(sent).toEqual([])
    await moment(50)
    expect(sent).toEqual(['later'])
    saving.push(edit('needed'), 1000)
    expect(await saving.whenSent()).toBe(true)
    expect(sent).toEqual(['later', 'needed'])
  })

  it('sends what waits when one moves on, and says nothing more', async () => {
    const sent: string[] = []
    const { saving, states, store } = bench(async (pending, lock) => {
      sent.push(pending.step)
      return { lock: lock + 1 } as Version
    })
    saving.begin({ lock: 0 } as Version)
    saving.push(edit('last'), 1000)
    saving.stop()
    const told = states.length
    await moment(5)
    expect(sent).toEqual(['last'])
    expect(store.edits).toEqual([])
    expect(states).toHaveLength(told)
  })

  it('sends what a page before left behind', async () => {
    const send = vi.fn(async (_: PendingEdit, lock: number) => ({ lock: lock + 1 }) as Version)
    const { saving } = bench(send, [edit('before the reload')])
    saving.begin({ lock: 0 } as Version)
    await moment(5)
    expect(send.mock.calls[0]?.[0].step).toBe('before the reload')
  })

  it('stops when another tab was faster', async () => {
    const send = vi.fn(async () => {
      throw new Problem(409, 'changed in another tab')
    })
    const { saving, states } = bench(send)
    saving.begin({ lock: 0 } as Version)
    saving.push(edit('late'))
    saving.push(edit('later'))
    await moment(30)
    expect(states.at(-1)).toBe('conflict')
    expect(send).toHaveBeenCalledTimes(1)
  })

  it('drops an edit that will never be taken and sends the next', async () => {
    const sent: string[] = []
    const { saving, states } = bench(async (pending, lock) => {
      if (pending.step === 'bad') throw new Problem(422, 'out of range')
      sent.push(pending.step)
      return { lock: lock + 1 } as Version
    })
    saving.begin({ lock: 0 } as Version)
    saving.push(edit('bad'))
    saving.push(edit('good'))
    await moment(20)
    expect(states).toContain('refused')
    expect(sent).toEqual(['good'])
  })

  it('says when the step taken just now has been sent, so that undo can take it back', async () => {
    const sent: string[] = []
    const { saving } = bench(async (pending, lock) => {
      await moment(5)
      if (pending.step === 'late') throw new Problem(409, 'changed in another tab')
      sent.push(pending.step)
      return { lock: lock + 1 } as Version
    })
    saving.begin({ lock: 0 } as Version)
    expect(await saving.whenSent()).toBe(true)
    saving.push(edit('one'))
    saving.push(edit('two'))
    expect(await saving.whenSent()).toBe(true)
    expect(sent).toEqual(['one', 'two'])
    expect(saving.lock()).toBe(2)
    saving.push(edit('late'))
    expect(await saving.whenSent()).toBe(false)
    saving.push(edit('after the conflict'))
    expect(await saving.whenSent()).toBe(false)
  })
})
