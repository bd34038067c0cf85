<script setup lang="ts">
import {
  mdiClose,
  mdiPause,
  mdiPlay,
  mdiRayEnd,
  mdiRayStart,
  mdiSkipNextOutline,
  mdiSkipPreviousOutline,
  mdiStepBackward,
  mdiStepForward,
} from '@mdi/js'
import { computed } from 'vue'
import type { EaseKind } from '../../editing/ease'
import { KINDS } from '../../editing/moments'
import { useBench } from '../../stores/bench'
import { useTimeline } from '../../stores/timeline'
import { NAMES, timeText } from './strip'

const bench = useBench()
const timeline = useTimeline()

const clip = computed(() => bench.clip)
const marks = computed(() => bench.stored?.marks ?? { band: [], aperture: [], gain: [], opacity: [] })
const eases: { key: EaseKind; name: string; hint: string }[] = [
  { key: 'smooth', name: 'Smooth', hint: 'Sets off and arrives gently' },
  { key: 'straight', name: 'Straight', hint: 'Goes evenly' },
  { key: 'hold', name: 'Hold', hint: 'Stays until the next mark, then jumps' },
  { key: 'drawn', name: 'Drawn', hint: 'Draw the curve on the strip, from this mark to the next' },
]

/** Space plays, also after a button was clicked: the mouse does not take the keyboard to it. */
function keepFocus(event: MouseEvent): void {
  if ((event.target as HTMLElement).tagName !== 'SELECT') event.preventDefault()
}
</script>

<template>
  <div class="row" @mousedown="keepFocus">
    <div class="buttons tight">
      <button title="Mark or cut before (Ctrl ←)" aria-label="Mark or cut before" @click="timeline.jump(-1)">
        <v-icon :icon="mdiSkipPreviousOutline" size="16" />
      </button>
      <button title="One frame back (←)" aria-label="One frame back" @click="bench.turnTo(bench.frame - 1)">
        <v-icon :icon="mdiStepBackward" size="16" />
      </button>
      <button
        :title="bench.playing ? 'Stop (Space)' : 'Play the stretch, over and over (Space)'"
        :aria-label="bench.playing ? 'Stop' : 'Play'"
        data-test="play"
        @click="timeline.toggle">
        <v-icon :icon="bench.playing ? mdiPause : mdiPlay" size="18" />
      </button>
      <button title="One frame on (→)" aria-label="One frame on" @click="bench.turnTo(bench.frame + 1)">
        <v-icon :icon="mdiStepForward" size="16" />
      </button>
      <button title="Next mark or cut (Ctrl →)" aria-label="Next mark or cut" @click="timeline.jump(1)">
        <v-icon :icon="mdiSkipNextOutline" size="16" />
      </button>
    </div>
    <span class="clock" data-test="clock">
      {{ timeText(bench.micros) }}
      <i>/ {{ timeText(clip?.lasts ?? 0) }}</i>
      <b>frame {{ bench.frame + 1 }} of {{ timeline.frames }}</b>
    </span>
    <div class="buttons tight">
      <button title="The stretch begins here (I)" aria-label="Begin here" @click="timeline.setIn()">
        <v-icon :icon="mdiRayStart" size="16" />
      </button>
      <button title="The stretch ends here (Shift I)" aria-label="End here" @click="timeline.setOut()">
        <v-icon :icon="mdiRayEnd" size="16" />
      </button>
    </div>
    <div v-if="!timeline.chosen.length" class="buttons tight" role="group" aria-label="Marks">
      <button
        v-for="kind in KINDS"
        :key="kind"
        :class="{ on: marks[kind].length > 0 }"
        :aria-pressed="marks[kind].length > 0"
        :title="
          marks[kind].length
            ? `${NAMES[kind]} has ${marks[kind].length} marks: a change makes one here. Click: a mark with what is there now`
            : `${NAMES[kind]} is the same all along. Click: a mark here, so that it can change`
        "
        :data-test="`mark-${kind}`"
        @click="timeline.markHere(kind)">
        {{ NAMES[kind] }}
        <sub v-if="marks[kind].length">{{ marks[kind].length }}</sub>
      </button>
    </div>
    <template v-else>
      <div class="buttons tight" role="group" aria-label="Ease">
        <button
          v-for="each in eases"
          :key="each.key"
          :class="{ on: !timeline.followsFromChosen && timeline.easeOfChosen === each.key }"
          :aria-pressed="!timeline.followsFromChosen && timeline.easeOfChosen === each.key"
          :title="`${each.hint}`"
          :data-test="`ease-${each.key}`"
          @click="timeline.ease(each.key)">
          {{ each.name }}
        </button>
        <button
          v-if="timeline.canFollow"
          :class="{ on: timeline.followsFromChosen }"
          :aria-pressed="timeline.followsFromChosen"
          title="From this mark to the next the band keeps to what is followed"
          data-test="ease-follow"
          @click="timeline.follow()">
          Follow
        </button>
      </div>
      <button
        class="plain"
        title="Remove the chosen marks (Delete)"
        data-test="remove-mark"
        @click="timeline.removeChosen">
        Remove
      </button>
    </template>
    <span class="spring" />
    <select v-model="timeline.quality" aria-label="Quality of what is played" title="Draft renders faster">
      <option value="draft">draft</option>
      <option value="final">final</option>
    </select>
    <template v-if="timeline.rendering">
      <span class="small clock" data-test="render-progress">
        {{ Math.round((timeline.rendered?.delivery.progress ?? 0) * 100) }} %
      </span>
      <button class="plain" aria-label="Stop rendering" title="Stop rendering" @click="timeline.cancelRender">
        <v-icon :icon="mdiClose" size="15" />
      </button>
    </template>
    <button
      v-else
      class="plain"
      :class="{ done: timeline.fresh }"
      title="Render the stretch, so that it plays as it will look (R)"
      data-test="render"
      @click="timeline.render">
      {{ timeline.fresh ? 'Rendered' : 'Render' }}
    </button>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 10px;
  font-size: 12px;
  min-width: 0;
  white-space: nowrap;
  overflow: hidden;
}
.plain {
  padding: 2px 6px;
  min-height: 22px;
  color: var(--dim);
}
.plain:hover {
  color: var(--ink);
}
.plain {
  border: 1px solid var(--line);
  border-radius: 3px;
}
.plain.done {
  color: var(--accent);
}
sub {
  font-size: 10px;
  color: var(--dim);
}
select {
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 1px 4px;
  font-size: 12px;
}
.clock {
  font-variant-numeric: tabular-nums;
}
.clock b {
  display: inline-block;
  min-width: 108px;
}
.clock i,
.clock b {
  font-style: normal;
  font-weight: normal;
  color: var(--dim);
  margin-left: 4px;
}
</style>
