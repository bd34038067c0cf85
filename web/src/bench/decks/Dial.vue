<script setup lang="ts">
import { computed, ref } from 'vue'
import { angle, share, shareAt, valueAt, type Scale } from './dial'

const props = defineProps<{ value: number; scale: Scale; label: string; hint: string; size?: number }>()
const emit = defineEmits<{ live: [value: number]; commit: [value: number] }>()

const root = ref<SVGSVGElement>()
let dragging = false

const part = computed(() => share(props.scale, props.value))
const text = computed(() => props.scale.text(props.value))

const ticks = computed(() => {
  const fine = Array.from({ length: 61 }, (_, i) => ({ at: i / 60, long: false }))
  return [...fine, ...props.scale.marks.map((mark) => ({ at: share(props.scale, mark.value), long: true }))]
})

function point(at: number, radius: number): { x: number; y: number } {
  const radians = (angle(at) * Math.PI) / 180
  return { x: Math.sin(radians) * radius, y: -Math.cos(radians) * radius }
}

const arc = computed(() => {
  const from = point(0, 52)
  const to = point(part.value, 52)
  return `M${from.x},${from.y}A52,52 0 ${part.value * 270 > 180 ? 1 : 0} 1 ${to.x},${to.y}`
})

function turn(event: PointerEvent): void {
  const box = root.value?.getBoundingClientRect()
  if (!box) return
  const at = shareAt(event.clientX - box.left - box.width / 2, event.clientY - box.top - box.height / 2)
  emit('live', valueAt(props.scale, at))
}

function down(event: PointerEvent): void {
  root.value?.setPointerCapture(event.pointerId)
  dragging = true
  turn(event)
}

function move(event: PointerEvent): void {
  if (dragging) turn(event)
}

function up(): void {
  if (!dragging) return
  dragging = false
  emit('commit', props.value)
}

function step(count: number): void {
  const next = valueAt(props.scale, part.value + count * props.scale.step)
  emit('live', next)
  emit('commit', next)
}

let wheelRest: ReturnType<typeof setTimeout> | undefined
function wheel(event: WheelEvent): void {
  const next = valueAt(props.scale, part.value - Math.sign(event.deltaY) * props.scale.step)
  emit('live', next)
  clearTimeout(wheelRest)
  wheelRest = setTimeout(() => emit('commit', props.value), 350)
}

function key(event: KeyboardEvent): void {
  const steps: Record<string, number> = {
    ArrowRight: 1,
    ArrowUp: 1,
    ArrowLeft: -1,
    ArrowDown: -1,
    PageUp: 5,
    PageDown: -5,
    Home: -1000,
    End: 1000,
  }
  const count = steps[event.key]
  if (count === undefined) return
  event.preventDefault()
  step(count)
}
</script>

<template>
  <svg
    ref="root"
    class="dial"
    viewBox="-80 -74 160 136"
    role="slider"
    tabindex="0"
    :aria-label="label"
    :aria-valuemin="scale.least"
    :aria-valuemax="scale.most"
    :aria-valuenow="value"
    :aria-valuetext="text"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @wheel.prevent="wheel"
    @keydown="key">
    <title>{{ hint }}</title>
    <circle r="44" class="face" />
    <line
      v-for="(tick, i) in ticks"
      :key="i"
      :class="{ long: tick.long }"
      class="tick"
      :x1="point(tick.at, tick.long ? 46 : 49).x"
      :y1="point(tick.at, tick.long ? 46 : 49).y"
      :x2="point(tick.at, 52).x"
      :y2="point(tick.at, 52).y" />
    <path :d="arc" class="arc" />
    <text
      v-for="mark in scale.marks"
      :key="mark.label"
      class="mark"
      :x="point(share(scale, mark.value), 63).x"
      :y="point(share(scale, mark.value), 63).y + 3">
      {{ mark.label }}
    </text>
    <line
      class="hand"
      :x1="point(part, 30).x"
      :y1="point(part, 30).y"
      :x2="point(part, 43).x"
      :y2="point(part, 43).y" />
    <text class="value" y="4">{{ text }}</text>
    <text class="name" y="19">{{ label }}</text>
  </svg>
</template>

<style scoped>
.dial {
  height: 100%;
  aspect-ratio: 160 / 136;
  cursor: grab;
  touch-action: none;
  border-radius: 6px;
  user-select: none;
}
.dial:active {
  cursor: grabbing;
}
.face {
  fill: var(--well);
  stroke: var(--strong-line);
  stroke-width: 1;
}
.tick {
  stroke: var(--dim);
  stroke-width: 0.6;
  opacity: 0.55;
}
.tick.long {
  stroke: var(--ink);
  stroke-width: 1;
  opacity: 1;
}
.arc {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
.hand {
  stroke: var(--accent);
  stroke-width: 3;
  stroke-linecap: round;
}
.mark {
  fill: var(--dim);
  font-size: 8px;
  text-anchor: middle;
}
.value {
  fill: var(--ink);
  font-size: 17px;
  font-weight: 600;
  text-anchor: middle;
}
.name {
  fill: var(--dim);
  font-size: 8px;
  text-anchor: middle;
}
</style>
