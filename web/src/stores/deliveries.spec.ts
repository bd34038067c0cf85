import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import { api, Problem, type Delivery } from '../api/client'
import { useDeliveries } from './deliveries'

const delivery = (id: string): Delivery => ({ id, state: 'done' }) as unknown as Delivery

describe('deliveries', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.restoreAllMocks()
    vi.spyOn(api, 'deliveries').mockImplementation(async (after) =>
      after === null ? { items: [delivery('b')], next: 'b' } : { items: [delivery('a')], next: null },
    )
  })

  it('are shown a page at a time', async () => {
    const store = useDeliveries()
    await store.load()
    expect([store.deliveries.length, store.more]).toEqual([1, true])
    await store.showMore()
    expect([store.deliveries.map(({ id }) => id), store.more]).toEqual([['b', 'a'], false])
  })

  it('that failed are tried again', async () => {
    const store = useDeliveries()
    const asked = vi.spyOn(api, 'tryDeliveryAgain').mockResolvedValue(new Response())
    await store.again('b')
    expect(asked).toHaveBeenCalledWith('b')
    expect([store.fault, store.deliveries.length]).toEqual(['', 1])
  })

  it('keep on screen why one could not be removed, with the list as it is now', async () => {
    const store = useDeliveries()
    vi.spyOn(api, 'deleteDelivery').mockRejectedValue(new Problem(409, 'This delivery is still under way.'))
    await store.remove('b')
    expect(store.fault).toBe('This delivery is still under way.')
    expect(store.deliveries).toHaveLength(1)
    vi.spyOn(api, 'deleteDelivery').mockResolvedValue(new Response())
    await store.remove('b')
    expect(store.fault).toBe('')
  })
})
