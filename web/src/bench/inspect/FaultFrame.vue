<script setup lang="ts">
import { computed } from 'vue'
import type { Fault } from '../../api/client'
import type { Extent, Viewport } from '../picture/viewport'

/** A frame around a probable fault, with some air. */
const props = defineProps<{ fault: Fault; viewport: Viewport; picture: Extent }>()

const AIR = 6

const frame = computed(() => {
  const { left, top, width, height } = props.fault
  const across = props.picture.width * props.viewport.scale
  const down = props.picture.height * props.viewport.scale
  return {
    x: props.viewport.x + left * across - AIR,
    y: props.viewport.y + top * down - AIR,
    width: width * across + 2 * AIR,
    height: height * down + 2 * AIR,
  }
})
</script>

<template>
  <svg aria-hidden="true">
    <rect class="under" v-bind="frame" />
    <rect v-bind="frame" />
  </svg>
</template>

<style scoped>
svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
rect {
  fill: none;
  stroke: #fff;
  stroke-width: 1;
  stroke-dasharray: 3 3;
}
rect.under {
  stroke: rgba(0, 0, 0, 0.7);
  stroke-dasharray: none;
}
</style>
