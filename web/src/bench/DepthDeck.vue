<script setup lang="ts">
import { mdiFileUploadOutline, mdiRefresh, mdiSwapVertical } from '@mdi/js'
import { computed, ref } from 'vue'
import { useBench } from '../stores/bench'

const bench = useBench()
const input = ref<HTMLInputElement>()
const file = computed(() => bench.shot?.depths.find((each) => each.source === 'file'))
const estimate = computed(() => bench.shot?.depths.find((each) => each.source === 'estimated'))

function choose(source: string): void {
  const depth = bench.recipe?.depth
  if (depth) bench.commit(source === 'file' ? 'Depth from file' : 'Estimated depth', { depth: { ...depth, source } })
}

function flip(): void {
  const depth = bench.recipe?.depth
  if (depth) bench.commit('Flip depth', { depth: { ...depth, flip: !depth.flip } })
}

function chosen(event: Event): void {
  const element = event.target as HTMLInputElement
  const picked = element.files?.[0]
  if (picked) void bench.bringInDepth(picked)
  element.value = ''
}
</script>

<template>
  <div class="deck">
    <fieldset>
      <legend class="heading">Where depth comes from</legend>
      <label class="source"><input type="radio" :checked="bench.recipe?.depth.source === 'estimated'" name="source" @change="choose('estimated')" />
        <span>Estimated<br /><span class="quiet small">{{ estimate ? `by ${estimate.origin}` : 'not yet' }}</span></span></label>
      <label class="source" :class="{ quiet: !file }"><input type="radio" :checked="bench.recipe?.depth.source === 'file'" :disabled="!file" name="source" @change="choose('file')" />
        <span>From a file<br /><span class="quiet small">{{ file?.origin ?? 'none brought in' }}</span></span></label>
    </fieldset>
    <div class="column">
      <v-btn :prepend-icon="mdiFileUploadOutline" title="Grey or colour, 8 or 16 bit, PNG or TIFF, of the photo's shape; white is near" @click="input?.click()">Bring in a depth map</v-btn>
      <v-btn :prepend-icon="mdiRefresh" title="Estimates depth from the photo again" @click="bench.estimateAgain">Estimate again</v-btn>
      <v-btn :prepend-icon="mdiSwapVertical" :active="bench.recipe?.depth.flip" title="For maps with white far" @click="flip">Flip near and far</v-btn>
      <input ref="input" type="file" accept="image/png,image/tiff,image/jpeg" hidden data-test="depth-file" @change="chosen" />
    </div>
    <p class="quiet note">
      The estimate knows the layout of ordinary photos: ground comes nearer downwards, what stands on it is upright, sky is far.
      Look at it in the zones and grey views before you trust it.
    </p>
  </div>
</template>

<style scoped>
.deck { display: grid; grid-template-columns: 250px auto minmax(0, 340px); gap: 44px; align-items: center; justify-content: start; height: 100%; }
fieldset { border: 0; display: grid; gap: 8px; }
.source { display: flex; gap: 8px; align-items: flex-start; cursor: pointer; overflow-wrap: anywhere; }
.source input { accent-color: var(--accent); margin-top: 3px; }
.column { display: grid; justify-items: start; gap: 4px; }
.note { font-size: 12px; }
</style>
