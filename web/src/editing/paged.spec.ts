import { describe, expect, it } from 'vitest'
import { usePaged } from './paged'

const all = Array.from({ length: 7 }, (_, i) => ({ id: `${i}` }))

function pages(of = all, size = 3) {
  const asked: (string | null)[] = []
  const list = usePaged(async (after) => {
    asked.push(after)
    const from = after === null ? 0 : of.findIndex((each) => each.id === after) + 1
    const items = of.slice(from, from + size)
    return { items, next: from + size < of.length ? (items.at(-1)?.id ?? null) : null }
  })
  return { list, asked }
}

describe('a list that comes a page at a time', () => {
  it('goes on to its end and no further', async () => {
    const { list, asked } = pages()
    await list.load()
    expect(list.items.value).toHaveLength(3)
    for (let i = 0; i < 5; i++) await list.more()
    expect(list.items.value).toEqual(all)
    expect(list.next.value).toBeNull()
    expect(asked).toEqual([null, '2', '5'])
  })

  it('is read anew as far as it is shown', async () => {
    const { list, asked } = pages()
    await list.load()
    await list.more()
    asked.length = 0
    await list.load()
    expect(list.items.value).toHaveLength(6)
    expect(asked).toEqual([null, '2'])
  })

  it('asks once when it is asked twice, and drops what comes too late', async () => {
    const { list, asked } = pages()
    await list.load()
    await Promise.all([list.more(), list.more()])
    expect(asked).toHaveLength(2)
    const late = list.more()
    list.clear()
    await late
    expect(list.items.value).toEqual([])
  })
})
