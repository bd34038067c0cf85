<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core'
import { ref } from 'vue'
import { isChosen } from '../../editing/moments'
import { useBench } from '../../stores/bench'
import { useTimeline } from '../../stores/timeline'
import StripGround from './StripGround.vue'
import { useStripHandling } from './stripHandling'
import { HEIGHT, useStripMarks } from './stripMarks'
import TransportRow from './TransportRow.vue'

const bench = useBench()
const timeline = useTimeline()
const root = ref<HTMLDivElement>()
const width = ref(600)
const stripMarks = useStripMarks(width)
const { unsure, shape, others, notches, span, placed, head, inX, outX, cuts, known, played } = stripMarks
const { down, move, up, calledOff, holdEnd } = useStripHandling(root, width, stripMarks)

useResizeObserver(root, ([entry]) => {
  if (entry) width.value = Math.max(100, entry.contentRect.width)
})
</script>

<template>
  <section class="time" aria-label="Time" data-test="time">
    <TransportRow />
    <div
      ref="root"
      class="strip-room"
      data-test="strip"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="calledOff">
      <StripGround :width="width" :height="HEIGHT" />
      <svg :width="width" :height="HEIGHT + 8" aria-hidden="true">
        <rect class="shade" x="0" y="0" :width="width" :height="HEIGHT" />
        <polygon v-if="bench.stored" class="ribbon" :points="shape" data-test="ribbon" />
        <polyline v-for="line in others" :key="line.kind" class="line" :class="line.kind" :points="line.points">
          <title>{{ line.name }}</title>
        </polyline>
        <rect
          v-for="each in unsure"
          :key="`u${each.x}`"
          class="unsure"
          :class="{ hidden: each.hidden }"
          :x="each.x"
          :y="HEIGHT - 4"
          :width="each.width"
          height="4"
          data-test="unsure">
          <title>{{ each.hidden ? 'not seen' : 'unsure' }}</title>
        </rect>
        <line v-for="x in cuts" :key="x" class="cut" :x1="x" :x2="x" y1="0" :y2="HEIGHT" />
        <rect class="outside" x="0" y="0" :width="Math.max(0, inX)" :height="HEIGHT" />
        <rect class="outside" :x="outX" y="0" :width="Math.max(0, width - outX)" :height="HEIGHT" />
        <g
          v-for="each in notches"
          :key="each.at"
          class="notch"
          :class="{ chosen: each.chosen }"
          data-test="notch"
          :data-at="each.at">
          <line :x1="each.x" :x2="each.x" :y1="each.top - 4" :y2="each.bottom + 4" />
          <line :x1="each.x - 4" :x2="each.x + 4" :y1="each.top" :y2="each.top" />
          <line :x1="each.x - 4" :x2="each.x + 4" :y1="each.bottom" :y2="each.bottom" />
        </g>
        <template v-for="line in others" :key="`m${line.kind}`">
          <line
            v-for="each in line.marks"
            :key="each.at"
            class="tick"
            :class="{ chosen: isChosen(timeline.chosen, line.kind, each) }"
            :x1="each.x"
            :x2="each.x"
            :y1="each.y - 5"
            :y2="each.y + 5" />
        </template>
        <rect
          v-for="each in known"
          :key="each.x"
          class="known"
          :x="each.x"
          :y="HEIGHT + 2"
          :width="each.width"
          height="2" />
        <rect
          v-if="played"
          class="played"
          :class="{ part: played.part }"
          :x="played.x"
          :y="HEIGHT + 5"
          :width="played.width"
          height="2" />
        <line class="head" :x1="head" :x2="head" y1="0" :y2="HEIGHT + 8" />
        <path class="head-top" :d="`M${head - 5},0 h10 v5 l-5,4 l-5,-4 z`" />
        <rect class="end" :x="inX - 3" y="0" width="6" :height="HEIGHT" @pointerdown.stop="holdEnd('in', $event)" />
        <rect class="end" :x="outX - 3" y="0" width="6" :height="HEIGHT" @pointerdown.stop="holdEnd('out', $event)" />
        <g v-if="span" class="span" data-test="span">
          <polygon :points="span.points" />
          <rect :x="span.from - 4" y="0" width="8" height="14" @pointerdown.stop="holdEnd('from', $event)" />
          <rect :x="span.to - 4" y="0" width="8" height="14" @pointerdown.stop="holdEnd('to', $event)" />
          <path
            v-for="each in placed"
            :key="each.at"
            :d="`M${each.x},0 l4,4 l-4,4 l-4,-4 z`"
            data-test="shape-mark-notch"
            @pointerdown.stop="bench.turnTo(timeline.frameAt(each.at))">
            <title>A mark of the shape</title>
          </path>
        </g>
      </svg>
    </div>
  </section>
</template>

<style scoped>
.time {
  background: var(--panel);
  border-top: 1px solid var(--line);
  display: grid;
  grid-template-rows: 30px auto;
  user-select: none;
}
.strip-room {
  position: relative;
  height: 80px;
  margin: 0 10px;
  cursor: col-resize;
  touch-action: none;
}
svg {
  position: absolute;
  left: 0;
  top: 0;
  width: 100%;
}
.shade {
  fill: rgba(20, 20, 20, 0.45);
}
.unsure {
  fill: rgba(255, 255, 255, 0.65);
}
.unsure.hidden {
  fill: rgba(0, 0, 0, 0.6);
}
.ribbon {
  fill: color-mix(in srgb, var(--accent) 38%, transparent);
  stroke: var(--accent);
  stroke-width: 1;
}
.line {
  fill: none;
  stroke: #ddd;
  stroke-width: 1;
  opacity: 0.85;
}
.line.gain {
  stroke-dasharray: 6 3;
}
.line.opacity {
  stroke-dasharray: 2 3;
}
.cut {
  stroke: #eee;
  stroke-dasharray: 3 3;
  opacity: 0.7;
}
.outside {
  fill: rgba(10, 10, 10, 0.62);
}
.notch line,
.tick {
  stroke: #f2f2f2;
  stroke-width: 1.2;
}
.notch.chosen line,
.tick.chosen {
  stroke: #fff;
  stroke-width: 2.6;
}
.known {
  fill: var(--dim);
}
.played {
  fill: var(--accent);
}
.played.part {
  opacity: 0.6;
}
.head {
  stroke: #fff;
  stroke-width: 1;
}
.head-top {
  fill: #fff;
}
.span polygon {
  fill: #f2f2f2;
}
.span path {
  fill: rgb(var(--v-theme-primary));
  stroke: rgba(0, 0, 0, 0.6);
  cursor: pointer;
}
.span rect {
  fill: transparent;
  cursor: ew-resize;
}
.end {
  fill: transparent;
  cursor: ew-resize;
}
</style>
