<script setup lang="ts">
import { computed } from 'vue'
import { LARGEST, SMALLEST } from '../../editing/painting'
import { control } from '../../editing/settings'
import { useBench } from '../../stores/bench'
import { useTouchups } from '../../stores/touchups'
import SliderField from './SliderField.vue'

/** What the next stroke is painted with. */
const bench = useBench()
const touchups = useTouchups()
const brush = computed(() => touchups.brush)
const percent = (value: number): string => `${Math.round(value * 100)} %`

/** Small sizes need fine steps, so the slider runs by the logarithm. */
const sizeAt = computed(() => Math.log(brush.value.size / SMALLEST) / Math.log(LARGEST / SMALLEST))
const sizeText = computed(
  () => `${Math.round(brush.value.size * Math.max(bench.shot?.width ?? 0, bench.shot?.height ?? 0))} px`,
)

function setSize(at: number): void {
  touchups.useBrush({ size: Math.round(SMALLEST * (LARGEST / SMALLEST) ** at * 1e5) / 1e5 })
}
</script>

<template>
  <div class="brush">
    <SliderField
      label="Size"
      hint="Diameter of the brush in pixels of the photo ([ and ], or Shift and the wheel)"
      :least="0"
      :most="1"
      :step="0.005"
      :value="sizeAt"
      :text="sizeText"
      @live="setSize"
      @commit="setSize" />
    <SliderField
      v-bind="control('stroke.softness')"
      :value="brush.softness"
      :text="percent(brush.softness)"
      @live="touchups.useBrush({ softness: $event })"
      @commit="touchups.useBrush({ softness: $event })" />
    <SliderField
      v-bind="control('stroke.buildUp')"
      :value="brush.buildUp"
      :text="percent(brush.buildUp)"
      @live="touchups.useBrush({ buildUp: $event })"
      @commit="touchups.useBrush({ buildUp: $event })" />
    <SliderField
      v-bind="control('stroke.cling')"
      :value="brush.cling"
      :text="percent(brush.cling)"
      @live="touchups.useBrush({ cling: $event })"
      @commit="touchups.useBrush({ cling: $event })" />
    <label class="choice" title="Which edges paint stops at">
      <span class="heading">Clings to</span>
      <select
        :value="brush.edges"
        aria-label="Clings to"
        @change="touchups.useBrush({ edges: ($event.target as HTMLSelectElement).value as typeof brush.edges })">
        <option value="photo">photo</option>
        <option value="depth">depth</option>
        <option value="both">both</option>
      </select>
    </label>
    <label class="choice" title="What the pressure of a pen changes">
      <span class="heading">Pen pressure</span>
      <select
        :value="brush.pressure"
        aria-label="Pen pressure"
        @change="touchups.useBrush({ pressure: ($event.target as HTMLSelectElement).value as typeof brush.pressure })">
        <option value="nothing">nothing</option>
        <option value="size">size</option>
        <option value="build-up">build-up</option>
      </select>
    </label>
  </div>
</template>

<style scoped>
.brush {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  align-content: start;
}
.choice {
  display: grid;
  gap: 1px;
}
select {
  padding: 2px 6px;
  min-height: 24px;
}
</style>
