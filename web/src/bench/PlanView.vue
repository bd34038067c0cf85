<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useBench } from '../stores/bench'
import type { Band } from '../api/client'
import { coversEverything, histogram, nearnessAt, occupied } from './nearness'
import { plan } from './plan'

const RIDGE = 46
const HANDLE = 7
const FOOT = 30
const LEAST = 0.002

const bench = useBench()
const root = ref<HTMLDivElement>()
const canvas = ref<HTMLCanvasElement>()
const size = ref({ width: 290, height: 400 })
const limited = (value: number): number => Math.min(1, Math.max(0, value))
const dragged = ref<Grip>()

type Grip = 'slab' | 'near' | 'far' | 'nearFalloff' | 'farFalloff'
let from = { y: 0, band: undefined as Band | undefined, moved: false }

const ground = computed(() => ({ width: size.value.width - RIDGE, height: size.value.height - FOOT }))

/** What the plan shows: the depths that occur, and always the band. */
const range = computed(() => {
  const map = bench.nearness
  return map ? occupied(map) : { far: 0, near: 1 }
})
/** Far is up, the camera is at the bottom. */
const y = (nearness: number): number =>
  Math.min(1.02, Math.max(-0.02, (nearness - range.value.far) / (range.value.near - range.value.far))) * ground.value.height
const nearnessOf = (at: number): number =>
  limited(range.value.far + (at / ground.value.height) * (range.value.near - range.value.far))
const band = computed(() => bench.recipe?.band)
const outer = computed(() => {
  const now = band.value
  return now && { near: Math.min(1, now.near + now.nearFalloff), far: Math.max(0, now.far - now.farFalloff) }
})
const words = computed(() => {
  const now = band.value
  if (!now) return ''
  if (coversEverything(now)) return 'Everything is sharp'
  if (now.near === now.far) return `A plane at ${now.near.toFixed(2)}`
  return `${now.far.toFixed(2)} to ${now.near.toFixed(2)}`
})
const hover = computed(() => {
  const at = bench.hovered
  const map = bench.nearness
  return at && map ? { x: at.x * ground.value.width, y: y(nearnessAt(map, at.x, at.y)) } : undefined
})

const ridge = computed(() => {
  const map = bench.nearness
  if (!map) return ''
  const bins = 96
  const shares = histogram(map, bins, range.value.far, range.value.near)
  const points = Array.from(shares, (part, i) => `${(part * (RIDGE - 6)).toFixed(1)},${(((i + 0.5) / bins) * ground.value.height).toFixed(1)}`)
  return `M0,0L${points.join('L')}L0,${ground.value.height}Z`
})

function drawPlan(): void {
  const element = canvas.value
  const map = bench.nearness
  const photo = bench.depthPhoto
  if (!element) return
  // Two pixels to a cell: single samples join to surfaces.
  const width = Math.max(1, Math.round(ground.value.width / 2))
  const height = Math.max(1, Math.round(ground.value.height / 2))
  Object.assign(element, { width, height })
  if (map && photo) element.getContext('2d')?.putImageData(plan(map, photo, width, height, range.value), 0, 0)
}

function gripAt(at: number): Grip {
  const now = band.value
  const edges = outer.value
  if (!now || !edges) return 'slab'
  const near = y(now.near)
  const far = y(now.far)
  // The band's own edges win over the falloffs when they lie on each other, and the slab stays reachable when thin.
  if (near - far > 3 * HANDLE && Math.abs(at - near) <= HANDLE) return 'near'
  if (near - far > 3 * HANDLE && Math.abs(at - far) <= HANDLE) return 'far'
  if (near - far <= 3 * HANDLE && at > near && at <= near + HANDLE) return 'near'
  if (near - far <= 3 * HANDLE && at < far && at >= far - HANDLE) return 'far'
  if (at > far && at < near) return 'slab'
  if (Math.abs(at - y(edges.near)) <= HANDLE) return 'nearFalloff'
  if (Math.abs(at - y(edges.far)) <= HANDLE) return 'farFalloff'
  return 'slab'
}

