<script setup lang="ts">
import { computed } from 'vue'
import type { Recipe } from '../../api/client'
import { useBench } from '../../stores/bench'
import { encoded, linear } from '../picture/tone'
import { changed, setting, type RecipePath } from '../../editing/settings'
import type { Mist } from '../../editing/mist'
import Dial from './Dial.vue'
import SettingSlider from './SettingSlider.vue'
import { strengthScale } from './dial'

const bench = useBench()
const recipe = computed(() => bench.recipe as Recipe)
const mist = computed(() => recipe.value.atmosphere.mist)
const turned = (value: number): Partial<Recipe> =>
  changed(recipe.value, 'atmosphere.mist.density', Math.round(value) / 100)
const withMist = (part: Partial<Mist>): Partial<Recipe> => ({
  atmosphere: { ...recipe.value.atmosphere, mist: { ...mist.value, ...part } },
})

const CHANNELS = ['red', 'green', 'blue'] as const
/** The picked colour as it looks. */
const colour = computed(
  () =>
    '#' +
    CHANNELS.map((each) =>
      Math.round(encoded(mist.value[each]) * 255)
        .toString(16)
        .padStart(2, '0'),
    ).join(''),
)
function picked(text: string): Partial<Recipe> {
  const [red, green, blue] = CHANNELS.map((_, i) => linear(parseInt(text.slice(1 + 2 * i, 3 + 2 * i), 16) / 255))
  return withMist({ source: 'picked', red, green, blue } as Partial<Mist>)
}
const valueOf = (event: Event): string => (event.target as HTMLInputElement).value

const SIDES = [
  { key: 'front', name: 'In front' },
  { key: 'behind', name: 'Behind' },
] as const
const tones = ['light', 'colour', 'warmth', 'cast'] as const
const tone = (side: string, key: string): RecipePath => `atmosphere.${side}.${key}` as RecipePath
const called = (side: (typeof SIDES)[number], path: RecipePath): string =>
  `${setting(path).called} ${side.name.toLowerCase()}`
const apart =
  (words: [string, string, string]) =>
  (value: number): string =>
    value === 0 ? words[1] : `${Math.round(Math.abs(value) * 100)} % ${value < 0 ? words[0] : words[2]}`
const toneText: Partial<Record<string, (value: number) => string>> = {
  warmth: apart(['cool', 'as it is', 'warm']),
  cast: apart(['green', 'none', 'magenta']),
  colour: apart(['less', 'as it is', 'more']),
}
const sharpEverywhere = computed(() => recipe.value.band.near === 1 && recipe.value.band.far === 0)
</script>

<template>
  <div class="deck">
    <div class="dial-column">
      <Dial
        :value="mist.density * 100"
        :scale="strengthScale"
        label="mist"
        hint="How dense the mist is; it grows with distance"
        @live="bench.live(turned($event))"
        @commit="bench.commit(`Mist ${Math.round($event)} %`, turned($event))" />
    </div>
    <div class="column" :class="{ off: mist.density === 0 }">
      <SettingSlider path="atmosphere.mist.start" label="From" />
      <SettingSlider path="atmosphere.mist.height" label="Up to" />
      <SettingSlider path="atmosphere.mist.clearing" label="Give contrast back" />
    </div>
    <div class="column colour" :class="{ off: mist.density === 0 }">
      <span class="heading">Colour of the mist</span>
      <div class="choice" role="group" aria-label="Colour of the mist">
        <v-btn
          :active="mist.source === 'scene'"
          title="As what lies farthest in the picture has it, paler"
          @click="bench.commit('Mist as the scene', withMist({ source: 'scene' }))">
          Of the scene
        </v-btn>
        <v-btn
          :active="mist.source === 'picked'"
          title="A colour of your own"
          @click="bench.commit('Mist of a colour', withMist({ source: 'picked' }))">
          Picked
        </v-btn>
      </div>
      <input
        type="color"
        :value="colour"
        :disabled="mist.source !== 'picked'"
        aria-label="Picked colour of the mist"
        title="Picks the colour, also from the picture"
        @input="bench.live(picked(valueOf($event)))"
        @change="bench.commit('Colour of the mist', picked(valueOf($event)))" />
    </div>
    <fieldset v-for="side in SIDES" :key="side.key" class="side" :class="{ off: sharpEverywhere }">
      <legend class="heading">{{ side.name }}, where blurred</legend>
      <SettingSlider
        v-for="each in tones"
        :key="each"
        :path="tone(side.key, each)"
        :called="called(side, tone(side.key, each))"
        :text="toneText[each]" />
    </fieldset>
    <div class="column">
      <SettingSlider path="finish.grain" />
      <SettingSlider path="finish.crispness" />
    </div>
  </div>
</template>

<style scoped>
.deck {
  display: grid;
  grid-template-columns: auto 138px auto 234px 234px 130px;
  gap: 24px;
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
.colour {
  gap: 8px;
}
.side {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px 14px;
  border: 0;
  padding: 0;
  margin: 0;
  min-width: 0;
}
.side legend {
  padding: 0;
  margin-bottom: 4px;
}
.off :deep(input) {
  opacity: 0.55;
}
.choice {
  display: flex;
  gap: 2px;
}
input[type='color'] {
  width: 100%;
  height: 26px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: none;
  cursor: pointer;
}
input[type='color']:disabled {
  opacity: 0.4;
  cursor: default;
}
</style>
