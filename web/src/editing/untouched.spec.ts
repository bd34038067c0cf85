import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'
import { api, type Shot } from '../api/client'
import { useUntouched } from './untouched'

type Bitmap = ImageBitmap & { closed: boolean }

const shot = { id: 's', width: 6000, height: 4000, picture: 'p' } as Shot

function untouched() {
  return useUntouched({
    shot: shallowRef<Shot | undefined>(shot),
    frame: ref(0),
    sight: {} as Parameters<typeof useUntouched>[0]['sight'],
    isCompared: () => false,
    attempt: (work) => work(),
  })
}

describe('the untouched photo', () => {
  let photo: (blob: Blob) => void
  let small: (blob: Blob) => void
  let made: Bitmap[]

  beforeEach(() => {
    made = []
    vi.spyOn(api, 'photo').mockImplementation(() => new Promise((done) => (photo = done)))
    vi.spyOn(api, 'thumbnailOf').mockImplementation(() => new Promise((done) => (small = done)))
    vi.stubGlobal('createImageBitmap', async (blob: Blob) => {
      const bitmap = { width: blob.size, closed: false, close: () => (bitmap.closed = true) } as unknown as Bitmap
      made.push(bitmap)
      return bitmap
    })
  })
  afterEach(() => {
    vi.unstubAllGlobals()
    vi.restoreAllMocks()
  })

  const answered = async (answer: (blob: Blob) => void, width: number) => {
    answer(new Blob(['x'.repeat(width)]))
    await new Promise((done) => setTimeout(done))
  }

  it('is shown small until it is there', async () => {
    const { original, open } = untouched()
    void open(shot)
    await answered(small, 480)
    expect(original.value?.width).toBe(480)
    await answered(photo, 1600)
    expect(original.value?.width).toBe(1600)
    expect(made[0]?.closed).toBe(true)
  })

  it('is not replaced by a small one that comes late', async () => {
    const { original, open } = untouched()
    void open(shot)
    await answered(photo, 1600)
    await answered(small, 480)
    expect(original.value?.width).toBe(1600)
    expect(made[1]?.closed).toBe(true)
  })

  it('leaves nothing behind when one goes on to another shot', async () => {
    const { original, open, close } = untouched()
    void open(shot)
    close()
    await answered(small, 480)
    await answered(photo, 1600)
    expect(original.value).toBeUndefined()
    expect(made.every((each) => each.closed)).toBe(true)
  })

  it('is shown although there is no small one', async () => {
    vi.spyOn(api, 'thumbnailOf').mockRejectedValue(new Error('gone'))
    const { original, open } = untouched()
    void open(shot)
    await answered(photo, 1600)
    expect(original.value?.width).toBe(1600)
  })
})
