import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, test, vi } from 'vitest'
import { nextTick } from 'vue'
import { api, type Clip, type Delivery, type Recipe, type Shot } from '../api/client'
import { usualRecipe } from '../api/generated/settings'
import { useBench } from './bench'
import { useTimeline } from './timeline'

const band = (at: number, near: number) => ({
  at,
  ease: 'smooth' as const,
  curve: [],
  follow: false,
  ...usualRecipe.band,
  near,
  far: near - 0.1,
})
const pulled: Recipe = { ...usualRecipe, marks: { ...usualRecipe.marks, band: [band(0.2, 0.9), band(0.8, 0.4)] } }

/** A clip of ten frames, a tenth of a second each, with a cut at the sixth. */
async function opened(recipe = pulled) {
  const bench = useBench()
  bench.shot = { id: 's', width: 1280, height: 720, depths: [{ hash: 'x' }] } as unknown as Shot
  bench.clip = {
    micros: Array.from({ length: 10 }, (_, i) => i * 1e5),
    lasts: 1e6,
    cuts: [5],
    thumbnails: 1,
  } as unknown as Clip
  bench.stored = recipe
  const timeline = useTimeline()
  await nextTick()
  return { bench, timeline }
}

beforeEach(() => {
  vi.restoreAllMocks()
  setActivePinia(createPinia())
})

test('a time belongs to the frame that is shown then', async () => {
  const { timeline } = await opened()
  expect([0, 0.099, 0.1, 0.55, 9].map(timeline.frameAt)).toEqual([0, 0, 1, 5, 9])
})

test('jumps go from mark to cut to mark, and to both ends', async () => {
  const { bench, timeline } = await opened()
  const seen: number[] = []
  for (let i = 0; i < 5; i++) {
    timeline.jump(1)
    seen.push(bench.frame)
  }
  expect(seen).toEqual([2, 5, 8, 9, 9])
  timeline.jump(-1)
  expect(bench.frame).toBe(8)
})

test('in and out are never the wrong way round', async () => {
  const { timeline } = await opened()
  timeline.setIn(6)
  timeline.setOut(2)
  expect([timeline.from, timeline.end]).toEqual([0, 3])
  timeline.setIn(4)
  expect([timeline.from, timeline.end]).toEqual([4, 10])
})

test('marks that are dragged become one step when they are let go', async () => {
  const { bench, timeline } = await opened()
  const rewrite = vi.spyOn(bench, 'rewrite')
  timeline.chosen = [{ kind: 'band', at: 0.2 }]
  timeline.drag(0.1, false)
  timeline.drag(0.3, false)
  expect(bench.stored?.marks.band.map((each) => each.at)).toEqual([0.5, 0.8])
  expect(rewrite).not.toHaveBeenCalled()
  timeline.drop('Mark moved')
  timeline.drop('Mark moved')
  expect(rewrite).toHaveBeenCalledOnce()
})

test('a mark that is raised changes its value and keeps its time', async () => {
  const { bench, timeline } = await opened()
  timeline.chosen = [{ kind: 'band', at: 0.8 }]
  timeline.raise(0.2)
  expect(bench.stored?.marks.band[1]).toMatchObject({ at: 0.8, near: expect.closeTo(0.6) as number })
})

test('the ease of the chosen marks is told when they have one', async () => {
  const { bench, timeline } = await opened()
  timeline.chosen = [
    { kind: 'band', at: 0.2 },
    { kind: 'band', at: 0.8 },
  ]
  expect(timeline.easeOfChosen).toBe('smooth')
  timeline.chosen = [{ kind: 'band', at: 0.2 }]
  timeline.ease('hold')
  expect(bench.stored?.marks.band.map((each) => each.ease)).toEqual(['hold', 'smooth'])
})

test('what was rendered is no longer fresh when the recipe changes', async () => {
  const { bench, timeline } = await opened()
  const play = vi.spyOn(api, 'play').mockResolvedValue({ id: 'd', state: 'done', progress: 1 } as unknown as Delivery)
  timeline.setIn(2)
  await timeline.render()
  expect(play.mock.calls[0]?.[1]).toMatchObject({ frames: { from: 2, end: 10 }, longSide: 854 })
  expect(timeline.fresh).toBe(true)
  bench.stored = { ...pulled, opacity: 0.5 }
  expect(timeline.fresh).toBe(false)
})

test('a stretch that cannot be rendered says why', async () => {
  const { bench, timeline } = await opened()
  vi.spyOn(api, 'play').mockRejectedValue(new Error('The depth of this stretch is not there yet.'))
  await timeline.render()
  expect(bench.notice).toBe('The depth of this stretch is not there yet.')
})
