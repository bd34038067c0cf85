import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'
import { api, type Recipe, type Shot, type Version } from '../api/client'
import { usePictures, type Compare } from './pictures'

type Asked = { longSide: number; region?: { x: number; y: number; width: number; height: number } }

const shot = { id: 's', width: 6000, height: 4000 } as Shot
const recipe = { touchups: [] } as unknown as Recipe
const part = (x: number, width = 0.15) => ({ x, y: 0.4, width, height: width })
let asked: Asked[] = []

function opened() {
  const pictures = usePictures({
    shot: shallowRef<Shot | undefined>(shot),
    recipe: shallowRef<Recipe | undefined>(recipe),
    frame: ref(0),
    atMoment: (whole) => whole,
    versions: shallowRef<Version[]>([]),
    version: shallowRef(),
    compare: ref<Compare>('none'),
    holding: ref(false),
    isMoving: () => false,
    isPainting: () => false,
    tell: () => undefined,
  })
  pictures.begin()
  return pictures
}

describe('looking closer', () => {
  beforeEach(() => {
    vi.useFakeTimers()
    asked = []
    vi.spyOn(api, 'preview').mockImplementation(async (_id, wish) => {
      const { longSide, region } = wish as Asked
      asked.push({ longSide, ...(region && { region }) })
      const at = region ?? { x: 0, y: 0, width: 1, height: 1 }
      const place = [at.x, at.y, at.width, at.height].map((each) => Math.round(each * longSide)).join(' ')
      return new Response(new Blob(), {
        headers: { 'X-Region': `${place} ${longSide} ${longSide}`, size: `${at.width * longSide}` },
      })
    })
    vi.stubGlobal('createImageBitmap', async () => ({
      width: Math.ceil((asked.at(-1)?.region?.width ?? 1) * (asked.at(-1)?.longSide ?? 1)),
      height: 1,
      close: () => undefined,
    }))
  })
  afterEach(() => {
    vi.useRealTimers()
    vi.unstubAllGlobals()
    vi.restoreAllMocks()
  })

  it('draws where a zoom rests, and no size on the way', async () => {
    const { shown } = opened()
    shown.look(1000, 1000, { x: 0, y: 0, width: 1, height: 1 })
    await vi.advanceTimersByTimeAsync(10)
    expect(shown.previewState.value).toBe('final')
    for (const side of [1600, 2400, 3600, 6000]) {
      shown.look(side, 1000, part(0.4))
      await vi.advanceTimersByTimeAsync(40)
    }
    expect(asked).toHaveLength(1)
    expect(shown.previewState.value).toBe('refining')
    await vi.advanceTimersByTimeAsync(120)
    expect(asked.map(({ longSide }) => longSide)).toEqual([1000, 6000])
    expect(shown.previewState.value).toBe('final')
  })

  it('draws what comes into sight at once at a size that is there', async () => {
    const { shown, request } = opened()
    shown.look(6000, 1000, part(0.4))
    request(recipe, false)
    await vi.advanceTimersByTimeAsync(10)
    shown.look(6000, 1000, part(0.7))
    await vi.advanceTimersByTimeAsync(0)
    expect(asked.map(({ longSide }) => longSide)).toEqual([6000, 6000])
    expect(asked[1]?.region?.x).toBeCloseTo(0.7, 1)
  })

  it('asks for nothing when one goes back before it rests', async () => {
    const { shown } = opened()
    shown.look(1000, 1000, { x: 0, y: 0, width: 1, height: 1 })
    await vi.advanceTimersByTimeAsync(10)
    shown.look(6000, 1000, part(0.4))
    shown.look(1000, 1000, { x: 0, y: 0, width: 1, height: 1 })
    await vi.advanceTimersByTimeAsync(500)
    expect(asked).toHaveLength(1)
    expect(shown.previewState.value).toBe('final')
  })
})
