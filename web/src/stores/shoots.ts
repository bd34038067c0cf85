import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api, Problem, type Shoot, type Shot } from '../api/client'
import { usePaged } from '../editing/paged'
import { useEvents } from './events'

// The server refuses more; saying so here saves sending it.
const MOST_BYTES = 200 * 1024 * 1024
const MOST_CLIP_BYTES = 4e9

/** By its kind or its name; browsers do not know all kinds. */
function isClip(file: File): boolean {
  return /^video\//.test(file.type) || /\.(mp4|m4v|mov|mkv|webm)$/i.test(file.name)
}

/** One file on its way in. */
export type Incoming = { key: number; name: string; share: number; fault: string; done: boolean }

export const useShoots = defineStore('shoots', () => {
  const events = useEvents()
  const list = usePaged<Shoot>(api.shoots)
  const current = ref('')
  const shotList = usePaged<Shot>(async (after) => {
    const page = await api.shotsOf(current.value, after)
    return { ...page, items: page.items.map(events.newest) }
  })
  const loading = ref(true)
  const fault = ref('')
  const incoming = ref<Incoming[]>([])
  let nextKey = 1

  async function attempt(work: () => Promise<unknown>): Promise<void> {
    try {
      await work()
      fault.value = ''
    } catch (problem) {
      fault.value = (problem as Problem).message
    } finally {
      loading.value = false
    }
  }

  /** Loads the shoots and the shots of the one that is open: `id`, or the newest. */
  const load = (id = current.value): Promise<void> =>
    attempt(async () => {
      await list.load()
      while (id && list.next.value !== null && !list.items.value.some((each) => each.id === id)) await list.more()
      await open(id)
    })

  async function open(id: string): Promise<void> {
    const next = (list.items.value.find((each) => each.id === id) ?? list.items.value[0])?.id ?? ''
    if (next !== current.value) shotList.clear()
    current.value = next
    if (next) await shotList.load()
  }

  async function create(name: string): Promise<Shoot> {
    const shoot = await api.createShoot(name)
    await load(shoot.id)
    return shoot
  }

  async function rename(id: string, name: string): Promise<void> {
    await api.renameShoot(id, name)
    await load()
  }

  async function remove(id: string): Promise<void> {
    await api.deleteShoot(id)
    // It is not to be looked for on all pages.
    await load(id === current.value ? '' : current.value)
  }

  async function removeShot(id: string): Promise<void> {
    await api.deleteShot(id)
    await load()
  }

  function put(shot: Shot): void {
    const shoot = list.items.value.find((each) => each.id === shot.shootId)
    if (shoot)
      list.items.value = list.items.value.map((each) => (each === shoot ? { ...shoot, shots: shoot.shots + 1 } : each))
    // Behind the end of what is loaded it comes with the next page.
    if (shot.shootId === current.value && shotList.next.value === null)
      shotList.items.value = [...shotList.items.value, events.newest(shot)]
  }

  /** Brings files in one after the other; each fault stays on screen until it is dismissed. */
  async function bringIn(shoot: string, files: File[]): Promise<void> {
    const rows = files.map((file) => ({ key: nextKey++, name: file.name, share: 0, fault: '', done: false }))
    incoming.value.push(...rows)
    for (const [i, file] of files.entries()) {
      const row = incoming.value.find((each) => each.key === rows[i]?.key)
      if (!row) continue
      const most = isClip(file) ? MOST_CLIP_BYTES : MOST_BYTES
      if (file.size > most) {
        row.fault = `the file has ${Math.round(file.size / 1048576)} MB; the limit is ${Math.round(most / 1048576)} MB`
        continue
      }
      try {
        const bringIn = isClip(file) ? api.bringInClip : api.bringIn
        put(await bringIn(shoot, file, (share) => (row.share = share)))
        incoming.value = incoming.value.filter((each) => each.key !== row.key)
      } catch (problem) {
        const message = (problem as Problem).message
        row.fault = message.startsWith(row.name) ? message.slice(row.name.length).replace(/^: /, '') : message
      }
    }
  }

  /** A clip has a picture and a length once it has been read. */
  async function hasBeenRead(id: string): Promise<void> {
    const shot = await api.shot(id).catch(() => undefined)
    if (shot) shotList.items.value = shotList.items.value.map((each) => (each.id === id ? events.newest(shot) : each))
  }

  /** A retouched file takes the place of a photo's. */
  async function replaceSource(id: string, file: File): Promise<void> {
    const row: Incoming = { key: nextKey++, name: file.name, share: 0, fault: '', done: false }
    incoming.value.push(row)
    try {
      const shot = await api.replaceSource(id, file, (share) => (row.share = share))
      shotList.items.value = shotList.items.value.map((each) => (each.id === id ? shot : each))
    } finally {
      dismiss(row.key)
    }
  }

  function dismiss(key: number): void {
    incoming.value = incoming.value.filter((each) => each.key !== key)
  }

  events.listen({
    shot: (event) => {
      shotList.items.value = shotList.items.value.map((each) => (each.id === event.id ? { ...each, ...event } : each))
      const clip = shotList.items.value.find((each) => each.id === event.id && each.clip && each.clip.frames === null)
      if (clip && event.state !== 'reading') void hasBeenRead(clip.id)
    },
    reconnected: () => void load(),
  })

  return {
    shoots: list.items,
    moreShoots: computed(() => list.next.value !== null),
    shots: shotList.items,
    moreShots: computed(() => shotList.next.value !== null),
    current,
    open: (id: string) => attempt(() => open(id)),
    showMoreShoots: () => attempt(list.more),
    showMoreShots: () => attempt(shotList.more),
    loading,
    fault,
    incoming,
    load,
    create,
    rename,
    remove,
    removeShot,
    bringIn,
    replaceSource,
    dismiss,
  }
})
