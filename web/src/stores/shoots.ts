import { defineStore } from 'pinia'
import { ref } from 'vue'
import { api, Problem, type Shoot, type Shot } from '../api/client'
import { useEvents } from './events'

// The server refuses more; saying so here saves sending it.
const MOST_BYTES = 200 * 1024 * 1024

/** One file on its way in. */
export type Incoming = { key: number; name: string; share: number; fault: string; done: boolean }

export const useShoots = defineStore('shoots', () => {
  const events = useEvents()
  const shoots = ref<Shoot[]>([])
  const loading = ref(true)
  const fault = ref('')
  const incoming = ref<Incoming[]>([])
  let nextKey = 1

  async function load(): Promise<void> {
    try {
      shoots.value = (await api.shoots()).map((shoot) => ({ ...shoot, shots: shoot.shots.map(events.newest) }))
      fault.value = ''
    } catch (problem) {
      fault.value = (problem as Problem).message
    } finally {
      loading.value = false
    }
  }

  async function create(name: string): Promise<Shoot> {
    const shoot = await api.createShoot(name)
    shoots.value = [shoot, ...shoots.value]
    return shoot
  }

  async function rename(id: string, name: string): Promise<void> {
    await api.renameShoot(id, name)
    await load()
  }

  async function remove(id: string): Promise<void> {
    await api.deleteShoot(id)
    await load()
  }

  async function removeShot(id: string): Promise<void> {
    await api.deleteShot(id)
    await load()
  }

  function put(shot: Shot): void {
    const shoot = shoots.value.find((each) => each.id === shot.shootId)
    if (!shoot) return
    const at = shoot.shots.findIndex((each) => each.id === shot.id)
    if (at < 0) shoot.shots.push(events.newest(shot))
    else shoot.shots[at] = events.newest(shot)
  }

  /** Brings files in one after the other; each fault stays on screen until it is dismissed. */
  async function bringIn(shoot: string, files: File[]): Promise<void> {
    const rows = files.map((file) => ({ key: nextKey++, name: file.name, share: 0, fault: '', done: false }))
    incoming.value.push(...rows)
    for (const [i, file] of files.entries()) {
      const row = incoming.value.find((each) => each.key === rows[i]?.key)
      if (!row) continue
      if (file.size > MOST_BYTES) {
        row.fault = `the file has ${Math.round(file.size / 1048576)} MB; the limit is 200 MB`
        continue
      }
      try {
        put(await api.bringIn(shoot, file, (share) => (row.share = share)))
        incoming.value = incoming.value.filter((each) => each.key !== row.key)
      } catch (problem) {
        const message = (problem as Problem).message
        row.fault = message.startsWith(row.name) ? message.slice(row.name.length).replace(/^: /, '') : message
      }
    }
  }

  function dismiss(key: number): void {
    incoming.value = incoming.value.filter((each) => each.key !== key)
  }

  events.listen({
    shot: (event) => {
      const shot = shoots.value.flatMap((shoot) => shoot.shots).find((each) => each.id === event.id)
      if (shot) Object.assign(shot, event)
    },
    reconnected: () => void load(),
  })

  return { shoots, loading, fault, incoming, load, create, rename, remove, removeShot, bringIn, dismiss }
})
