<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { computed, onMounted, ref, watch } from 'vue'
import { useBench } from '../../stores/bench'
import { useBandHandling } from './bandHandling'
import { distanceWords } from './distance'
import { coversEverything, coversNothing, histogram, nearnessAt } from '../../editing/nearness'
import { hides } from '../../editing/mist'
import { plan } from './plan'
import PlanRungs from './PlanRungs.vue'
import { usePlanScale } from './planScale'
import { useLadder } from '../../stores/ladder'

const RIDGE = 46
const FOOT = 30

const bench = useBench()
const ladder = useLadder()
const root = ref<HTMLDivElement>()
const canvas = ref<HTMLCanvasElement>()
const size = ref({ width: 290, height: 400 })

const ground = computed(() => ({ width: size.value.width - RIDGE, height: size.value.height - FOOT }))

const scale = usePlanScale(ground)
const { range, y, nearnessOf, band, outer, slant } = scale
const { dragged, cursor, down, move, up, cancel, leave, key } = useBandHandling(root, scale)

const words = computed(() => {
  const now = band.value
  if (!now) return ''
  if (coversEverything(now)) return 'Everything is sharp'
  if (coversNothing(now)) return 'Nothing is sharp'
  if (now.near === now.far) return `A plane at ${depthText(now.near)}`
  return `${now.far.toFixed(2)} to ${now.near.toFixed(2)}`
})
/** How deep the band is, in metres where distances are known. */
const reach = computed(() => {
  const now = band.value
  if (!now || coversEverything(now) || coversNothing(now)) return ''
  const [far, near] = [metres(now.far), metres(now.near)]
  return far && near ? `${near} to ${far}` : ''
})
function metres(nearness: number): string {
  return bench.shot && bench.recipe
    ? distanceWords(bench.shot, bench.recipe, nearness, ladder.stands?.scale ?? undefined)
    : ''
}

function depthText(nearness: number): string {
  const far = metres(nearness)
  return far ? `${nearness.toFixed(2)}, ${far}` : nearness.toFixed(2)
}

/** A strip of the band from one nearness to another, over the whole width and the ridge. */
function strip(one: number, other: number): string {
  const w = ground.value.width
  const right = size.value.width
  return `0,${slant(one, 0)} ${w},${slant(one, 1)} ${right},${slant(one, 1)} ${right},${slant(other, 1)} ${w},${slant(other, 1)} 0,${slant(other, 0)}`
}

function line(nearness: number): string {
  return `0,${slant(nearness, 0)} ${ground.value.width},${slant(nearness, 1)} ${size.value.width},${slant(nearness, 1)}`
}

/** Where the pointer is, in words. */
const pointed = computed(() => {
  const at = bench.hovered
  const map = bench.nearness
  if (at && map) return depthText(nearnessAt(map, at.x, at.y))
  return bench.marked ? depthText(bench.marked.nearness) : ''
})
const hover = computed(() => {
  const at = bench.hovered
  const map = bench.nearness
  return at && map ? { x: at.x * ground.value.width, y: y(nearnessAt(map, at.x, at.y)) } : undefined
})

/** The mist, as what it hides from far to near. */
const air = computed(() => {
  const mist = bench.recipe?.atmosphere.mist
  if (!mist || mist.density === 0) return undefined
  return Array.from({ length: 17 }, (_, i) => ({
    at: i / 16,
    share: 0.8 * hides(mist, nearnessOf((i / 16) * ground.value.height)),
  }))
})

