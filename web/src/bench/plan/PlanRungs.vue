<script setup lang="ts">
import { computed, ref } from 'vue'
import { useLadder } from '../../stores/ladder'

/** The rungs in the plan. One that is dragged past others takes its place among them. */
const props = defineProps<{ width: number; y: (nearness: number) => number }>()

const ladder = useLadder()
const held = ref<{ level: number; pointer: number; at: number; from: number }>()

const heightOf = (number: number): number => props.y(ladder.stands?.rungs[number]?.nearness ?? 0)
const points = computed(() =>
  ladder.rungs.flatMap((rung, number) => {
    if (!ladder.stands?.rungs[number]) return []
    const level = ladder.levelOfRung(number)
    const by = held.value?.level === level ? held.value.at - held.value.from : 0
    return [{ number, level, x: rung.x * props.width, y: heightOf(number) + by }]
  }),
)

function hold(level: number, event: PointerEvent): void {
  if (event.button !== 0) return
  event.stopPropagation()
  ;(event.currentTarget as Element).setPointerCapture(event.pointerId)
  held.value = { level, pointer: event.pointerId, at: event.clientY, from: event.clientY }
}

function move(event: PointerEvent): void {
  if (!held.value) return
  event.stopPropagation()
  held.value = { ...held.value, at: event.clientY }
}

/** Near is down: it lands before the first level that now lies above it. */
function drop(event: PointerEvent): void {
  const last = held.value
  held.value = undefined
  if (!last) return
  event.stopPropagation()
  const heights = ladder.levels.map((each) => heightOf(each.numbers[0] ?? 0))
  const own = (heights[last.level] ?? 0) + last.at - last.from
  ladder.chosen = ladder.levels[last.level]?.numbers.at(-1) ?? -1
  ladder.reorder(last.level, heights.filter((each, level) => level !== last.level && each > own).length)
}
</script>

<template>
  <g class="rungs">
    <g
      v-for="each in points"
      :key="each.number"
      :class="{ chosen: ladder.chosen === each.number }"
      data-test="plan-rung"
      :transform="`translate(${each.x.toFixed(1)},${each.y.toFixed(1)})`"
      @pointerdown="hold(each.level, $event)"
      @pointermove="move"
      @pointerup="drop"
      @pointercancel="held = undefined">
      <line :x1="-each.x" :x2="width - each.x" />
      <circle r="8" />
      <text y="3.5">{{ each.level + 1 }}</text>
    </g>
  </g>
</template>

<style scoped>
g g {
  cursor: ns-resize;
}
line {
  stroke: var(--ink);
  opacity: 0.25;
}
circle {
  fill: var(--panel);
  stroke: var(--ink);
}
.chosen circle {
  stroke: var(--accent);
  stroke-width: 2;
}
text {
  fill: var(--ink);
  font-size: 10px;
  text-anchor: middle;
}
</style>
