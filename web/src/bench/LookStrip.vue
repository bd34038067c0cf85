<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from '../stores/bench'
import { useLooks, views } from './looks'

/** What is shown over and beside the result, and how far it is. */
const bench = useBench()
const { nextSplit, toggleCompare } = useLooks()

const stateText = computed(() => {
  switch (bench.previewState) {
    case 'draft':
      return 'draft'
    case 'refining':
      return 'refining'
    case 'final':
      return `final, ${bench.previewMs} ms`
    case 'failed':
      return 'preview failed'
    default:
      return ''
  }
})
/** What is being done to the depth that is already in use. */
const working = computed(() => {
  const shot = bench.shot
  if (!shot || !bench.recipe || shot.state === 'failed') return ''
  if (shot.state === 'ready') return shot.problem ?? ''
  return `${shot.state === 'refining' ? 'finer matte' : 'estimating'} ${Math.round(shot.progress * 100)} %`
})
</script>

<template>
  <div class="strip">
    <div class="buttons" role="group" aria-label="View">
      <button
        v-for="each in views"
        :key="each.key"
        :class="{ on: bench.view === each.key }"
        :aria-pressed="bench.view === each.key"
        :title="`${each.hint} (V)`"
        :data-test="`view-${each.key}`"
        @click="bench.view = each.key">
        {{ each.name }}
      </button>
    </div>
    <div class="buttons" role="group" aria-label="Compare">
      <button
        :class="{ on: bench.holding }"
        title="The untouched photo while held (O)"
        data-test="hold"
        @keydown.space.prevent="bench.holding = true"
        @keyup.space="bench.holding = false"
        @blur="bench.holding = false"
        @pointerdown="bench.holding = true"
        @pointerup="bench.holding = false"
        @pointerleave="bench.holding = false">
        Original
      </button>
      <button
        :class="{ on: bench.split }"
        :aria-pressed="bench.split"
        title="Original and result in one picture, upright, then level, then off (S)"
        data-test="split"
        @click="nextSplit">
        Split
      </button>
      <button
        :class="{ on: bench.compare === 'beside' }"
        :aria-pressed="bench.compare === 'beside'"
        title="The original beside the result, zoomed together (B)"
        data-test="beside"
        @click="toggleCompare('beside')">
        Beside
      </button>
      <button
        :class="{ on: bench.loupe }"
        :aria-pressed="bench.loupe"
        title="Original and result at 100 % around the pointer (G)"
        data-test="loupe-toggle"
        @click="bench.loupe = !bench.loupe">
        Loupe
      </button>
    </div>
    <div v-if="bench.view === 'zones' || bench.view === 'contours'" class="legend small">
      <i class="near" />
      in front
      <i :class="bench.view === 'zones' ? 'in' : 'band'" />
      sharp
      <i class="far" />
      behind
    </div>
    <div v-else-if="bench.view === 'grey'" class="legend small">
      far
      <i class="ramp" />
      near
    </div>
    <div v-else-if="bench.view === 'check'" class="legend small">
      <i class="band" />
      sharp in the photo
    </div>
    <span class="spring" />
    <span v-if="working" class="quiet small working" role="status" data-test="depth-state">{{ working }}</span>
    <span v-if="bench.shot?.notice" class="small notice" :title="bench.shot.notice">{{ bench.shot.notice }}</span>
    <span v-if="bench.notice" class="fault small notice" role="alert" :title="bench.notice">
      {{ bench.notice }}
    </span>
    <span class="quiet small" data-test="preview-state" :data-state="bench.previewState" role="status">
      {{ stateText }}
    </span>
  </div>
</template>

<style scoped>
.strip {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 10px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  min-width: 0;
}
.legend {
  display: flex;
  gap: 5px;
  align-items: center;
  color: var(--dim);
  white-space: nowrap;
}
.legend i {
  width: 9px;
  height: 9px;
  border-radius: 1px;
  margin-left: 5px;
}
.legend .near {
  background: #e39a4e;
}
.legend .far {
  background: #4e8ccc;
}
.legend .in {
  border: 1px solid var(--dim);
}
.legend .band {
  background: #8fb996;
}
.legend .ramp {
  width: 44px;
  background: linear-gradient(90deg, #000, #fff);
  border: 1px solid var(--dim);
  margin: 0 5px;
}
.notice {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
