<script setup lang="ts">
import { computed } from 'vue'
import { actsAlways } from '../../editing/moments'
import { LATEST } from '../../editing/span'
import { useActing } from '../../stores/acting'
import { useBench } from '../../stores/bench'
import { useTimeline } from '../../stores/timeline'
import { timeText } from '../time/strip'

/** When what is chosen acts in a clip. */
const bench = useBench()
const timeline = useTimeline()
const acting = useActing()
/** Seconds: longer fades than anybody sees. */
const LONGEST_FADE = 3
const always = computed(() => !acting.chosen || actsAlways(acting.chosen))
const text = computed(() => {
  const on = acting.chosen
  if (!on || always.value) return 'whole clip'
  return `${timeText(on.from * 1e6)} to ${on.to === LATEST ? 'the end' : timeText(on.to * 1e6)}`
})
</script>

<template>
  <div v-if="acting.chosen" class="span" data-test="span-row">
    <span class="small told" title="When it acts; the bar over the strip of time shows it and can be dragged">
      {{ text }}
    </span>
    <div class="buttons tight" role="group" aria-label="When it acts">
      <button
        title="Acts from this moment on"
        data-test="span-from"
        @click="acting.span({ from: timeline.spanFrom(bench.frame) })">
        From here
      </button>
      <button
        title="Acts up to this moment"
        data-test="span-to"
        @click="acting.span({ to: timeline.spanTo(bench.frame) })">
        To here
      </button>
      <button
        :class="{ on: always }"
        title="Acts over the whole clip"
        data-test="span-all"
        @click="acting.span({ from: 0, to: LATEST })">
        All
      </button>
    </div>
    <label v-if="!always" class="fade small" title="Fades in after it begins, and out before it ends">
      fade
      <input
        type="range"
        min="0"
        :max="LONGEST_FADE"
        step="0.05"
        :value="acting.chosen.fade"
        aria-label="Fade in seconds"
        data-test="fade"
        @input="acting.span({ fade: Number(($event.target as HTMLInputElement).value) }, true)"
        @change="acting.span({})" />
      <span class="told">{{ acting.chosen.fade.toFixed(2) }} s</span>
    </label>
  </div>
</template>

<style scoped>
.span {
  display: flex;
  align-items: center;
  gap: 10px;
}
.told {
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
.fade {
  display: flex;
  align-items: center;
  gap: 6px;
  flex: 1;
  min-width: 0;
}
.fade input {
  flex: 1;
  min-width: 40px;
  accent-color: var(--accent);
}
</style>
