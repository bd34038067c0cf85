<script setup lang="ts">
import { mdiClose, mdiFileUploadOutline, mdiRefresh, mdiSwapVertical } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Recipe } from '../../api/client'
import { useBench } from '../../stores/bench'
import { useSettings } from '../../stores/settings'
import { sourceLine, UNTRIMMED, usualSnap, type DepthSource } from '../../editing/depthWords'
import SliderField from './SliderField.vue'

type Depth = Recipe['depth']

const bench = useBench()
const settings = useSettings()
void settings.load()
const input = ref<HTMLInputElement>()
const engine = ref('auto')
const depth = computed(() => bench.recipe?.depth as Depth)
const shot = computed(() => bench.shot)
const busy = computed(() => ['waiting', 'estimating', 'refining'].includes(shot.value?.state ?? ''))
const trimmed = computed(() => Object.entries(UNTRIMMED).some(([key, value]) => depth.value[key as keyof Depth] !== value))

const sources: { key: DepthSource; name: string }[] = [
  { key: 'estimated', name: 'Estimated' },
  { key: 'camera', name: 'From the camera' },
  { key: 'file', name: 'From a file' },
]
const known = (key: DepthSource) => shot.value?.depths.find((each) => each.source === key)

const part = (change: Partial<Depth>): Partial<Recipe> => ({ depth: { ...depth.value, ...change } })
const percent = (value: number): string => `${Math.round(value * 100)} %`
const signed = (value: number): string => (value > 0 ? `+${Math.round(value * 100)}` : `${Math.round(value * 100)}`)

type Trim = { key: 'snap' | 'farEnd' | 'nearEnd' | 'bend' | 'edges' | 'settle'; label: string; hint: string; least: number; most: number; text: (value: number) => string }
const controls: Trim[] = [
  { key: 'nearEnd', label: 'Near end', hint: 'Nearness of the map that counts as nearest', least: 0.02, most: 1, text: percent },
  { key: 'farEnd', label: 'Far end', hint: 'Nearness of the map that counts as farthest', least: 0, most: 0.98, text: percent },
  { key: 'bend', label: 'Bend', hint: 'Brings the middle nearer or pushes it away; both ends stay', least: -1, most: 1, text: signed },
  { key: 'snap', label: 'Snap to edges', hint: 'How strongly depth edges follow the edges of the photo', least: 0, most: 1, text: percent },
  { key: 'edges', label: 'Shrink or grow', hint: 'Shrinks or grows what is near over what is behind it', least: -1, most: 1, text: signed },
  { key: 'settle', label: 'Settle', hint: 'Evens out small differences and keeps edges', least: 0, most: 1, text: percent },
]

/** The ends never meet: the one that is moved stops before the other. */
function moved(key: Trim['key'], value: number): Partial<Recipe> {
  if (key === 'nearEnd') return part({ nearEnd: Math.max(value, depth.value.farEnd + 0.02) })
  if (key === 'farEnd') return part({ farEnd: Math.min(value, depth.value.nearEnd - 0.02) })
  return part({ [key]: value })
}

function choose(source: DepthSource, name: string): void {
  bench.commit(`Depth: ${name.toLowerCase()}`, part({ source, snap: usualSnap[source] }))
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
      <label v-for="each in sources" :key="each.key" class="source" :class="{ quiet: !known(each.key) }">
        <input type="radio" name="source" :checked="depth.source === each.key" :disabled="!known(each.key)" :data-test="`source-${each.key}`" @change="choose(each.key, each.name)" />
        <span>{{ each.name }}<br /><span class="quiet small" :title="sourceLine(known(each.key), each.key)">{{ sourceLine(known(each.key), each.key) }}</span></span>
      </label>
    </fieldset>

    <div class="column making">
      <label class="engine"><span class="heading">Estimate with</span>
        <select v-model="engine" aria-label="Depth network" :disabled="busy">
          <option value="auto">the best there is</option>
          <option v-for="each in settings.usable" :key="each.name" :value="each.name" :title="each.about">{{ each.name }}</option>
        </select></label>
      <div v-if="busy" class="running">
        <v-progress-linear :model-value="(shot?.progress ?? 0) * 100" :indeterminate="shot?.state === 'waiting'" color="primary" height="3" />
        <v-btn :prepend-icon="mdiClose" data-test="cancel-depth" @click="bench.cancelEstimate">Cancel</v-btn>
      </div>
      <div v-else class="again">
        <v-btn :prepend-icon="mdiRefresh" title="Finest matte, some seconds" data-test="estimate-best" @click="bench.estimateAgain(engine, 'best')">Best</v-btn>
        <v-btn title="About a second; the subject's edge is coarser" data-test="estimate-draft" @click="bench.estimateAgain(engine, 'draft')">Draft</v-btn>
      </div>
      <v-btn :prepend-icon="mdiFileUploadOutline" title="Grey or colour, 8 or 16 bit, PNG, TIFF or EXR, of the photo's shape; white is near" @click="input?.click()">Bring in a depth map</v-btn>
      <input ref="input" type="file" accept="image/png,image/tiff,image/jpeg,.exr" hidden data-test="depth-file" @change="chosen" />
    </div>

    <div class="trim">
      <SliderField
        v-for="each in controls" :key="each.key" :label="each.label" :hint="each.hint" :least="each.least" :most="each.most" :step="0.01"
        :value="depth[each.key]" :text="each.text(depth[each.key])" :data-test="`trim-${each.key}`"
        @live="bench.live(moved(each.key, $event))" @commit="bench.commit(each.label, moved(each.key, $event))"
      />
    </div>

    <div class="column">
      <v-btn :prepend-icon="mdiSwapVertical" :active="depth.flip" title="For maps with white far" data-test="flip" @click="bench.commit('Flip depth', part({ flip: !depth.flip }))">Flip</v-btn>
      <v-btn :disabled="!trimmed" title="Takes all corrections of the map back" data-test="untrim" @click="bench.commit('Depth untrimmed', part(UNTRIMMED))">Untrim</v-btn>
    </div>
  </div>
</template>

<style scoped>
.deck { display: grid; grid-template-columns: 216px 176px minmax(300px, 560px) auto; gap: 30px; align-items: center; justify-content: start; height: 100%; }
fieldset { border: 0; display: grid; gap: 4px; min-width: 0; }
.source { display: flex; gap: 8px; align-items: flex-start; cursor: pointer; line-height: 1.25; min-width: 0; }
.source > span { min-width: 0; }
.source .small { display: block; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; }
.source input { accent-color: var(--accent); margin-top: 2px; }
.source br { display: none; }
.column { display: grid; justify-items: start; gap: 4px; min-width: 0; }
.making { justify-items: stretch; }
.engine { display: grid; gap: 2px; }
.again { display: grid; grid-template-columns: 1fr 1fr; gap: 2px; }
.running { display: grid; grid-template-columns: 1fr auto; gap: 8px; align-items: center; }
select { background: var(--well); color: var(--ink); border: 1px solid var(--line); border-radius: 3px; padding: 3px 6px; font-size: 12px; min-width: 0; width: 100%; }
.trim { display: grid; grid-template-columns: 1fr 1fr 1fr; gap: 12px 24px; }
</style>