function localY(event: PointerEvent): number {
  return event.clientY - (root.value?.getBoundingClientRect().top ?? 0)
}

function down(event: PointerEvent): void {
  const now = band.value
  if (!now || event.button !== 0) return
  root.value?.setPointerCapture(event.pointerId)
  from = { y: localY(event), band: now, moved: false }
  dragged.value = gripAt(from.y)
}


function moved(by: number, grip: Grip, start: Band): Band {
  const delta = (by / ground.value.height) * (range.value.near - range.value.far)
  if (grip === 'near') return { ...start, near: Math.max(start.far, limited(start.near + delta)) }
  if (grip === 'far') return { ...start, far: Math.min(start.near, limited(start.far + delta)) }
  if (grip === 'nearFalloff') return { ...start, nearFalloff: limited(start.nearFalloff + delta) }
  if (grip === 'farFalloff') return { ...start, farFalloff: limited(start.farFalloff - delta) }
  const held = Math.min(1 - start.near, Math.max(-start.far, delta))
  return { ...start, near: start.near + held, far: start.far + held }
}

function move(event: PointerEvent): void {
  const at = localY(event)
  if (!dragged.value) {
    cursor.value = gripAt(at) === 'slab' ? 'grab' : 'ns-resize'
    return
  }
  if (!from.band || (!from.moved && Math.abs(at - from.y) < 3)) return
  from.moved = true
  bench.live({ band: moved(at - from.y, dragged.value, from.band) })
}

const cursor = ref('grab')
const NAMES: Record<Grip, string> = {
  slab: 'Move the band', near: 'Near edge', far: 'Far edge', nearFalloff: 'Falloff in front', farFalloff: 'Falloff behind',
}

function up(): void {
  const grip = dragged.value
  const start = from.band
  dragged.value = undefined
  if (!grip || !start) return
  if (from.moved) {
    bench.commit(NAMES[grip])
    return
  }
  // A click selects that depth: the band keeps its width and moves there.
  const centre = nearnessOf(from.y)
  if (from.y <= ground.value.height && grip === 'slab') {
    const half = Math.min((start.near - start.far) / 2, 0.25)
    bench.commit('Focus in the plan', { band: { ...start, near: limited(centre + half), far: limited(centre - half) } })
  }
}

function key(event: KeyboardEvent): void {
  const now = band.value
  const sign = event.key === 'ArrowUp' ? -1 : event.key === 'ArrowDown' ? 1 : 0
  if (!now || !sign) return
  event.preventDefault()
  const by = (sign * (event.shiftKey ? 0.05 : 0.01) * ground.value.height) / (range.value.near - range.value.far)
  const next = moved(by, 'slab', now)
  if (Math.abs(next.near - now.near) > LEAST / 10) bench.commit('Move the band', { band: next })
}

let resize: ResizeObserver | undefined
watch([() => bench.nearness, () => bench.depthPhoto, ground, range], drawPlan)
onMounted(() => {
  resize = new ResizeObserver(([entry]) => {
    if (entry) size.value = { width: entry.contentRect.width, height: entry.contentRect.height }
  })
  if (root.value) resize.observe(root.value)
  drawPlan()
})
onBeforeUnmount(() => resize?.disconnect())
</script>