const ridge = computed(() => {
  const map = bench.nearness
  if (!map) return ''
  const bins = 96
  const shares = histogram(map, bins, range.value.far, range.value.near)
  const points = Array.from(
    shares,
    (part, i) => `${(part * (RIDGE - 6)).toFixed(1)},${(((i + 0.5) / bins) * ground.value.height).toFixed(1)}`,
  )
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

watch([() => bench.nearness, () => bench.depthPhoto, ground, range], drawPlan)
useResizeObserver(root, ([entry]) => {
  if (entry) size.value = { width: entry.contentRect.width, height: entry.contentRect.height }
})
onMounted(drawPlan)
</script>

<template>
  <section class="plan" aria-label="Plan: the scene seen from above">
    <header>
      <h2>Plan</h2>
      <span class="quiet small words" data-test="band-words">
        {{ pointed || words }}
        <template v-if="!pointed && reach">
          <br />
          {{ reach }}
        </template>
      </span>
    </header>
    <div
      ref="root"
      class="ground"
      :style="{ cursor: dragged ? 'grabbing' : cursor }"
      tabindex="0"
      role="group"
      data-test="plan"
      aria-label="Sharp band. Arrow keys move it, with Shift in larger steps, with Alt they turn it; L levels it."
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="cancel"
      @pointerleave="leave"
      @keydown="key">
      <canvas ref="canvas" :style="{ width: `${ground.width}px`, height: `${ground.height}px` }" />
      <svg :width="size.width" :height="size.height" aria-hidden="true">
        <template v-if="air">
          <defs>
            <linearGradient id="plan-air" x1="0" y1="0" x2="0" y2="1">
              <stop
                v-for="each in air"
                :key="each.at"
                :offset="each.at"
                stop-color="currentColor"
                :stop-opacity="each.share" />
            </linearGradient>
          </defs>
          <rect class="air" :width="ground.width" :height="ground.height" fill="url(#plan-air)" data-test="plan-mist" />
        </template>
        <g class="cone">
          <line :x1="ground.width / 2" :y1="size.height - 12" x2="0" y2="0" />
          <line :x1="ground.width / 2" :y1="size.height - 12" :x2="ground.width" y2="0" />
        </g>
        <path :d="ridge" class="ridge" :transform="`translate(${ground.width + 4},0)`" />
        <template v-if="band && outer">
          <polygon class="falloff near" :points="strip(band.near, outer.near)" />
          <polygon class="falloff far" :points="strip(outer.far, band.far)" />
          <polyline class="soft near" :points="line(outer.near)" />
          <polyline class="soft far" :points="line(outer.far)" />
          <polygon class="slab" :points="strip(band.far, band.near)" />
          <polyline class="edge" :points="line(band.near)" data-test="near-edge" />
          <polyline class="edge" :points="line(band.far)" data-test="far-edge" />
          <rect class="knob" :x="ground.width / 2 - 12" :y="slant(band.near, 0.5) - 2.5" width="24" height="5" rx="2" />
          <rect class="knob" :x="ground.width / 2 - 12" :y="slant(band.far, 0.5) - 2.5" width="24" height="5" rx="2" />
          <circle
            class="turn"
            :cx="ground.width"
            :cy="(slant(band.near, 1) + slant(band.far, 1)) / 2"
            r="5"
            data-test="turn" />
        </template>
        <PlanRungs v-if="bench.step === 'depth' && ladder.rungs.length" :width="ground.width" :y="y" />
        <g v-if="hover" class="hover">
          <circle :cx="hover.x" :cy="hover.y" r="4" />
          <line :x1="ground.width" :x2="size.width" :y1="hover.y" :y2="hover.y" />
        </g>
        <g class="camera" :transform="`translate(${ground.width / 2},${size.height - 13})`">
          <rect x="-11" y="-4" width="22" height="13" rx="2" />
          <rect x="-5" y="-10" width="10" height="6" />
        </g>
        <text class="end" x="5" y="13">far {{ range.far.toFixed(2) }}</text>
        <text class="end" x="5" :y="ground.height - 5">near {{ range.near.toFixed(2) }}</text>
      </svg>
    </div>
  </section>
</template>

<style scoped>
.plan {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  min-height: 0;
  background: var(--panel);
  border-left: 1px solid var(--line);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: start;
  padding: 7px 12px;
  border-bottom: 1px solid var(--line);
}
.ground {
  position: relative;
  min-height: 0;
  touch-action: none;
  overflow: hidden;
  margin: 8px;
}
canvas,
svg {
  position: absolute;
  left: 0;
  top: 0;
}
canvas {
  background: var(--well);
}
.cone line {
  stroke: var(--strong-line);
  stroke-dasharray: 2 4;
}
.ridge {
  fill: var(--dim);
  opacity: 0.55;
}
.slab {
  fill: var(--accent);
  opacity: 0.2;
}
.edge {
  stroke: var(--accent);
  stroke-width: 1.5;
}
.knob {
  fill: var(--accent);
}
.turn {
  fill: var(--panel);
  stroke: var(--accent);
  stroke-width: 2;
}
polyline {
  fill: none;
}
.words {
  text-align: right;
  min-height: 32px;
}
.falloff {
  opacity: 0.13;
}
.falloff.near {
  fill: var(--near);
}
.falloff.far {
  fill: var(--far);
}
.soft {
  stroke-dasharray: 3 3;
  stroke-width: 1;
}
.soft.near {
  stroke: var(--near);
}
.soft.far {
  stroke: var(--far);
}
.hover circle {
  fill: none;
  stroke: var(--ink);
  stroke-width: 1.5;
}
.hover line {
  stroke: var(--ink);
}
.camera rect {
  fill: var(--panel);
  stroke: var(--dim);
}
.end {
  fill: var(--dim);
  font-size: 10.5px;
}
</style>
