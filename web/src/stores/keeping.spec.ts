import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, expect, test, vi } from 'vitest'
import { api, type Clip, type Shot } from '../api/client'
import { usualRecipe } from '../api/generated/settings'
import { useBench } from './bench'
import { useKeeping } from './keeping'
import { useTouchups } from './touchups'

const clip = { micros: [0, 1e5, 2e5], lasts: 3e5, cuts: [], thumbnails: 1 } as unknown as Clip
const shot = { id: 's', width: 1280, height: 720, depths: [{ hash: 'x' }] } as unknown as Shot
const dot = { x: 0.25, y: 0.5, pressure: 1 }

function opened() {
  const bench = useBench()
  bench.shot = shot
  bench.clip = clip
  bench.stored = { ...usualRecipe }
  return bench
}

beforeEach(() => {
  vi.restoreAllMocks()
  vi.useFakeTimers()
  setActivePinia(createPinia())
  vi.spyOn(api, 'preview').mockImplementation(async () => new Response(new Blob()))
  vi.spyOn(api, 'mask').mockImplementation(async () => new ArrayBuffer(8))
})

const carried = (done: number) => ({ done, waits: false, fault: null, seen: done < 1 ? [] : [{ from: 0, to: 2 }] })

test('a click begins to keep a subject, which is asked after until it is carried', async () => {
  const asked = vi.spyOn(api, 'keep').mockResolvedValueOnce(carried(0.4)).mockResolvedValue(carried(1))
  opened()
  const keeping = useKeeping()
  keeping.click(dot)
  await vi.advanceTimersByTimeAsync(10)
  const made = keeping.chosen
  expect(made?.action).toBe('focus')
  expect(made?.kept).toMatchObject([{ at: 0, by: 'click', left: 0, width: 1 }])
  expect(keeping.making[made?.id ?? '']?.done).toBe(0.4)
  await vi.advanceTimersByTimeAsync(2000)
  expect(keeping.making).toEqual({})
  expect(keeping.seenFrames).toBe(2)
  expect(keeping.unseen).toEqual([{ from: 2, end: 3, hidden: true }])
  expect(asked).toHaveBeenCalledTimes(2)
  // How strong it is changes nothing of where it is.
  keeping.swap()
  await vi.advanceTimersByTimeAsync(2000)
  expect(asked).toHaveBeenCalledTimes(2)
})

test('what is painted on a touch-up is carried along from the frame that is shown', async () => {
  vi.spyOn(api, 'keep').mockResolvedValue(carried(1))
  const bench = opened()
  const keeping = useKeeping()
  const touchups = useTouchups()
  touchups.add('blur')
  touchups.begin(dot)
  touchups.go([{ ...dot, x: 0.4 }])
  touchups.end()
  const [painted] = touchups.all
  if (!painted) throw new Error('nothing was painted')
  expect(keeping.canCarry(painted)).toBe(true)
  bench.turnTo(2)
  keeping.carryAlong(painted)
  expect(touchups.all).toMatchObject([
    { id: painted.id, action: 'blur', strokes: [], kept: [{ at: 0.2, by: 'painted', marks: painted.strokes }] },
  ])
  expect(touchups.all.some(keeping.canCarry)).toBe(false)
})

test('marks of one moment belong together, and others are added behind them', async () => {
  vi.spyOn(api, 'keep').mockResolvedValue(carried(1))
  const bench = opened()
  const keeping = useKeeping()
  keeping.click(dot)
  keeping.putRight([dot, { ...dot, x: 0.3 }])
  expect(keeping.chosen?.kept.map((each) => [each.by, each.marks.length])).toEqual([['click', 2]])
  bench.turnTo(2)
  expect(keeping.here).toBeUndefined()
  useTouchups().erasing = true
  keeping.putRight([dot])
  expect(keeping.chosen?.kept).toMatchObject([{ by: 'click' }, { by: 'carried', at: 0.2, marks: [{ erases: true }] }])
  keeping.unmark(0)
  expect(keeping.chosen?.kept).toHaveLength(1)
  keeping.putRight([dot])
  keeping.forgetLast()
  expect(keeping.chosen?.kept).toHaveLength(1)
})

test('what is kept is sharp or blurred, and goes when its click is taken away', () => {
  vi.spyOn(api, 'keep').mockResolvedValue(carried(1))
  opened()
  const keeping = useKeeping()
  keeping.click(dot)
  keeping.swap()
  expect(keeping.chosen?.action).toBe('blur')
  keeping.swap()
  expect(keeping.chosen).toMatchObject({ action: 'focus', strength: 1 })
  keeping.unmark(0)
  expect(keeping.all).toEqual([])
})
