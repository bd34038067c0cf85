import { flushPromises } from '@vue/test-utils'
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, test, vi } from 'vitest'
import { api, type Clip, type Shot } from '../api/client'
import { usualBand, usualRecipe } from '../api/generated/settings'
import { useBench } from './bench'
import { useFollows } from './follows'
import { usePull } from './pull'
import { useTimeline } from './timeline'

const clip = { micros: [0, 1e5, 2e5], lasts: 3e5, cuts: [], thumbnails: 1 } as unknown as Clip
const shot = { id: 's', width: 1280, height: 720, depths: [{ hash: 'x' }] } as unknown as Shot
const frames = [0.2, 0.3, 0.4].map((nearness) => ({ x: 0.5, y: 0.5, sure: 2, nearness }))

function opened() {
  const bench = useBench()
  bench.shot = shot
  bench.clip = clip
  bench.stored = { ...usualRecipe, band: { ...usualBand, near: 0.9, far: 0.8 } }
  return bench
}

beforeEach(() => {
  vi.restoreAllMocks()
  vi.useRealTimers()
  setActivePinia(createPinia())
  vi.spyOn(api, 'preview').mockImplementation(async () => new Response(new Blob()))
})

test('a point is asked after until it is tracked, and then the band lies around it', async () => {
  vi.useFakeTimers()
  const asked = vi
    .spyOn(api, 'follow')
    .mockResolvedValueOnce({ done: 0.4, fault: null, frames: [] })
    .mockResolvedValue({ done: 1, fault: null, frames })
  const bench = opened()
  const follows = useFollows()
  follows.add(0.5, 0.5)
  await vi.advanceTimersByTimeAsync(10)
  expect(follows.making[follows.chosen?.id ?? '']?.done).toBe(0.4)
  await vi.advanceTimersByTimeAsync(2000)
  expect(asked).toHaveBeenCalledTimes(2)
  expect(follows.making).toEqual({})
  expect(bench.recipe?.band.near).toBeLessThan(0.4)
})

test('a clip that is opened again, and one that has got more depth, is asked about anew', async () => {
  const asked = vi.spyOn(api, 'follow').mockResolvedValue({ done: 1, fault: null, frames })
  const bench = opened()
  const follows = useFollows()
  follows.add(0.5, 0.5)
  await flushPromises()
  const recipe = bench.stored
  bench.stored = undefined
  bench.tracks = {}
  await flushPromises()
  bench.stored = recipe
  await flushPromises()
  expect(asked).toHaveBeenCalledTimes(2)
  expect(Object.keys(bench.tracks)).toHaveLength(1)
  bench.depthPacks = [0]
  await flushPromises()
  expect(asked).toHaveBeenCalledTimes(3)
})

test('a fault is told and not asked after again; points keep names of their own', async () => {
  vi.spyOn(api, 'follow').mockResolvedValue({ done: 0, fault: 'It could not be followed.', frames: [] })
  opened()
  const follows = useFollows()
  follows.add(0.1, 0.1)
  follows.add(0.2, 0.2)
  await flushPromises()
  expect(follows.making[follows.chosen?.id ?? '']?.fault).toContain('could not')
  follows.remove(follows.all[0]?.id ?? '')
  follows.add(0.3, 0.3)
  expect(follows.all.map((each) => each.name)).toEqual(['Point 2', 'Point 3'])
})

test('a first point takes the place of a band that was put once; several marks stay and let it go on', async () => {
  vi.spyOn(api, 'follow').mockResolvedValue({ done: 1, fault: null, frames })
  const bench = opened()
  const mark = { ...usualBand, at: 0, ease: 'hold' as const, curve: [], follow: false }
  bench.stored = { ...usualRecipe, marks: { ...usualRecipe.marks, band: [mark] } }
  useFollows().add(0.5, 0.5)
  expect(bench.stored.marks.band).toEqual([])
  bench.stored = { ...usualRecipe, marks: { ...usualRecipe.marks, band: [mark, { ...mark, at: 0.2 }] } }
  useFollows().add(0.5, 0.5)
  expect(bench.stored.marks.band.map((each) => each.follow)).toEqual([true, true])
  const timeline = useTimeline()
  timeline.chosen = [{ kind: 'band', at: 0 }]
  expect([timeline.canFollow, timeline.followsFromChosen]).toEqual([true, true])
  timeline.ease('straight')
  expect(bench.stored.marks.band.map((each) => each.follow)).toEqual([false, true])
  timeline.follow()
  expect(timeline.followsFromChosen).toBe(true)
})

test('a place that is clicked is focused on at the moment of the click, however late the answer comes', async () => {
  let answer: (band: typeof usualBand) => void = () => undefined
  vi.spyOn(api, 'focus').mockReturnValue(new Promise((resolve) => (answer = resolve)))
  const bench = opened()
  const late = bench.focusOn({ kind: 'spot', x: 0.5, y: 0.5 }, 'Focus on a spot')
  bench.turnTo(2)
  answer({ ...usualBand, near: 0.9, far: 0.8 })
  await late
  expect(bench.stored?.marks.band.map(({ at, near }) => [at, near])).toEqual([[0, 0.9]])
  expect(bench.frame).toBe(2)
})

test('two clicks at two moments are one pull, and two at one are none', async () => {
  vi.spyOn(api, 'focus')
    .mockResolvedValueOnce({ ...usualBand, near: 0.9, far: 0.8 })
    .mockResolvedValueOnce({ ...usualBand, near: 0.3, far: 0.2 })
  const bench = opened()
  const rewrite = vi.spyOn(bench, 'rewrite')
  const pull = usePull()
  pull.toggle()
  await pull.click({ kind: 'spot', x: 0.5, y: 0.5 })
  await pull.click({ kind: 'spot', x: 0.5, y: 0.5 })
  expect(bench.notice).toContain('another moment')
  expect(pull.words).toBe('Click where it ends')
  bench.turnTo(2)
  await pull.click({ kind: 'spot', x: 0.2, y: 0.5 })
  expect(bench.stored?.marks.band.map(({ at, near }) => [at, near])).toEqual([
    [0, 0.9],
    [0.2, 0.3],
  ])
  expect(rewrite).toHaveBeenCalledTimes(1)
  expect(pull.active).toBe(false)
})

test('the nearer eye of the face is followed with one key, and without a face that is told', async () => {
  vi.spyOn(api, 'follow').mockResolvedValue({ done: 1, fault: null, frames })
  const eyes = [
    { x: 0.25, y: 0.5 },
    { x: 0.75, y: 0.5 },
  ]
  const face = { number: 1, left: 0.2, top: 0.4, width: 0.6, height: 0.4, eyes }
  const things = { width: 0, height: 0, labels: '', things: [], faces: [face] }
  const asked = vi.spyOn(api, 'things').mockResolvedValue(things)
  const bench = opened()
  bench.nearness = { width: 2, height: 1, samples: new Uint16Array([30000, 40000]) }
  const follows = useFollows()
  await follows.addEye()
  expect(follows.chosen).toMatchObject({ eye: true, name: 'Eye 1', puts: [{ x: 0.75, y: 0.5 }] })
  bench.things = undefined
  asked.mockResolvedValue({ ...things, faces: [] })
  await follows.addEye()
  expect(follows.all).toHaveLength(1)
  expect(bench.notice).toContain('No face')
})
