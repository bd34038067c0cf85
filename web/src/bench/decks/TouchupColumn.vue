<script setup lang="ts">
import { mdiContentCopy, mdiDeleteOutline, mdiDeleteSweepOutline, mdiEyedropper } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Touchup } from '../../api/client'
import { hasPaint, strengthText, type Action } from '../../editing/painting'
import { useBench } from '../../stores/bench'
import { useTouchups } from '../../stores/touchups'
import SliderField from './SliderField.vue'
import SpanRow from './SpanRow.vue'

/** What the chosen touch-up does. */
const props = defineProps<{ chosen: Touchup }>()
const bench = useBench()
const touchups = useTouchups()
const action = computed(() => props.chosen.action as Action)

const long = computed(() => Math.max(bench.shot?.width ?? 1, bench.shot?.height ?? 1))
const pixels = (share: number): number => Math.round(share * long.value * 2) / 2
const shares = (value: number): number => Math.round((value / long.value) * 1e7) / 1e7
const file = ref<HTMLInputElement>()

function load(event: Event): void {
  const input = event.target as HTMLInputElement
  const chosenFile = input.files?.[0]
  if (chosenFile) void touchups.loadMask(chosenFile)
  input.value = ''
}
</script>

<template>
  <div class="chosen">
    <div class="side">
      <SliderField
        label="Strength"
        :hint="
          action === 'blur'
            ? 'How far out of the band, behind it or in front'
            : 'How far the action goes, on all strokes of this touch-up'
        "
        :least="action === 'blur' ? -1 : 0"
        :most="1"
        :step="0.01"
        :value="chosen.strength"
        :text="strengthText(action, chosen.strength)"
        data-test="strength"
        @live="touchups.live({ strength: $event })"
        @commit="touchups.change(chosen.id, `Strength of ${chosen.name}`, { strength: $event })" />
      <div v-if="(action === 'focus' && !chosen.kept.length) || action === 'match'" class="row">
        <span class="small target">
          depth
          <span data-test="target">{{ chosen.target.toFixed(2) }}</span>
        </span>
        <v-btn v-if="action === 'focus'" title="Leads to where the sharp band is now" @click="touchups.readBand">
          Read band
        </v-btn>
        <v-btn
          :icon="mdiEyedropper"
          :active="touchups.picking"
          title="Pick the depth in the picture"
          aria-label="Pick the depth in the picture"
          data-test="pick"
          @click="touchups.picking = !touchups.picking" />
      </div>
      <div class="row">
        <label class="check" title="Acts where nothing is painted">
          <input
            type="checkbox"
            :checked="chosen.inverted"
            @change="touchups.change(chosen.id, `Invert ${chosen.name}`, { inverted: !chosen.inverted })" />
          Inverted
        </label>
        <span class="spring" />
        <v-btn
          :icon="mdiContentCopy"
          title="Duplicate"
          aria-label="Duplicate"
          data-test="duplicate"
          @click="touchups.duplicate(chosen.id)" />
        <v-btn
          :icon="mdiDeleteOutline"
          title="Delete"
          aria-label="Delete"
          data-test="delete"
          @click="touchups.remove(chosen.id)" />
        <v-btn
          :icon="mdiDeleteSweepOutline"
          title="Removes every touch-up; undo brings them back"
          aria-label="Remove all touch-ups"
          data-test="reset"
          @click="touchups.reset" />
      </div>
    </div>
    <div class="side">
      <SliderField
        label="Grow"
        hint="Moves the edge of what is painted out, or in below zero; in pixels of the photo"
        :least="-20"
        :most="20"
        :step="0.5"
        :value="pixels(chosen.grow)"
        :text="`${pixels(chosen.grow)} px`"
        @live="touchups.live({ grow: shares($event) })"
        @commit="touchups.change(chosen.id, `Edge of ${chosen.name}`, { grow: shares($event) })" />
      <SliderField
        label="Soften"
        hint="Fades the edge of what is painted over this many pixels of the photo"
        :least="0"
        :most="20"
        :step="0.5"
        :value="pixels(chosen.soften)"
        :text="`${pixels(chosen.soften)} px`"
        @live="touchups.live({ soften: shares($event) })"
        @commit="touchups.change(chosen.id, `Edge of ${chosen.name}`, { soften: shares($event) })" />
      <div class="row">
        <v-btn
          title="Saves what is painted as a grey PNG of the photo's size, white is painted"
          :disabled="!hasPaint(chosen)"
          data-test="save-mask"
          @click="touchups.saveMask">
          Save mask
        </v-btn>
        <v-btn
          title="Begins this touch-up with a mask from a picture file of the photo's shape, white is painted"
          data-test="load-mask"
          @click="file?.click()">
          Load mask
        </v-btn>
        <v-btn
          v-if="chosen.maskFile"
          title="Takes the loaded mask away"
          data-test="drop-mask"
          @click="touchups.change(chosen.id, `Mask off ${chosen.name}`, { maskFile: null })">
          Drop
        </v-btn>
        <input ref="file" type="file" accept="image/*" hidden data-test="mask-file" @change="load" />
      </div>
    </div>
    <SpanRow class="span" />
  </div>
</template>

<style scoped>
.chosen {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  align-content: start;
  align-items: start;
}
.side {
  display: grid;
  gap: 4px;
  align-content: start;
}
.target {
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
.span {
  grid-column: 1 / -1;
}
</style>
