<script setup lang="ts">
import { computed } from 'vue'
import type { Recipe } from '../api/client'
import { useBench } from '../stores/bench'
import Dial from './Dial.vue'
import { apertureScale, strengthScale } from './dial'
import { discPath, radiusPerNearness } from './lens'
import NumberField from './NumberField.vue'
import { outside } from './nearness'
import SliderField from './SliderField.vue'

const bench = useBench()
const recipe = computed(() => bench.recipe as Recipe)
const aperture = computed(() => recipe.value.aperture)
const free = computed(() => aperture.value.mode === 'free')

const lens = (part: Partial<Recipe['aperture']>): Partial<Recipe> => ({ aperture: { ...aperture.value, ...part } })
const disc = (part: Partial<Recipe['disc']>): Partial<Recipe> => ({ disc: { ...recipe.value.disc, ...part } })
const gain = (part: Partial<Recipe['gain']>): Partial<Recipe> => ({ gain: { ...recipe.value.gain, ...part } })

const turned = (value: number): Partial<Recipe> =>
  free.value ? lens({ strength: Math.round(value) }) : lens({ fNumber: Math.round(value * 100) / 100 })

const shape = computed(() => discPath(recipe.value.disc.blades, recipe.value.disc.curvature, recipe.value.disc.turn, 26))

/** The largest disc that this recipe draws, as a share of the picture's width. */
const largest = computed(() => {
  const shot = bench.shot
  if (!shot) return ''
  const k = radiusPerNearness(recipe.value, shot.width, shot.height)
  const most = Math.max(
    Math.abs(outside(recipe.value.band, 0)) * recipe.value.gain.behind,
    Math.abs(outside(recipe.value.band, 1)) * recipe.value.gain.front,
  )
  const diameter = 2 * k * most
  return `Widest possible disc: ${Math.round(diameter)} px, ${((100 * diameter) / shot.width).toFixed(1)} % of the width`
})

const fieldNeed = computed(() => aperture.value.focalLength / 1000 + 0.01)
</script>

<template>
  <div class="deck">
    <div class="dial-column">
      <Dial
        v-if="free" :value="aperture.strength" :scale="strengthScale" label="free strength" hint="Blur without a lens in mind"
        @live="bench.live(turned($event))" @commit="bench.commit(`Strength ${Math.round($event)} %`, turned($event))"
      />
      <Dial
        v-else :value="aperture.fNumber" :scale="apertureScale" label="aperture" hint="The f-number: smaller numbers blur more"
        @live="bench.live(turned($event))" @commit="bench.commit(`Aperture ${apertureScale.text($event)}`, turned($event))"
      />
    </div>
    <div class="column lens">
      <div class="choice" role="group" aria-label="How the blur is set">
        <v-btn :active="!free" title="By f-number, focal length, sensor and distance" @click="bench.commit('By the lens', lens({ mode: 'f-number' }))">By the lens</v-btn>
        <v-btn :active="free" title="As a percentage" @click="bench.commit('Free strength', lens({ mode: 'free' }))">Free</v-btn>
      </div>
      <div class="fields" :class="{ off: free }">
        <NumberField label="Focal length" hint="Of the lens whose blur is drawn" unit="mm" :value="aperture.focalLength" :least="1" :most="Math.min(2000, aperture.distance * 1000 - 1)" @commit="bench.commit('Focal length', lens({ focalLength: $event }))" />
        <NumberField label="Sensor width" hint="Of the camera" unit="mm" :digits="1" :value="aperture.sensorWidth" :least="1" :most="200" @commit="bench.commit('Sensor width', lens({ sensorWidth: $event }))" />
        <NumberField label="Distance" hint="From the lens to what is sharp" unit="m" :digits="2" :step="0.1" :value="aperture.distance" :least="fieldNeed" :most="10000" @commit="bench.commit('Distance', lens({ distance: $event }))" />
      </div>
      <p class="quiet small">{{ largest }}</p>
    </div>
    <div class="column sides">
      <SliderField label="In front" hint="Strength of the blur in front of the band" :value="recipe.gain.front" :least="0" :most="2" :step="0.05" :text="`${Math.round(recipe.gain.front * 100)} %`" @live="bench.live(gain({ front: $event }))" @commit="bench.commit('Blur in front', gain({ front: $event }))" />
      <SliderField label="Behind" hint="Strength of the blur behind the band" :value="recipe.gain.behind" :least="0" :most="2" :step="0.05" :text="`${Math.round(recipe.gain.behind * 100)} %`" @live="bench.live(gain({ behind: $event }))" @commit="bench.commit('Blur behind', gain({ behind: $event }))" />
      <SliderField label="Opacity" hint="Of the whole effect over the photo" :value="recipe.opacity" :least="0" :most="1" :step="0.01" :text="`${Math.round(recipe.opacity * 100)} %`" @live="bench.live({ opacity: $event })" @commit="bench.commit('Opacity', { opacity: $event })" />
    </div>
    <div class="disc-part">
      <svg viewBox="-34 -34 68 68" role="img" aria-label="The shape of a point out of focus"><path :d="shape" /></svg>
      <div class="column">
        <label class="blades"><span class="heading">Blades</span>
          <select :value="recipe.disc.blades" aria-label="Blades" @change="bench.commit('Blades', disc({ blades: Number(($event.target as HTMLSelectElement).value) }))">
            <option :value="0">round</option>
            <option v-for="n in [5, 6, 7, 8, 9, 10, 11]" :key="n" :value="n">{{ n }}</option>
          </select></label>
        <SliderField label="Curvature" hint="How round the blades are" :value="recipe.disc.curvature" :least="0" :most="1" :step="0.01" :text="`${Math.round(recipe.disc.curvature * 100)} %`" @live="bench.live(disc({ curvature: $event }))" @commit="bench.commit('Curvature', disc({ curvature: $event }))" />
        <SliderField label="Glints" hint="Gives clipped lights their brightness back, so that they become clear discs" :value="recipe.glints" :least="0" :most="1" :step="0.01" :text="`${Math.round(recipe.glints * 100)} %`" @live="bench.live({ glints: $event })" @commit="bench.commit('Glints', { glints: $event })" />
      </div>
    </div>
  </div>
</template>

<style scoped>
.deck { display: grid; grid-template-columns: auto 272px 150px 260px; gap: 36px; align-items: center; justify-content: start; height: 100%; }
.dial-column { height: 100%; min-height: 0; }
.column { display: grid; gap: 6px; align-content: center; min-width: 0; }
.fields { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 8px; }
.fields.off { opacity: 0.45; }
.choice { display: flex; gap: 2px; }
.disc-part { display: grid; grid-template-columns: 84px 1fr; gap: 14px; align-items: center; }
.disc-part svg { background: var(--well); border: 1px solid var(--line); border-radius: 4px; }
.disc-part path { fill: #e9e6df; }
.v-theme--light .disc-part svg { background: #2a2a2a; }
.blades { display: flex; justify-content: space-between; align-items: center; }
select { background: var(--well); color: var(--ink); border: 1px solid var(--line); border-radius: 3px; padding: 1px 6px; font-size: 12px; }
</style>
