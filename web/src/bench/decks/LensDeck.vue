<script setup lang="ts">
import { computed, onMounted } from 'vue'
import type { Disc, Recipe } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useCharacters } from '../../stores/characters'
import Dial from './Dial.vue'
import DiscPicture from './DiscPicture.vue'
import { apertureScale, strengthScale } from './dial'
import { fNumberLike, radiusPerNearness, reality, strengthLike } from './lens'
import { encoded, linear } from '../picture/tone'
import { outside } from '../../editing/nearness'
import { control, setting, type RecipePath } from '../../editing/settings'
import SettingField from './SettingField.vue'
import SettingSlider from './SettingSlider.vue'
import SliderField from './SliderField.vue'

const bench = useBench()
const recipe = computed(() => bench.recipe as Recipe)
const aperture = computed(() => recipe.value.aperture)
const free = computed(() => aperture.value.mode === 'free')

const lens = (part: Partial<Recipe['aperture']>): Partial<Recipe> => ({ aperture: { ...aperture.value, ...part } })
const disc = (part: Partial<Recipe['disc']>): Partial<Recipe> => ({ disc: { ...recipe.value.disc, ...part } })
const glints = (threshold: number): Partial<Recipe> => ({ glints: { ...recipe.value.glints, threshold } })

const turned = (value: number): Partial<Recipe> =>
  free.value ? lens({ strength: Math.round(value) }) : lens({ fNumber: Math.round(value * 100) / 100 })

const characters = useCharacters()
onMounted(() => void characters.load())

const CENTRE = { x: 0, y: 0 }
const CORNER = { x: 0.83, y: -0.55 }

const character = computed(
  () =>
    characters.all.find((each) =>
      (Object.keys(each.disc) as (keyof Disc)[]).every((key) => each.disc[key] === recipe.value.disc[key]),
    )?.title ?? '',
)

function choose(title: string): void {
  const found = characters.all.find((each) => each.title === title)
  if (found) bench.commit(title, disc(found.disc))
}

const shape: RecipePath[][] = [
  ['disc.curvature', 'disc.turn'],
  ['disc.rim', 'disc.hollow', 'disc.squeeze'],
  ['disc.stretch'],
]
const rimText = (value: number): string =>
  value === 0 ? 'even' : `${Math.round(Math.abs(value) * 100)} % ${value < 0 ? 'soft' : 'outlined'}`
const stretchText = (value: number): string => `${value.toFixed(2)}x`
const ownText: Partial<Record<RecipePath, (value: number) => string>> = {
  'disc.rim': rimText,
  'disc.stretch': stretchText,
}
/** The slider of where lights begin runs by how bright they look. */
const lights = computed(() => recipe.value.glints.threshold)

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

const nearest = computed(() => aperture.value.focalLength / 1000 + 0.01)
</script>

<template>
  <div class="deck">
    <div class="dial-column">
      <Dial
        v-if="free"
        :value="aperture.strength"
        :scale="strengthScale"
        label="free strength"
        hint="Blur without a lens in mind"
        @live="bench.live(turned($event))"
        @commit="bench.commit(`Strength ${Math.round($event)} %`, turned($event))" />
      <Dial
        v-else
        :value="aperture.fNumber"
        :scale="apertureScale"
        label="aperture"
        hint="The f-number: smaller numbers blur more"
        @live="bench.live(turned($event))"
        @commit="bench.commit(`Aperture ${apertureScale.text($event)}`, turned($event))" />
    </div>
    <div class="column lens">
      <div class="choice" role="group" aria-label="How the blur is set">
        <v-btn
          :active="!free"
          title="By f-number, focal length, sensor and distance"
          @click="bench.commit('By the lens', lens({ mode: 'f-number' }))">
          By the lens
        </v-btn>
        <v-btn :active="free" title="As a percentage" @click="bench.commit('Free strength', lens({ mode: 'free' }))">
          Free
        </v-btn>
      </div>
      <div class="fields" :class="{ off: free }">
        <SettingField
          path="aperture.focalLength"
          :most="Math.min(setting('aperture.focalLength').most, aperture.distance * 1000 - 1)" />
        <SettingField path="aperture.sensorWidth" hint="Of the camera" :digits="1" />
        <SettingField path="aperture.distance" hint="From the lens to what is sharp" :digits="2" :least="nearest" />
      </div>
      <p class="quiet small">{{ like }}; {{ largest }}</p>
      <p class="reality" data-test="reality">
        {{ real?.line }}
        <span v-if="real?.warning" class="warning">{{ real.warning }}</span>
      </p>
    </div>
    <div class="column sides">
      <SettingSlider
        path="gain.front"
        label="In front"
        hint="Strength of the blur in front of the band"
        :most="2"
        :step="0.05" />
      <SettingSlider
        path="gain.behind"
        label="Behind"
        hint="Strength of the blur behind the band"
        :most="2"
        :step="0.05" />
      <SettingSlider path="opacity" />
    </div>
    <div class="column character">
      <select
        :value="character"
        aria-label="Character"
        title="A named disc to start from"
        @change="choose(($event.target as HTMLSelectElement).value)">
        <option value="" disabled>own disc</option>
        <option v-for="each in characters.all" :key="each.title" :value="each.title" :title="each.about">
          {{ each.title }}
        </option>
      </select>
      <div class="pictures">
        <DiscPicture :disc="recipe.disc" :place="CENTRE" label="centre" />
        <DiscPicture :disc="recipe.disc" :place="CORNER" label="corner" />
      </div>
    </div>
    <div v-for="(column, i) in shape" :key="i" class="column shape">
      <label v-if="i === 0" class="blades">
        <span class="heading">Blades</span>
        <select
          :value="recipe.disc.blades"
          aria-label="Blades"
          :title="control('disc.blades').hint"
          @change="bench.commit('Blades', disc({ blades: Number(($event.target as HTMLSelectElement).value) }))">
          <option :value="0">round</option>
          <option v-for="n in [5, 6, 7, 8, 9, 10, 11]" :key="n" :value="n">{{ n }}</option>
        </select>
      </label>
      <SettingSlider
        v-for="path in column"
        :key="path"
        :path="path"
        :most="path === 'disc.turn' ? 359 : setting(path).most"
        :text="ownText[path]" />
      <template v-if="i === 2">
        <SettingSlider path="glints.strength" />
        <SliderField
          v-bind="control('glints.threshold')"
          :value="encoded(lights)"
          :least="0.6"
          :most="1"
          :text="`${Math.round(encoded(lights) * 100)} %`"
          @live="bench.live(glints(linear($event)))"
          @commit="bench.commit('Lights from', glints(linear($event)))" />
      </template>
    </div>
  </div>
</template>

<style scoped>
.deck {
  display: grid;
  grid-template-columns: auto 272px 112px auto repeat(3, 112px);
  gap: 22px;
  align-items: center;
  justify-content: start;
  height: 100%;
}
.dial-column {
  height: 100%;
  min-height: 0;
}
.column {
  display: grid;
  gap: 6px;
  align-content: center;
  min-width: 0;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 8px;
}
.fields.off {
  opacity: 0.45;
}
.choice {
  display: flex;
  gap: 2px;
}
.pictures {
  display: flex;
  gap: 6px;
}
.reality {
  margin: 0;
  font-size: 12px;
  line-height: 1.35;
  max-height: 34px;
  overflow: hidden;
}
.reality .warning {
  font-weight: 600;
  margin-left: 5px;
}
.blades {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
</style>
