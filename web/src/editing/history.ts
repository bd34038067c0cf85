import { computed, type ShallowRef } from 'vue'
import { api, type Problem, type Version } from '../api/client'
import type { useSaving } from './saving'

type Source = {
  version: ShallowRef<Version | undefined>
  saving: () => ReturnType<typeof useSaving> | undefined
  /** A step of the history is the newest state now. */
  moved: (version: Version) => void
  /** Somebody else was faster. */
  outdated: (message: string) => void
  tell: (message: string) => void
}

/** Steps back and forth in what was done to a version. */
export function useHistory({ version, saving, moved, outdated, tell }: Source) {
  const position = (): number => version.value?.position ?? 0
  const positions = (): number[] => version.value?.history.map((each) => each.position) ?? []
  const before = (): number[] => positions().filter((each) => each < position())
  const after = (): number[] => positions().filter((each) => each > position())
  const canUndo = computed(() => before().length > 0)
  const canRedo = computed(() => after().length > 0)

  /** A step taken just now is sent first, so that undo takes back that one. */
  async function goTo(target: () => number): Promise<void> {
    const sending = saving()
    if (!sending || !(await sending.whenSent())) return
    const current = version.value
    const position = target()
    if (!current || sending !== saving() || !Number.isFinite(position)) return
    try {
      const there = await api.goTo(current.id, sending.lock(), position)
      sending.begin(there)
      moved(there)
    } catch (problem) {
      const { status, message } = problem as Problem
      if (status === 409) outdated(message)
      else tell(message)
    }
  }

  const undo = (): Promise<void> => goTo(() => Math.max(...before()))
  const redo = (): Promise<void> => goTo(() => Math.min(...after()))

  return { canUndo, canRedo, undo, redo, goTo }
}
