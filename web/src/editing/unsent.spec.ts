import { afterEach, describe, expect, it, vi } from 'vitest'
import { usualRecipe } from '../api/generated/settings'
import { pendingStorage } from './unsent'

const edit = { step: 'Lens', recipe: usualRecipe }

function browser(room: number) {
  const kept = new Map<string, string>()
  vi.stubGlobal('localStorage', {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => {
      if (value.length > room) throw new DOMException('full', 'QuotaExceededError')
      kept.set(key, value)
    },
    removeItem: (key: string) => kept.delete(key),
  })
  return kept
}

describe('unsent edits', () => {
  afterEach(() => vi.unstubAllGlobals())

  it('are there after a reload, for their version only, until they are sent', () => {
    const kept = browser(1e6)
    pendingStorage('a').save([edit])
    expect(pendingStorage('a').load()).toEqual([edit])
    expect(pendingStorage('b').load()).toEqual([])
    pendingStorage('a').save([])
    expect(kept.size).toBe(0)
  })

  it('that do not fit leave nothing older behind, which would be sent in their place', () => {
    const kept = browser(JSON.stringify([edit]).length)
    pendingStorage('a').save([edit])
    pendingStorage('a').save([edit, edit])
    expect(kept.size).toBe(0)
    expect(pendingStorage('a').load()).toEqual([])
  })

  it('that cannot be read are none', () => {
    browser(1e6).set('unsent:a', '{ cut o')
    expect(pendingStorage('a').load()).toEqual([])
  })
})
