import type { PendingEdit } from './saving'

/** Where edits of a version are kept until the server has them. */
export function pendingStorage(version: string) {
  const key = `unsent:${version}`
  return {
    load: (): PendingEdit[] => {
      try {
        return JSON.parse(localStorage.getItem(key) ?? '[]') as PendingEdit[]
      } catch {
        return []
      }
    },
    save: (edits: PendingEdit[]): void => {
      try {
        if (edits.length) localStorage.setItem(key, JSON.stringify(edits))
        else localStorage.removeItem(key)
      } catch {
        // Thousands of strokes pass what a browser keeps: then they live as long as the page.
        localStorage.removeItem(key)
      }
    },
  }
}
