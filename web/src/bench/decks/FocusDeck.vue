<script setup lang="ts">
import { mdiAccountOutline, mdiChevronLeft, mdiChevronRight } from '@mdi/js'
import { computed } from 'vue'
import type { Band } from '../../api/client'
import { useBench } from '../../stores/bench'
import Dial from './Dial.vue'
import { bandScale } from './dial'
import NumberField from './NumberField.vue'
import SliderField from './SliderField.vue'

const bench = useBench()
const band = computed<Band>(() => bench.recipe?.band ?? { near: 1, far: 0, nearFalloff: 0, farFalloff: 0, tiltAcross: 0, tiltDown: 0 })
const width = computed(() => band.value.near - band.value.far)

/** A band of this width around the same centre, pushed inside 0 to 1. */
function widened(value: number): Band {
  const centre = (band.value.near + band.value.far) / 2
  const held = Math.min(1 - value / 2, Math.max(value / 2, centre))
  return { ...band.value, near: Math.min(1, held + value / 2), far: Math.max(0, held - value / 2) }
}

function set(name: string, part: Partial<Band>): void {
  const next = { ...band.value, ...part }
  if (next.near < next.far) {
    if (part.near !== undefined) next.far = next.near
    else next.near = next.far
  }
  bench.commit(name, { band: next })
}
</script>

<template>
  <div class="deck">
    <Dial
      :value="width" :scale="bandScale" label="band width" hint="How much depth is sharp: a thin band reads as a fast lens, a wide one as a stopped-down lens"
      @live="bench.live({ band: widened($event) })" @commit="bench.commit('Band width', { band: widened($event) })"
    />
    <div class="column">
      <v-btn class="lead" :prepend-icon="mdiAccountOutline" title="Finds the main subject and puts the band on it (M)" data-test="subject" @click="bench.focusOn({ kind: 'subject' }, 'Main subject')">Main subject</v-btn>
      <div v-if="(bench.things?.things.length ?? 0) > 1" class="row">
        <v-btn :icon="mdiChevronLeft" title="Focus on the subject before (Shift N)" aria-label="Subject before" @click="bench.focusOnThing(bench.thing - 1)" />
        <span class="small">{{ bench.thing ? `subject ${bench.thing} of ${bench.things?.things.length}` : `${bench.things?.things.length} subjects` }}</span>
        <v-btn :icon="mdiChevronRight" title="Focus on the next subject (N)" aria-label="Next subject" data-test="next-thing" @click="bench.focusOnThing(bench.thing + 1)" />
      </div>
      <div class="row">
        <v-btn title="The band spans all depths: nothing is blurred" data-test="everything" @click="bench.commit('Everything sharp', { band: { ...band, near: 1, far: 0, tiltAcross: 0, tiltDown: 0 } })">Everything sharp</v-btn>
        <v-btn title="The band lies in front of all depths: everything is blurred" data-test="nothing" @click="bench.commit('Nothing sharp', { band: { ...band, near: 1, far: 1, tiltAcross: 0, tiltDown: 0 } })">Nothing sharp</v-btn>
      </div>
      <p class="quiet small">Click the picture to focus on a spot,<br />drag over an area to keep it sharp.</p>
    </div>
    <div class="fields">
      <NumberField label="Near edge" hint="Where sharpness ends towards the camera; 1 is the nearest point" :value="band.near" :least="0" :most="1" :digits="2" :step="0.01" @commit="set('Near edge', { near: $event })" />
      <NumberField label="Far edge" hint="Where sharpness ends away from the camera; 0 is the farthest point" :value="band.far" :least="0" :most="1" :digits="2" :step="0.01" @commit="set('Far edge', { far: $event })" />
      <NumberField label="Falloff in front" hint="How gently blur sets in towards the camera" :value="band.nearFalloff" :least="0" :most="1" :digits="2" :step="0.01" @commit="set('Falloff in front', { nearFalloff: $event })" />
      <NumberField label="Falloff behind" hint="How gently blur sets in away from the camera" :value="band.farFalloff" :least="0" :most="1" :digits="2" :step="0.01" @commit="set('Falloff behind', { farFalloff: $event })" />
    </div>
    <div class="tilt">
      <SliderField label="Turn" hint="Turns the band about the upright axis, as a lens tilted sideways: left and right are sharp at different depths" :value="band.tiltAcross" :least="-0.6" :most="0.6" :step="0.01" :text="band.tiltAcross.toFixed(2)" @live="bench.live({ band: { ...band, tiltAcross: $event } })" @commit="bench.commit('Turn the band', { band: { ...band, tiltAcross: $event } })" />
      <SliderField label="Lean" hint="Leans the band about the level axis, as a lens tilted up or down: follows a floor, a table or a row of things" :value="band.tiltDown" :least="-0.6" :most="0.6" :step="0.01" :text="band.tiltDown.toFixed(2)" @live="bench.live({ band: { ...band, tiltDown: $event } })" @commit="bench.commit('Lean the band', { band: { ...band, tiltDown: $event } })" />
      <v-btn :disabled="!band.tiltAcross && !band.tiltDown" title="The band at one depth all over the picture" data-test="level" @click="bench.commit('Level the band', { band: { ...band, tiltAcross: 0, tiltDown: 0 } })">Level it</v-btn>
    </div>
  </div>
</template>

<style scoped>
.deck { display: grid; grid-template-columns: auto auto minmax(0, 260px) 150px; gap: 36px; align-items: center; justify-content: start; height: 100%; }
.column { display: grid; gap: 6px; justify-items: start; }
.row { display: flex; align-items: center; gap: 4px; }
.tilt { display: grid; gap: 8px; }
.fields { display: grid; grid-template-columns: 1fr 1fr; gap: 8px 12px; }
</style>
