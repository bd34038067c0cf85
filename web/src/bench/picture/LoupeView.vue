<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import { useBench } from '../../stores/bench'

/** Original and result around the pointer, beside each other, one pixel of the photo for each of the screen. */
const SIDE = 168
const REST = 180
const props = defineProps<{ pointer: { x: number; y: number }; stage: { width: number; height: number } }>()
const bench = useBench()
const canvas = ref<HTMLCanvasElement>()
const ratio = devicePixelRatio
let timer: ReturnType<typeof setTimeout> | undefined
let asked = 0

const place = computed(() => {
  const left =
    props.pointer.x + 24 + 2 * SIDE > props.stage.width ? props.pointer.x - 24 - 2 * SIDE : props.pointer.x + 24
  const top = Math.min(props.stage.height - SIDE - 8, Math.max(8, props.pointer.y - SIDE / 2))
  return { left: `${Math.max(4, left)}px`, top: `${top}px` }
})

function region() {
  const at = bench.hovered
  const shot = bench.shot
  if (!at || !shot) return undefined
  const width = Math.min(1, (SIDE * devicePixelRatio) / shot.width)
  const height = Math.min(1, (SIDE * devicePixelRatio) / shot.height)
  return {
    x: Math.min(1 - width, Math.max(0, at.x - width / 2)),
    y: Math.min(1 - height, Math.max(0, at.y - height / 2)),
    width,
    height,
  }
}

function paint(original: ImageBitmap | undefined, result: ImageBitmap | undefined, whole: boolean): void {
  const context = canvas.value?.getContext('2d')
  const part = region()
  if (!context || !part) return
  const side = SIDE * devicePixelRatio
  for (const [i, bitmap] of [original, result].entries()) {
    if (!bitmap) continue
    if (whole)
      context.drawImage(
        bitmap,
        part.x * bitmap.width,
        part.y * bitmap.height,
        part.width * bitmap.width,
        part.height * bitmap.height,
        i * side,
        0,
        side,
        side,
      )
    else context.drawImage(bitmap, i * side, 0, side, side)
  }
}

/** At once from what is there, softly; exactly once the pointer rests. */
function show(): void {
  paint(bench.original, bench.preview, true)
  clearTimeout(timer)
  timer = setTimeout(() => void exactly(), REST)
}

async function exactly(): Promise<void> {
  const part = region()
  const ticket = ++asked
  if (!part) return
  try {
    const found = await bench.loupeAt(part)
    if (found && ticket === asked) paint(found.photo, found.result, false)
  } catch {
    // The soft picture stays; the stage tells what is wrong with the connection.
  }
}

watch(() => [bench.hovered, bench.preview], show)
onMounted(show)
onBeforeUnmount(() => {
  asked++
  clearTimeout(timer)
})
</script>

<template>
  <div class="loupe" :style="place" aria-hidden="true" data-test="loupe">
    <canvas
      ref="canvas"
      :width="2 * SIDE * ratio"
      :height="SIDE * ratio"
      :style="{ width: `${2 * SIDE}px`, height: `${SIDE}px` }" />
    <span class="left">original</span>
    <span class="right">result</span>
  </div>
</template>

<style scoped>
.loupe {
  position: absolute;
  border: 1px solid #e8e8e8;
  box-shadow: 0 0 0 1px #000;
  pointer-events: none;
  background: var(--well);
  line-height: 0;
}
span {
  position: absolute;
  bottom: 4px;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
  font-size: 10.5px;
  line-height: 1.4;
  padding: 0 5px;
  border-radius: 2px;
}
.left {
  left: 4px;
}
.right {
  right: 4px;
}
</style>
