<script setup lang="ts">
import { onMounted, useTemplateRef, watch } from 'vue'
import { discPixels, type Disc, type Place } from './disc'

/** What becomes of a point out of focus, at a place in the picture. */
const props = defineProps<{ disc: Disc; place: Place; label: string }>()
const SIZE = 128
const canvas = useTemplateRef<HTMLCanvasElement>('canvas')

function draw(): void {
  const context = canvas.value?.getContext('2d')
  context?.putImageData(new ImageData(discPixels(props.disc, props.place, SIZE), SIZE, SIZE), 0, 0)
}

onMounted(draw)
watch(() => props.disc, draw)
</script>

<template>
  <figure>
    <canvas ref="canvas" :width="SIZE" :height="SIZE" role="img" :aria-label="`A point out of focus ${label}`" />
    <figcaption class="quiet">{{ label }}</figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
  display: grid;
  gap: 2px;
  justify-items: center;
}
canvas {
  width: 68px;
  height: 68px;
  background: #000;
  border: 1px solid var(--line);
  border-radius: 4px;
}
figcaption {
  font-size: 11px;
}
</style>
