import { watch } from 'vue'
import { api, type Shot } from '../../api/client'
import { FIRST_DRAFT, LARGEST_PREVIEW } from '../../editing/sight'
import { LARGEST_PHOTO } from '../../editing/untouched'
import { useBench } from '../../stores/bench'
import { useShoots } from '../../stores/shoots'
import { fit, type Extent } from './viewport'

const KEY = 'yubble.room'
/** What was made ready is kept by the server for a while, in milliseconds. */
const KEPT = 300_000
/** How long the picture on the Bench rests before others are made ready, in milliseconds. */
const REST = 1500
/** How long it rests before it is made ready to be looked at closely. */
const LONG_REST = 4000

const asked = new Map<string, number>()

/** How large pictures are shown on the Bench, for whoever opens the next one. */
export function rememberRoom({ width, height }: Extent): void {
  if (!(width > 0 && height > 0)) return
  try {
    localStorage.setItem(KEY, JSON.stringify({ width, height }))
  } catch {
    // Without it the next picture is not made ready.
  }
}

function knownRoom(): Extent | undefined {
  try {
    const room = JSON.parse(localStorage.getItem(KEY) ?? '') as Extent
    return room.width > 0 && room.height > 0 ? room : undefined
  } catch {
    return undefined
  }
}

/** Longer side at which a shot's first preview will be asked for; undefined before the Bench was ever open. */
export function firstSide(shot: Extent, room = knownRoom(), density = devicePixelRatio): number | undefined {
  if (!room) return undefined
  const long = Math.max(shot.width, shot.height)
  const side = Math.ceil(long * fit(room, shot).scale * density)
  return Math.max(16, Math.min(long, side, LARGEST_PREVIEW))
}

/** The server gets a shot ready that will probably be looked at. */
export async function makeReady(shot: Shot, side = firstSide(shot)): Promise<void> {
  const key = `${shot.id} ${side}`
  const now = performance.now()
  if (!side || !['ready', 'refining'].includes(shot.state) || now - (asked.get(key) ?? -KEPT) < KEPT) return
  asked.set(key, now)
  try {
    await api.ready(shot.id, side, shot.clip ? undefined : LARGEST_PHOTO)
  } catch {
    // It will be made when it is looked at.
  }
}

/** A photo that is larger than what is shown of the whole will probably be looked at closely. */
export async function makeReadyClosely(shot: Shot, version: string): Promise<void> {
  if (shot.clip || Math.max(shot.width, shot.height) <= LARGEST_PREVIEW) return
  try {
    await api.readyAtFullSize(shot.id, version)
  } catch {
    // It will be made when it is looked at.
  }
}

/** Once the picture on the Bench rests, its drafts, the shots before and after it, and all of it at full size are made ready. */
export function useReadying(): void {
  const bench = useBench()
  const shoots = useShoots()
  watch(
    () => bench.previewState,
    (state, _, onCleanup) => {
      if (state !== 'final') return
      const timer = setTimeout(() => {
        const shot = bench.shot
        if (!shot) return
        const at = shoots.shots.findIndex((each) => each.id === shot.id)
        const beside = at < 0 ? [] : [shoots.shots[at + 1], shoots.shots[at - 1]]
        void makeReady(shot, Math.min(FIRST_DRAFT, Math.max(shot.width, shot.height)))
        for (const each of beside) if (each && !each.clip) void makeReady(each)
      }, REST)
      const later = setTimeout(() => {
        if (bench.shot && bench.version) void makeReadyClosely(bench.shot, bench.version.id)
      }, LONG_REST)
      onCleanup(() => {
        clearTimeout(timer)
        clearTimeout(later)
      })
    },
  )
}
