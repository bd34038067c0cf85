<script setup lang="ts">
import { onBeforeUnmount, ref, shallowRef, watch } from 'vue'
import { api } from '../../api/client'
import { useBench } from '../../stores/bench'

/** Thumbnails of the clip as the ground of the strip. */
const props = defineProps<{ width: number; height: number }>()
const bench = useBench()
const ground = ref<HTMLCanvasElement>()
const strip = shallowRef<ImageBitmap>()

async function loadStrip(): Promise<void> {
  const shot = bench.shot
  if (!shot || !bench.clip) return
  try {
    const bitmap = await createImageBitmap(await api.strip(shot.id))
    strip.value?.close()
    strip.value = bitmap
    paintGround()
  } catch {
    // Without thumbnails the strip is plain.
  }
}

/** Thumbnails as the ground, each in its own shape. */
function paintGround(): void {
  const canvas = ground.value
  const bitmap = strip.value
  const context = canvas?.getContext('2d')
  if (!canvas || !context || !bitmap || !bench.clip) return
  canvas.width = Math.round(props.width * devicePixelRatio)
  canvas.height = Math.round(props.height * devicePixelRatio)
  const count = bench.clip.thumbnails
  const own = bitmap.width / count
  const wide = (own / bitmap.height) * canvas.height
  for (let x = 0; x < canvas.width; x += wide) {
    const index = Math.min(count - 1, Math.floor(((x + wide / 2) / canvas.width) * count))
    context.drawImage(bitmap, index * own, 0, own, bitmap.height, x, 0, wide, canvas.height)
  }
}

watch(
  () => bench.clip,
  () => void loadStrip(),
  { immediate: true },
)
watch(props, () => requestAnimationFrame(paintGround))
onBeforeUnmount(() => strip.value?.close())
</script>

<template>
  <canvas ref="ground" :style="{ height: `${height}px` }" />
</template>

<style scoped>
canvas {
  position: absolute;
  left: 0;
  top: 0;
  width: 100%;
}
</style>
