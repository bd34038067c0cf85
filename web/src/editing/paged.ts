import { ref, shallowRef } from 'vue'

export type Page<T> = { items: T[]; next: string | null }

/** A list that comes a page at a time. What was loaded for another list meanwhile is dropped. */
export function usePaged<T extends { id: string }>(fetch: (after: string | null) => Promise<Page<T>>) {
  const items = shallowRef<T[]>([])
  const next = ref<string | null>(null)
  let ticket = 0
  let busy = false

  function clear(): void {
    ticket++
    busy = false
    items.value = []
    next.value = null
  }

  /** From its beginning, as far as it is shown already. */
  async function load(): Promise<void> {
    const own = ++ticket
    const wanted = items.value.length
    let all: T[] = []
    let after: string | null = null
    do {
      const page: Page<T> = await fetch(after)
      if (own !== ticket) return
      all = [...all, ...page.items]
      after = page.next
    } while (after !== null && all.length < wanted)
    items.value = all
    next.value = after
  }

  /** The next page, if there is one. */
  async function more(): Promise<void> {
    if (next.value === null || busy) return
    const own = ticket
    busy = true
    try {
      const page = await fetch(next.value)
      if (own !== ticket) return
      const known = new Set(items.value.map((each) => each.id))
      items.value = [...items.value, ...page.items.filter((each) => !known.has(each.id))]
      next.value = page.next
    } finally {
      busy = false
    }
  }

  return { items, next, load, more, clear }
}
