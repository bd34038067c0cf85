<script setup lang="ts">
import { mdiCrosshairs, mdiDeleteOutline, mdiEyeOutline } from '@mdi/js'
import { computed } from 'vue'
import { settings } from '../../api/generated/settings'
import { doubts } from '../../editing/follow'
import { useBench } from '../../stores/bench'
import { useFollows } from '../../stores/follows'
import SliderField from './SliderField.vue'

/** Points that are followed, and how the band keeps to the chosen one. */
const bench = useBench()
const follows = useFollows()
const chosen = computed(() => follows.chosen)
const making = computed(() => (chosen.value ? follows.making[chosen.value.id] : undefined))
const frames = computed(() => (chosen.value ? bench.tracks[chosen.value.id] : undefined))

/** How it stands with the chosen point, in words. */
const told = computed(() => {
  if (making.value?.fault) return making.value.fault
  if (making.value) return `following, ${Math.round(making.value.done * 100)} %`
  if (!frames.value) return ''
  const all = doubts(frames.value)
  const count = (hidden: boolean): number =>
    all.filter((each) => each.hidden === hidden).reduce((sum, { from, end }) => sum + end - from, 0)
  const unsure = count(false)
  const hidden = count(true)
  if (!unsure && !hidden) return 'sure at every frame'
  return [unsure && `unsure at ${unsure} frames`, hidden && `not seen at ${hidden}`].filter(Boolean).join(', ')
})

const FIELDS = [
  { key: 'width', step: 'Band width of a point', unit: '' },
  { key: 'smooth', step: 'Smoothing of a point', unit: 's' },
  { key: 'lead', step: 'Lead of a point', unit: 's' },
] as const
</script>

<template>
  <div class="follow">
    <div class="column">
      <div class="row">
        <v-btn
          :prepend-icon="mdiCrosshairs"
          :active="follows.placing"
          title="Click something in the picture: focus keeps to it through the clip"
          data-test="follow"
          @click="follows.placing = !follows.placing">
          {{ follows.placing ? 'Click what to follow' : 'Follow a point' }}
        </v-btn>
        <v-btn
          v-if="!follows.placing"
          :icon="mdiEyeOutline"
          size="small"
          title="Follow the nearer eye of the face (E)"
          aria-label="Follow an eye"
          data-test="follow-eye"
          @click="follows.addEye()" />
      </div>
      <p v-if="!chosen" class="quiet small">Focus keeps to what you click, nearer or farther.</p>
      <template v-else>
        <div class="row">
          <v-btn
            v-for="each in follows.all"
            :key="each.id"
            size="small"
            :active="each.id === chosen.id"
            @click="follows.chosenId = each.id">
            {{ each.name }}
          </v-btn>
          <v-btn
            :icon="mdiDeleteOutline"
            size="small"
            title="Remove this point"
            aria-label="Remove this point"
            data-test="follow-remove"
            @click="follows.remove(chosen.id)" />
        </div>
        <p class="quiet small" role="status" data-test="follow-told">{{ told }}</p>
        <v-checkbox
          :model-value="chosen.focus"
          label="Focus follows"
          density="compact"
          hide-details
          data-test="follow-focus"
          @update:model-value="follows.change(chosen.id, 'Focus follows', { focus: !!$event })" />
      </template>
    </div>
    <div v-if="chosen" class="sliders">
      <SliderField
        v-for="{ key, step, unit } in FIELDS"
        :key="key"
        :value="chosen[key]"
        :label="settings[`follow.${key}`].called"
        :hint="settings[`follow.${key}`].means"
        :least="key === 'lead' ? -1 : 0"
        :most="key === 'width' ? 0.4 : key === 'smooth' ? 3 : 1"
        :step="0.01"
        :text="unit ? `${chosen[key].toFixed(2)} ${unit}` : chosen[key].toFixed(2)"
        @live="follows.change(chosen.id, step, { [key]: $event }, true)"
        @commit="follows.change(chosen.id, step, { [key]: $event })" />
    </div>
  </div>
</template>

<style scoped>
.follow {
  display: flex;
  gap: 20px;
  align-items: center;
}
.column {
  display: grid;
  gap: 2px;
  justify-items: start;
  width: 190px;
}
.sliders {
  display: grid;
  gap: 6px;
  width: 120px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: 2px;
  align-items: center;
}
</style>
