import { beforeEach, describe, expect, it, vi } from 'vitest'
import { ref, shallowRef } from 'vue'
import { api, Problem, type Version } from '../api/client'
import { useVersions } from './versions'

const named = (id: string, name = id): Version => ({ id, name, position: 0, history: [] }) as unknown as Version

function opened(sent = true) {
  const versions = shallowRef([named('a'), named('b')])
  const version = shallowRef<Version | undefined>(versions.value[0])
  const notice = ref('')
  const list = useVersions({
    versions,
    version,
    use: (chosen) => (version.value = chosen),
    whenSent: async () => sent,
    attempt: async (work) => {
      try {
        await work()
      } catch (problem) {
        notice.value = (problem as Problem).message
      }
    },
  })
  return { versions, version, notice, list, ids: () => versions.value.map(({ id }) => id) }
}

describe('versions', () => {
  beforeEach(() => void vi.restoreAllMocks())

  it('are turned to when they are copied', async () => {
    vi.spyOn(api, 'duplicate').mockResolvedValue(named('c'))
    const { list, ids, version } = opened()
    await list.duplicate('Warm')
    expect(ids()).toEqual(['a', 'b', 'c'])
    expect(version.value?.id).toBe('c')
  })

  it('that are removed give way to another one and come back', async () => {
    vi.spyOn(api, 'deleteVersion').mockResolvedValue(undefined as never)
    vi.spyOn(api, 'bringVersionBack').mockResolvedValue(named('a'))
    const { list, ids, version } = opened()
    await list.remove('a')
    expect(ids()).toEqual(['b'])
    expect(version.value?.id).toBe('b')
    await list.bringBack('a')
    expect(ids()).toEqual(['b', 'a'])
    expect(version.value?.id).toBe('a')
  })

  it('keep their name when it is refused, and say why', async () => {
    vi.spyOn(api, 'renameVersion').mockRejectedValue(Object.assign(new Error('too long'), { status: 400 }))
    const { list, versions, notice } = opened()
    await list.rename('a', 'x'.repeat(99))
    expect(versions.value[0]?.name).toBe('a')
    expect(notice.value).toBe('too long')
  })

  it('are not copied from while an edit could not be sent', async () => {
    const copied = vi.spyOn(api, 'copyParts').mockResolvedValue({ changed: 2 } as never)
    expect(await opened(false).list.copyParts(['touchups'], ['s'])).toBe(0)
    expect(copied).not.toHaveBeenCalled()
    expect(await opened().list.copyParts(['touchups'], ['s'])).toBe(2)
  })
})
