import { defineStore } from 'pinia'
import { computed, ref } from 'vue'
import { api } from '../api/client'
import { useAskAgain } from './askAgain'
import { putAt, usualFollow, type Follow } from '../editing/follow'
import { nearnessAt } from '../editing/nearness'
import { useBench } from './bench'

const MICROS = 1e6

/** Points that are followed through a clip. */
export const useFollows = defineStore('follows', () => {
  const bench = useBench()
  /** Whether the next click on the picture puts a new point. */
  const placing = ref(false)
  const chosenId = ref('')
  const all = computed<Follow[]>(() => bench.stored?.follows ?? [])
  const chosen = computed(() => all.value.find((each) => each.id === chosenId.value) ?? all.value[0])

  const seconds = computed(() => bench.micros / MICROS)

  /** What the frames of a follow depend on. */
  const keyOf = (each: Follow): string =>
    JSON.stringify([
      bench.shot?.id,
      each.puts,
      each.eye,
      bench.stored?.depth,
      bench.shot?.depths.map((map) => map.hash),
      bench.depthPacks.length,
    ])

  /** Shares that are made, and faults, of those that are not there yet. */
  const making = useAskAgain({
    all,
    keyOf,
    ask: (each, shot, stored) => api.follow(shot, { ...stored, touchups: [] }, each.id),
    made: (id, found) => bench.showTrack(id, found.frames),
  })

  /** A new point at the moment that is shown. A band that was only put once gives way to it. */
  function add(x: number, y: number, eye = false): void {
    placing.value = false
    if (!bench.stored) return
    const id = crypto.randomUUID()
    const what = eye ? 'Eye' : 'Point'
    const used = all.value.map((each) => Number(new RegExp(`^${what} (\\d+)$`).exec(each.name)?.[1] ?? 0))
    const follow = { ...usualFollow(id, `${what} ${Math.max(0, ...used) + 1}`, seconds.value, x, y), eye }
    const marks = bench.stored.marks.band
    const band = marks.length > 1 ? marks.map((each) => ({ ...each, follow: true })) : []
    chosenId.value = id
    bench.rewrite(eye ? 'Follow an eye' : 'Follow a point', {
      ...bench.stored,
      follows: [...all.value, follow],
      marks: { ...bench.stored.marks, band },
    })
  }

  /** Follows the nearer eye of the face that focus was put on, else of the main face of the frame. */
  async function addEye(): Promise<void> {
    const frame = bench.frame
    await bench.loadThings()
    const faces = bench.things?.faces ?? []
    const chosenFace = bench.subjects[bench.thing - 1]
    const face = faces.find((each) => chosenFace?.kind === 'face' && each.number === chosenFace.number) ?? faces[0]
    if (bench.frame !== frame) return
    const map = bench.nearness
    const nearness = (each: { x: number; y: number }): number => (map ? nearnessAt(map, each.x, each.y) : 0)
    const [one, other] = face?.eyes ?? []
    const eye = one && other && nearness(other) > nearness(one) ? other : one
    if (eye) add(eye.x, eye.y, true)
    else bench.notice = 'No face was found in this frame. Put a point on the eye instead.'
  }

  function change(id: string, step: string, part: Partial<Follow>, live = false): void {
    if (!bench.stored) return
    const follows = all.value.map((each) => (each.id === id ? { ...each, ...part } : each))
    if (live) bench.live({ follows })
    else bench.commit(step, { follows })
  }

  /** Corrects a point at the moment that is shown. */
  function put(id: string, x: number, y: number): void {
    const follow = all.value.find((each) => each.id === id)
    if (follow) change(id, 'Point put right', { puts: putAt(follow, seconds.value, x, y).puts })
  }

  function remove(id: string): void {
    if (bench.stored) bench.commit('Point removed', { follows: all.value.filter((each) => each.id !== id) })
  }

  return { placing, chosenId, chosen, all, making, seconds, add, addEye, change, put, remove }
})