<template>
  <section class="plan" aria-label="Plan: the scene seen from above">
    <header>
      <h2>Plan</h2>
      <span class="quiet small">{{ words }}</span>
    </header>
    <div
      ref="root" class="ground" :style="{ cursor: dragged ? 'grabbing' : cursor }" tabindex="0" role="group" data-test="plan"
      aria-label="Sharp band. Arrow keys move it, with Shift in larger steps."
      @pointerdown="down" @pointermove="move" @pointerup="up" @pointercancel="dragged = undefined" @keydown="key"
    >
      <canvas ref="canvas" :style="{ width: `${ground.width}px`, height: `${ground.height}px` }" />
      <svg :width="size.width" :height="size.height" aria-hidden="true">
        <g class="cone">
          <line :x1="ground.width / 2" :y1="size.height - 12" x2="0" y2="0" />
          <line :x1="ground.width / 2" :y1="size.height - 12" :x2="ground.width" y2="0" />
        </g>
        <path :d="ridge" class="ridge" :transform="`translate(${ground.width + 4},0)`" />
        <template v-if="band && outer">
          <rect class="falloff near" x="0" :y="y(band.near)" :width="size.width" :height="Math.max(0, y(outer.near) - y(band.near))" />
          <rect class="falloff far" x="0" :y="y(outer.far)" :width="size.width" :height="Math.max(0, y(band.far) - y(outer.far))" />
          <line class="soft near" x1="0" :x2="size.width" :y1="y(outer.near)" :y2="y(outer.near)" />
          <line class="soft far" x1="0" :x2="size.width" :y1="y(outer.far)" :y2="y(outer.far)" />
          <rect class="slab" x="0" :y="y(band.far)" :width="size.width" :height="Math.max(1, y(band.near) - y(band.far))" />
          <line class="edge" x1="0" :x2="size.width" :y1="y(band.near)" :y2="y(band.near)" data-test="near-edge" />
          <line class="edge" x1="0" :x2="size.width" :y1="y(band.far)" :y2="y(band.far)" data-test="far-edge" />
          <rect class="knob" :x="ground.width - 12" :y="y(band.near) - 2.5" width="24" height="5" rx="2" />
          <rect class="knob" :x="ground.width - 12" :y="y(band.far) - 2.5" width="24" height="5" rx="2" />
        </template>
        <g v-if="hover" class="hover">
          <circle :cx="hover.x" :cy="hover.y" r="4" />
          <line :x1="ground.width" :x2="size.width" :y1="hover.y" :y2="hover.y" />
        </g>
        <g class="camera" :transform="`translate(${ground.width / 2},${size.height - 13})`">
          <rect x="-11" y="-4" width="22" height="13" rx="2" /><rect x="-5" y="-10" width="10" height="6" />
        </g>
        <text class="end" x="5" y="13">far {{ range.far.toFixed(2) }}</text>
        <text class="end" x="5" :y="ground.height - 5">near {{ range.near.toFixed(2) }}</text>
      </svg>
    </div>
  </section>
</template>

<style scoped>
.plan { display: grid; grid-template-rows: auto minmax(0, 1fr); min-height: 0; background: var(--panel); border-left: 1px solid var(--line); }
header { display: flex; justify-content: space-between; align-items: baseline; padding: 7px 12px; border-bottom: 1px solid var(--line); }
.ground { position: relative; min-height: 0; touch-action: none; overflow: hidden; margin: 8px; }
canvas, svg { position: absolute; left: 0; top: 0; }
canvas { background: var(--well); }
.cone line { stroke: var(--strong-line); stroke-dasharray: 2 4; }
.ridge { fill: var(--dim); opacity: 0.55; }
.slab { fill: var(--accent); opacity: 0.2; }
.edge { stroke: var(--accent); stroke-width: 1.5; }
.knob { fill: var(--accent); }
.falloff { opacity: 0.13; }
.falloff.near { fill: var(--near); }
.falloff.far { fill: var(--far); }
.soft { stroke-dasharray: 3 3; stroke-width: 1; }
.soft.near { stroke: var(--near); }
.soft.far { stroke: var(--far); }
.hover circle { fill: none; stroke: var(--ink); stroke-width: 1.5; }
.hover line { stroke: var(--ink); }
.camera rect { fill: var(--panel); stroke: var(--dim); }
.end { fill: var(--dim); font-size: 10.5px; }
</style>
