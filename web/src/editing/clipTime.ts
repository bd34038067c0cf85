import { computed, ref, shallowRef } from 'vue'
import { api, type Clip } from '../api/client'
import type { TrackFrame, Wakes } from './follow'
import { useFilm } from './film'

/** Longest time behind a frame's beginning at which it is sought, in microseconds. */
const WITHIN = 5000
const MICROS = 1e6

/** The time of a clip: its frames, the one that is shown, and which of them have depth. */
export function useClipTime(seen: (bitmap: ImageBitmap) => void) {
  const clip = shallowRef<Clip>()
  const frame = ref(0)
  const micros = computed(() => clip.value?.micros[frame.value] ?? 0)
  /** Whether time runs; then nothing is drawn but what a film shows. */
  const playing = ref(false)
  /** Which stretches have depth: their length in frames, and their numbers. */
  const depthPacks = ref<number[]>([])
  const packFrames = ref(24)
  /** Where followed points are, by the ids of their follows. */
  const tracks = shallowRef<Record<string, readonly TrackFrame[]>>({})
  const wakes = computed<Wakes>(() => ({ micros: clip.value?.micros ?? [], tracks: tracks.value }))
  let film: ReturnType<typeof useFilm> | undefined

  function begin(id: string, time: Clip): void {
    clip.value = time
    film?.close()
    film = useFilm(api.smallFilm(id), seen)
    frame.value = 0
    show()
  }

  /** Asks for the picture of the frame: at a time within it, so that rounding does not show the one before. */
  function show(): void {
    const all = clip.value?.micros ?? []
    const from = micros.value
    const to = all[frame.value + 1] ?? clip.value?.lasts ?? from
    film?.at((from + Math.min(WITHIN, (to - from) / 2)) / MICROS)
  }

  /** Goes to another frame; false when it is the same. */
  function turn(number: number): boolean {
    const last = (clip.value?.micros.length ?? 1) - 1
    const to = Math.max(0, Math.min(last, Math.round(number)))
    if (to === frame.value) return false
    frame.value = to
    return true
  }

  async function loadDepthPacks(id: string, wanted: () => boolean): Promise<void> {
    const progress = await api.clipDepth(id)
    if (!wanted()) return
    packFrames.value = progress.frames
    depthPacks.value = progress.packs
  }

  function close(): void {
    film?.close()
    film = undefined
    clip.value = undefined
    frame.value = 0
    playing.value = false
    tracks.value = {}
    depthPacks.value = []
  }

  return {
    clip,
    frame,
    micros,
    playing,
    depthPacks,
    packFrames,
    tracks,
    wakes,
    begin,
    show,
    turn,
    loadDepthPacks,
    close,
  }
}
