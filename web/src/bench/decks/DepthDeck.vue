<script setup lang="ts">
import { mdiClose, mdiFileUploadOutline, mdiLadder, mdiRefresh, mdiSwapVertical } from '@mdi/js'
import { computed, ref } from 'vue'
import type { Recipe } from '../../api/client'
import { settings as declared, usualDepth } from '../../api/generated/settings'
import { useBench } from '../../stores/bench'
import { useLadder } from '../../stores/ladder'
import { useSettings } from '../../stores/settings'
import { sourceLine, trims, type DepthSource } from '../../editing/depthWords'
import { changed, type RecipePath } from '../../editing/settings'
import LadderPanel from './LadderPanel.vue'
import SettingSlider from './SettingSlider.vue'

type Depth = Recipe['depth']

const bench = useBench()
const ladder = useLadder()
const settings = useSettings()
void settings.load()
const input = ref<HTMLInputElement>()
const engine = ref('auto')
const depth = computed(() => bench.recipe?.depth as Depth)
const shot = computed(() => bench.shot)
const busy = computed(() => ['waiting', 'estimating', 'refining'].includes(shot.value?.state ?? ''))
const trimmed = computed(() =>
  Object.entries(trims(usualDepth)).some(([key, value]) => depth.value[key as keyof Depth] !== value),
)

const sources: { key: DepthSource; name: string }[] = [
  { key: 'estimated', name: 'Estimated' },
  { key: 'camera', name: 'From the camera' },
  { key: 'file', name: 'From a file' },
]
const known = (key: DepthSource) => shot.value?.depths.find((each) => each.source === key)

const part = (change: Partial<Depth>): Partial<Recipe> => ({ depth: { ...depth.value, ...change } })
/** Nearness that the slider keeps between the two ends. */
const APART = 0.02
const signed = (value: number): string => (value > 0 ? `+${Math.round(value * 100)}` : `${Math.round(value * 100)}`)

const controls: { path: RecipePath; text?: (value: number) => string }[] = [
  { path: 'depth.nearEnd' },
  { path: 'depth.farEnd' },
  { path: 'depth.bend', text: signed },
  { path: 'depth.snap' },
  { path: 'depth.edges', text: signed },
  { path: 'depth.settle' },
]

/** The ends never meet: the one that is moved stops before the other. */
function moved(path: RecipePath, value: number): Partial<Recipe> {
  if (path === 'depth.nearEnd') return part({ nearEnd: Math.max(value, depth.value.farEnd + APART) })
  if (path === 'depth.farEnd') return part({ farEnd: Math.min(value, depth.value.nearEnd - APART) })
  return changed(bench.recipe as Recipe, path, value)
}

function choose(source: DepthSource, name: string): void {
  bench.commit(`Depth: ${name.toLowerCase()}`, part({ source, snap: declared['depth.snap'].usualBy[source] }))
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
        <input
          type="radio"
          name="source"
          :checked="depth.source === each.key"
          :disabled="!known(each.key)"
          :data-test="`source-${each.key}`"
          @change="choose(each.key, each.name)" />
        <span>
          {{ each.name }}
          <br />
          <span class="quiet small" :title="sourceLine(known(each.key), each.key)">
            {{ sourceLine(known(each.key), each.key) }}
          </span>
        </span>
      </label>
    </fieldset>

    <div class="column making">
      <label class="engine">
        <span class="heading">Estimate with</span>
        <select v-model="engine" aria-label="Depth network" :disabled="busy">
          <option value="auto">the best there is</option>
          <option v-for="each in settings.usable" :key="each.name" :value="each.name" :title="each.about">
            {{ each.name }}
          </option>
        </select>
      </label>
      <div v-if="busy" class="running">
        <v-progress-linear
          :model-value="(shot?.progress ?? 0) * 100"
          :indeterminate="shot?.state === 'waiting'"
          color="primary"
          height="3" />
        <v-btn :prepend-icon="mdiClose" data-test="cancel-depth" @click="bench.cancelEstimate">Cancel</v-btn>
      </div>
      <div v-else class="again">
        <v-btn
          :prepend-icon="mdiRefresh"
          title="Finest matte, some seconds"
          data-test="estimate-best"
          @click="bench.estimateAgain(engine, 'best')">
          Best
        </v-btn>
        <v-btn
          title="About a second; the subject's edge is coarser"
          data-test="estimate-draft"
          @click="bench.estimateAgain(engine, 'draft')">
          Draft
        </v-btn>
      </div>
      <v-btn
        :prepend-icon="mdiFileUploadOutline"
        title="Grey or colour, 8 or 16 bit, PNG, TIFF or EXR, of the photo's shape; white is near"
        @click="input?.click()">
        Bring in a depth map
      </v-btn>
      <input
        ref="input"
        type="file"
        :accept="bench.shot?.clip ? '.mkv,.mp4,.mov,.zip' : 'image/png,image/tiff,image/jpeg,.exr'"
        hidden
        data-test="depth-file"
        @change="chosen" />
    </div>

    <LadderPanel v-if="ladder.open" />
    <div v-else class="trim">
      <SettingSlider
        v-for="each in controls"
        :key="each.path"
        :path="each.path"
        :text="each.text"
        :change="(value) => moved(each.path, value)"
        :least="each.path === 'depth.nearEnd' ? APART : undefined"
        :most="each.path === 'depth.farEnd' ? 1 - APART : undefined"
        :data-test="`trim-${each.path.slice('depth.'.length)}`" />
    </div>

    <div class="column">
      <v-btn
        :prepend-icon="mdiLadder"
        :active="ladder.open"
        title="Click things from near to far: the map follows their order"
        data-test="ladder-tool"
        @click="ladder.open = !ladder.open">
        Ladder{{ ladder.rungs.length ? ` ${ladder.levels.length}` : '' }}
      </v-btn>
      <v-btn
        v-if="ladder.open"
        :disabled="!ladder.rungs.length"
        title="Takes all rungs away"
        data-test="ladder-clear"
        @click="ladder.clear">
        Remove all
      </v-btn>
      <v-btn
        :prepend-icon="mdiSwapVertical"
        :active="depth.flip"
        title="For maps with white far"
        data-test="flip"
        @click="bench.commit('Flip depth', part({ flip: !depth.flip }))">
        Flip
      </v-btn>
      <v-btn
        :disabled="!trimmed"
        title="Takes all corrections of the map back"
        data-test="untrim"
        @click="bench.commit('Depth untrimmed', part(trims(usualDepth)))">
        Untrim
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.deck {
  display: grid;
  grid-template-columns: 216px 176px minmax(300px, 560px) auto;
  gap: 30px;
  align-items: center;
  justify-content: start;
  height: 100%;
}
fieldset {
  border: 0;
  display: grid;
  gap: 4px;
  min-width: 0;
}
.source {
  display: flex;
  gap: 8px;
  align-items: flex-start;
  cursor: pointer;
  line-height: 1.25;
  min-width: 0;
}
.source > span {
  min-width: 0;
}
.source .small {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.source input {
  accent-color: var(--accent);
  margin-top: 2px;
}
.source br {
  display: none;
}
.column {
  display: grid;
  justify-items: start;
  gap: 4px;
  min-width: 0;
}
.making {
  justify-items: stretch;
}
.engine {
  display: grid;
  gap: 2px;
}
.again {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px;
}
.running {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 8px;
  align-items: center;
}
select {
  padding: 3px 6px;
  min-width: 0;
  width: 100%;
}
.trim {
  display: grid;
  grid-template-columns: 1fr 1fr 1fr;
  gap: 12px 24px;
}
</style>
