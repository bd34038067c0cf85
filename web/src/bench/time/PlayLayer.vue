<script setup lang="ts">
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { api } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useTimeline } from '../../stores/timeline'
import type { Viewport } from '../picture/viewport'

/** Plays a clip where its picture lies: as it was rendered when it was, else as it came in. */
const props = defineProps<{ viewport: Viewport; picture: { width: number; height: number } }>()

const bench = useBench()
const timeline = useTimeline()
const film = ref<HTMLVideoElement>()
const untouched = ref<HTMLVideoElement>()
/** Two films that are farther apart, in seconds, are brought together. */
const APART = 0.06
/** After which time a film that was kept from beginning is begun again, in milliseconds. */
const RUNS_AGAIN = 100

const result = computed(() =>
  timeline.fresh && timeline.rendered && !bench.holding ? api.deliveryFile(timeline.rendered.delivery.id) : '',
)
const original = computed(() => (bench.shot ? api.smallFilm(bench.shot.id) : ''))
const split = computed(() => bench.split && !!result.value)
/** The rendered film begins at its own first frame. */
const offset = computed(() => (result.value ? timeline.secondsOf(timeline.rendered?.from ?? 0) : 0))
const begin = computed(() =>
  timeline.secondsOf(Math.max(timeline.from, result.value ? (timeline.rendered?.from ?? 0) : 0)),
)
const finish = computed(() =>
  timeline.secondsOf(Math.min(timeline.end, result.value ? (timeline.rendered?.end ?? 0) : timeline.end)),
)

const place = computed(() => {
  const { x, y, scale } = props.viewport
  return {
    left: `${x}px`,
    top: `${y}px`,
    width: `${props.picture.width * scale}px`,
    height: `${props.picture.height * scale}px`,
  }
})
const cut = computed(() => {
  const away = `${Math.round((1 - bench.splitAt) * 1000) / 10}%`
  return { ...place.value, clipPath: bench.splitLevel ? `inset(0 0 ${away} 0)` : `inset(0 ${away} 0 0)` }
})

let running = 0

/** The frame that is shown now; at the end of the stretch it begins again. */
function tick(): void {
  const video = film.value
  running = requestAnimationFrame(tick)
  if (!video) return
  const seconds = video.currentTime + offset.value
  const other = untouched.value
  if (split.value && other && !other.seeking && Math.abs(other.currentTime - seconds) > APART)
    other.currentTime = seconds
  if (timeline.rate < 0) stepBack(video)
  if (video.ended || seconds >= finish.value - 0.001 || (timeline.rate < 0 && seconds <= begin.value)) {
    startAt(timeline.rate < 0 ? finish.value - 0.02 : begin.value)
    return
  }
  bench.turnTo(timeline.frameAt(seconds))
}

let steppedAt = 0
/** Browsers play forwards only: backwards, frames are stepped through at their pace. */
function stepBack(video: HTMLVideoElement): void {
  const now = performance.now()
  if (video.seeking || !steppedAt) {
    steppedAt ||= now
    return
  }
  const by = ((now - steppedAt) / 1000) * -timeline.rate
  if (by < 0.02) return
  steppedAt = now
  video.currentTime = Math.max(0, video.currentTime - by)
}

/** Playing ends when the film cannot be played; one that made room for another, or is sought in, only begins later. */
function run(video: HTMLVideoElement): void {
  video.play().catch((refused: DOMException) => {
    if (refused.name !== 'AbortError') timeline.stop()
    else if (video === film.value && video.paused && timeline.rate > 0) setTimeout(() => run(video), RUNS_AGAIN)
  })
}

function startAt(seconds: number): void {
  const video = film.value
  if (!video) return
  video.currentTime = Math.max(0, seconds - offset.value)
  if (timeline.rate > 0) run(video)
  const other = untouched.value
  if (other) {
    other.currentTime = seconds
    if (timeline.rate > 0) void other.play().catch(() => undefined)
  }
}

function loaded(): void {
  const now = timeline.secondsOf(bench.frame)
  if (film.value) film.value.playbackRate = Math.abs(timeline.rate)
  startAt(now >= finish.value - 0.05 || now < begin.value ? begin.value : now)
  cancelAnimationFrame(running)
  tick()
}

watch(
  () => timeline.rate,
  (rate) => {
    const video = film.value
    if (!video) return
    steppedAt = 0
    if (rate < 0) video.pause()
    else {
      video.playbackRate = rate
      run(video)
    }
  },
)
onBeforeUnmount(() => cancelAnimationFrame(running))
</script>

<template>
  <video
    ref="film"
    :key="result || original"
    class="film"
    :src="result || original"
    :style="place"
    :muted="!result"
    playsinline
    data-test="film"
    :data-rendered="!!result"
    @loadedmetadata="loaded"
    @error="timeline.stop" />
  <video v-if="split" ref="untouched" class="film" :src="original" :style="cut" muted playsinline />
  <span v-if="!result" class="said small">untouched: render the stretch to see it in focus</span>
</template>

<style scoped>
.film {
  position: absolute;
  object-fit: fill;
  pointer-events: none;
}
.said {
  position: absolute;
  left: 12px;
  top: 10px;
  padding: 2px 8px;
  border-radius: 3px;
  background: rgba(20, 20, 20, 0.72);
  color: #ddd;
  pointer-events: none;
}
</style>
