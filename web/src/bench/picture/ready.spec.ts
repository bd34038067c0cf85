// @vitest-environment happy-dom
import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, type Shot } from '../../api/client'
import { firstSide, makeReady, makeReadyClosely, rememberRoom } from './ready'

describe('what will probably be looked at', () => {
  const ready = vi.spyOn(api, 'ready').mockResolvedValue(new Response())
  const shot = (id: string, more: Partial<Shot> = {}): Shot =>
    ({ id, width: 6000, height: 4000, state: 'ready', ...more }) as Shot

  beforeEach(() => {
    setActivePinia(createPinia())
    ready.mockClear()
    localStorage.clear()
  })

  it('is made ready at the size at which the Bench will ask for it', async () => {
    await makeReady(shot('before'))
    expect(ready).not.toHaveBeenCalled()
    rememberRoom({ width: 1024, height: 624 })
    await makeReady(shot('wide'))
    expect(ready).toHaveBeenCalledWith('wide', 900, 1600)
    expect(firstSide({ width: 4000, height: 6000 }, { width: 1024, height: 624 }, 2)).toBe(1200)
    // Never enlarged, and no larger than a preview of the whole is drawn.
    expect(firstSide({ width: 300, height: 200 }, { width: 1024, height: 624 }, 1)).toBe(300)
    expect(firstSide({ width: 6000, height: 4000 }, { width: 5000, height: 4000 }, 1)).toBe(2560)
  })

  it('is asked for once in a while, and only when it has depth', async () => {
    rememberRoom({ width: 1024, height: 624 })
    await makeReady(shot('one'))
    await makeReady(shot('one'))
    await makeReady(shot('waits', { state: 'estimating' }))
    expect(ready).toHaveBeenCalledTimes(1)
  })

  it('is drawn later when the server cannot do it now', async () => {
    rememberRoom({ width: 1024, height: 624 })
    ready.mockRejectedValueOnce(new Error('busy'))
    await expect(makeReady(shot('later'))).resolves.toBeUndefined()
  })

  it('is made ready closely where more can be seen than a preview of the whole shows', async () => {
    const closely = vi.spyOn(api, 'readyAtFullSize').mockResolvedValue(new Response())
    await makeReadyClosely(shot('small', { width: 2400, height: 1600 }), 'v')
    await makeReadyClosely(shot('clip', { clip: {} as Shot['clip'] }), 'v')
    expect(closely).not.toHaveBeenCalled()
    await makeReadyClosely(shot('large'), 'v')
    expect(closely).toHaveBeenCalledExactlyOnceWith('large', 'v')
    closely.mockRejectedValueOnce(new Error('busy'))
    await expect(makeReadyClosely(shot('large'), 'v')).resolves.toBeUndefined()
  })
})
