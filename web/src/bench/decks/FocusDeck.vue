<script setup lang="ts">
import { mdiAccountOutline, mdiChevronLeft, mdiChevronRight, mdiTransitionMasked } from '@mdi/js'
import { computed } from 'vue'
import type { Band, Recipe } from '../../api/client'
import { usualBand } from '../../api/generated/settings'
import { useBench } from '../../stores/bench'
import { usePull } from '../../stores/pull'
import Dial from './Dial.vue'
import { bandScale } from './dial'
import FollowColumn from './FollowColumn.vue'
import SettingField from './SettingField.vue'
import SettingSlider from './SettingSlider.vue'

const bench = useBench()
const pull = usePull()
const band = computed<Band>(() => bench.recipe?.band ?? usualBand)
const width = computed(() => band.value.near - band.value.far)
const chosen = computed(() => bench.subjects[bench.thing - 1])

/** A band of this width around the same centre, pushed inside 0 to 1. */
function widened(value: number): Band {
  const centre = (band.value.near + band.value.far) / 2
  const held = Math.min(1 - value / 2, Math.max(value / 2, centre))
  return { ...band.value, near: Math.min(1, held + value / 2), far: Math.max(0, held - value / 2) }
}

/** The edges never cross: the one that is moved takes the other along. */
const near = (value: number): Partial<Recipe> => ({
  band: { ...band.value, near: value, far: Math.min(value, band.value.far) },
})
const far = (value: number): Partial<Recipe> => ({
  band: { ...band.value, far: value, near: Math.max(value, band.value.near) },
})
</script>

<template>
  <div class="deck" :class="{ clip: bench.clip }">
    <Dial
      :value="width"
      :scale="bandScale"
      label="band width"
      hint="How much depth is sharp: a thin band reads as a fast lens, a wide one as a stopped-down lens"
      @live="bench.live({ band: widened($event) })"
      @commit="bench.commit('Band width', { band: widened($event) })" />
    <div class="column">
      <v-btn
        class="lead"
        :prepend-icon="mdiAccountOutline"
        title="Finds the main subject and puts the band on it (M)"
        data-test="subject"
        @click="bench.focusOn({ kind: 'subject' }, 'Main subject')">
        Main subject
      </v-btn>
      <div v-if="bench.subjects.length > 1" class="row">
        <v-btn
          :icon="mdiChevronLeft"
          title="Focus on the subject before (Shift N)"
          aria-label="Subject before"
          @click="bench.focusOnThing(bench.thing - 1)" />
        <span class="small">
          {{
            chosen
              ? `${chosen.kind === 'face' ? 'face' : 'subject'}, ${bench.thing} of ${bench.subjects.length}`
              : `${bench.subjects.length} subjects`
          }}
        </span>
        <v-btn
          :icon="mdiChevronRight"
          title="Focus on the next subject (N)"
          aria-label="Next subject"
          data-test="next-thing"
          @click="bench.focusOnThing(bench.thing + 1)" />
      </div>
      <div class="row">
        <v-btn
          title="The band spans all depths: nothing is blurred"
          data-test="everything"
          @click="bench.commit('Everything sharp', { band: { ...band, near: 1, far: 0, tiltAcross: 0, tiltDown: 0 } })">
          Everything sharp
        </v-btn>
        <v-btn
          title="The band lies in front of all depths: everything is blurred"
          data-test="nothing"
          @click="bench.commit('Nothing sharp', { band: { ...band, near: 1, far: 1, tiltAcross: 0, tiltDown: 0 } })">
          Nothing sharp
        </v-btn>
      </div>
      <v-btn
        v-if="bench.clip"
        :prepend-icon="mdiTransitionMasked"
        :active="pull.active"
        title="Two clicks at two moments: focus goes from what is clicked first to what is clicked then"
        data-test="pull"
        @click="pull.toggle()">
        {{ pull.words }}
      </v-btn>
      <p v-if="!bench.clip" class="quiet small">
        Click the picture to focus on a spot,
        <br />
        drag over an area to keep it sharp.
      </p>
    </div>
    <div class="fields">
      <SettingField
        path="band.near"
        hint="Where sharpness ends towards the camera; 1 is the nearest point"
        :digits="2"
        :change="near" />
      <SettingField
        path="band.far"
        hint="Where sharpness ends away from the camera; 0 is the farthest point"
        :digits="2"
        :change="far" />
      <SettingField path="band.nearFalloff" hint="How gently blur sets in towards the camera" :digits="2" />
      <SettingField path="band.farFalloff" hint="How gently blur sets in away from the camera" :digits="2" />
    </div>
    <FollowColumn v-if="bench.clip" />
    <div class="tilt">
      <SettingSlider
        path="band.tiltAcross"
        label="Turn"
        hint="Turns the band about the upright axis, as a lens tilted sideways: left and right are sharp at different depths"
        :least="-0.6"
        :most="0.6" />
      <SettingSlider
        path="band.tiltDown"
        label="Lean"
        hint="Leans the band about the level axis, as a lens tilted up or down: follows a floor, a table or a row of things"
        :least="-0.6"
        :most="0.6" />
      <v-btn
        :disabled="!band.tiltAcross && !band.tiltDown"
        title="The band at one depth all over the picture"
        data-test="level"
        @click="bench.commit('Level the band', { band: { ...band, tiltAcross: 0, tiltDown: 0 } })">
        Level it
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.deck {
  display: grid;
  grid-template-columns: auto auto minmax(0, 260px) 150px;
  gap: 36px;
  align-items: center;
  justify-content: start;
  height: 100%;
}
.deck.clip {
  grid-template-columns: auto auto minmax(0, 190px) auto 120px;
  gap: 20px;
}
.column {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.tilt {
  display: grid;
  gap: 8px;
}
.fields {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 8px 12px;
}
</style>
