<script setup lang="ts">
import { computed, onMounted } from 'vue'
import type { Recipe } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useCharacters } from '../../stores/characters'
import Dial from './Dial.vue'
import DiscPicture from './DiscPicture.vue'
import { apertureScale, strengthScale } from './dial'
import { fNumberLike, radiusPerNearness, reality, strengthLike } from './lens'
import { encoded, linear } from '../picture/tone'
import NumberField from './NumberField.vue'
import { outside } from '../../editing/nearness'
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

const characters = useCharacters()
onMounted(() => void characters.load())

const CENTRE = { x: 0, y: 0 }
const CORNER = { x: 0.83, y: -0.55 }

const keys = ['blades', 'curvature', 'turn', 'rim', 'hollow', 'squeeze', 'stretch'] as const
const character = computed(
  () => characters.all.find((each) => keys.every((key) => each.disc[key] === recipe.value.disc[key]))?.title ?? '',
)

function choose(title: string): void {
  const found = characters.all.find((each) => each.title === title)
  if (found) bench.commit(title, disc(found.disc))
}

const sliders = [
  { key: 'curvature', label: 'Curvature', hint: 'How round the blades are', least: 0, most: 1, step: 0.01 },
  { key: 'turn', label: 'Turn', hint: 'Turns the blades', least: 0, most: 359, step: 1 },
  { key: 'rim', label: 'Rim', hint: 'From discs that fade towards their rim to outlined ones; in front of the band the other way round, as in a lens', least: -1, most: 1, step: 0.05 },
  { key: 'hollow', label: 'Hollow', hint: 'The dark middle of a mirror lens', least: 0, most: 0.8, step: 0.01 },
  { key: 'squeeze', label: 'Squeeze', hint: 'How far the barrel cuts into the discs towards the corners', least: 0, most: 1, step: 0.01 },
  { key: 'stretch', label: 'Stretch', hint: 'Upright ovals of a wide-screen lens', least: 1, most: 2, step: 0.01 },
] as const
const columns = [sliders.slice(0, 2), sliders.slice(2, 5), sliders.slice(5)]

function sliderText(key: (typeof sliders)[number]['key']): string {
  const value = recipe.value.disc[key]
  if (key === 'turn') return `${Math.round(value)}°`
  if (key === 'stretch') return `${value.toFixed(2)}x`
  if (key === 'rim') return value === 0 ? 'even' : `${Math.round(Math.abs(value) * 100)} % ${value < 0 ? 'soft' : 'outlined'}`
  return `${Math.round(value * 100)} %`
}

const like = computed(() => {
  const shot = bench.shot
  if (!shot) return ''
  if (free.value) {
    const n = fNumberLike(recipe.value, shot.width, shot.height)
    return Number.isFinite(n) ? `As f/${n < 10 ? n.toFixed(1) : n.toFixed(0)} of the lens` : 'No blur'
  }
  const strength = strengthLike(recipe.value, shot.width, shot.height)
  return strength <= 100 ? `As ${Math.round(strength)} % free strength` : 'More than 100 % free strength'
})

const real = computed(() => (bench.shot ? reality(recipe.value, bench.shot.width, bench.shot.height) : undefined))

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
  return `widest disc ${Math.round(diameter)} px`
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
      <p class="quiet small">{{ like }}; {{ largest }}</p>
      <p class="reality" data-test="reality">{{ real?.line }}<span v-if="real?.warning" class="warning"> {{ real.warning }}</span></p>
    </div>
    <div class="column sides">
      <SliderField label="In front" hint="Strength of the blur in front of the band" :value="recipe.gain.front" :least="0" :most="2" :step="0.05" :text="`${Math.round(recipe.gain.front * 100)} %`" @live="bench.live(gain({ front: $event }))" @commit="bench.commit('Blur in front', gain({ front: $event }))" />
      <SliderField label="Behind" hint="Strength of the blur behind the band" :value="recipe.gain.behind" :least="0" :most="2" :step="0.05" :text="`${Math.round(recipe.gain.behind * 100)} %`" @live="bench.live(gain({ behind: $event }))" @commit="bench.commit('Blur behind', gain({ behind: $event }))" />
      <SliderField label="Opacity" hint="Of the whole effect over the photo" :value="recipe.opacity" :least="0" :most="1" :step="0.01" :text="`${Math.round(recipe.opacity * 100)} %`" @live="bench.live({ opacity: $event })" @commit="bench.commit('Opacity', { opacity: $event })" />
    </div>
    <div class="column character">
      <select :value="character" aria-label="Character" title="A named disc to start from" @change="choose(($event.target as HTMLSelectElement).value)">
        <option value="" disabled>own disc</option>
        <option v-for="each in characters.all" :key="each.title" :value="each.title" :title="each.about">{{ each.title }}</option>
      </select>
      <div class="pictures">
        <DiscPicture :disc="recipe.disc" :place="CENTRE" label="centre" />
        <DiscPicture :disc="recipe.disc" :place="CORNER" label="corner" />
      </div>
    </div>
    <div v-for="(column, i) in columns" :key="i" class="column shape">
      <label v-if="i === 0" class="blades"><span class="heading">Blades</span>
        <select :value="recipe.disc.blades" aria-label="Blades" @change="bench.commit('Blades', disc({ blades: Number(($event.target as HTMLSelectElement).value) }))">
          <option :value="0">round</option>
          <option v-for="n in [5, 6, 7, 8, 9, 10, 11]" :key="n" :value="n">{{ n }}</option>
        </select></label>
      <SliderField v-for="each in column" :key="each.key" :label="each.label" :hint="each.hint" :value="recipe.disc[each.key]" :least="each.least" :most="each.most" :step="each.step" :text="sliderText(each.key)" @live="bench.live(disc({ [each.key]: $event }))" @commit="bench.commit(each.label, disc({ [each.key]: $event }))" />
      <SliderField v-if="i === 2" label="Glints" hint="Gives clipped lights their brightness back, so that they become clear discs" :value="recipe.glints" :least="0" :most="1" :step="0.01" :text="`${Math.round(recipe.glints * 100)} %`" @live="bench.live({ glints: $event })" @commit="bench.commit('Glints', { glints: $event })" />
      <SliderField v-if="i === 2" label="Lights from" hint="The brightness from which a small light counts as clipped: lower lifts dimmer lights too" :value="encoded(recipe.glintThreshold)" :least="0.6" :most="1" :step="0.01" :text="`${Math.round(encoded(recipe.glintThreshold) * 100)} %`" @live="bench.live({ glintThreshold: linear($event) })" @commit="bench.commit('Lights from', { glintThreshold: linear($event) })" />
    </div>
  </div>
</template>

<style scoped>
.deck { display: grid; grid-template-columns: auto 272px 112px auto repeat(3, 112px); gap: 22px; align-items: center; justify-content: start; height: 100%; }
.dial-column { height: 100%; min-height: 0; }
.column { display: grid; gap: 6px; align-content: center; min-width: 0; }
.fields { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 8px; }
.fields.off { opacity: 0.45; }
.choice { display: flex; gap: 2px; }
.pictures { display: flex; gap: 6px; }
.reality { margin: 0; font-size: 12px; line-height: 1.35; max-height: 34px; overflow: hidden; }
.reality .warning { font-weight: 600; margin-left: 5px; }
.blades { display: flex; justify-content: space-between; align-items: center; }
select { background: var(--well); color: var(--ink); border: 1px solid var(--line); border-radius: 3px; padding: 1px 6px; font-size: 12px; }
</style>
