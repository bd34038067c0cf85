<script setup lang="ts">
import { computed, onMounted, ref, watch } from 'vue'
import { useBench } from '../../stores/bench'

/** The whole picture in small, with the part that can be seen; a drag moves it. */
const SIDE = 132
const emit = defineEmits<{ centre: [at: { x: number; y: number }] }>()
const bench = useBench()
const canvas = ref<HTMLCanvasElement>()
const size = computed(() => {
  const width = bench.shot?.width ?? 3
  const height = bench.shot?.height ?? 2
  const scale = SIDE / Math.max(width, height)
  return { width: Math.max(8, Math.round(width * scale)), height: Math.max(8, Math.round(height * scale)) }
})
const frame = computed(() => ({
  left: `${bench.seen.x * size.value.width}px`,
  top: `${bench.seen.y * size.value.height}px`,
  width: `${bench.seen.width * size.value.width}px`,
  height: `${bench.seen.height * size.value.height}px`,
}))

function draw(): void {
  const element = canvas.value
  const shown = bench.preview ?? bench.original
  if (!element || !shown) return
  Object.assign(element, { width: size.value.width * devicePixelRatio, height: size.value.height * devicePixelRatio })
  const context = element.getContext('2d')
  if (context) {
    context.imageSmoothingQuality = 'high'
    context.drawImage(shown, 0, 0, element.width, element.height)
  }
}

function go(event: PointerEvent): void {
  if (!(event.buttons & 1)) return
  const element = event.currentTarget as HTMLElement
  if (event.type === 'pointerdown') element.setPointerCapture(event.pointerId)
  const box = element.getBoundingClientRect()
  emit('centre', { x: (event.clientX - box.left) / box.width, y: (event.clientY - box.top) / box.height })
}

watch(() => [bench.preview, bench.original], draw)
onMounted(draw)
</script>

<template>
  <div
    class="map"
    :style="{ width: `${size.width}px`, height: `${size.height}px` }"
    title="The whole picture: drag to move the part that is shown"
    data-test="minimap"
    @pointerdown.stop="go"
    @pointermove.stop="go"
    @dblclick.stop>
    <canvas ref="canvas" :style="{ width: `${size.width}px`, height: `${size.height}px` }" />
    <i :style="frame" />
  </div>
</template>

<style scoped>
.map {
  position: absolute;
  border: 1px solid var(--strong-line);
  background: var(--well);
  cursor: move;
  overflow: hidden;
}
canvas {
  display: block;
}
i {
  position: absolute;
  border: 1px solid #fff;
  box-shadow: 0 0 0 200px rgba(0, 0, 0, 0.45);
}
</style>
