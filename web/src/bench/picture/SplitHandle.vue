<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from '../../stores/bench'
import type { Extent, Viewport } from './viewport'

/** The line between original and result: it is dragged, or moved by the arrow keys. */
const props = defineProps<{ viewport: Viewport; picture: Extent }>()
const emit = defineEmits<{ grab: [event: PointerEvent] }>()
const bench = useBench()

const place = computed(() => {
  const { x, y, scale } = props.viewport
  return bench.splitLevel
    ? { top: `${y + props.picture.height * scale * bench.splitAt}px` }
    : { left: `${x + props.picture.width * scale * bench.splitAt}px` }
})

function key(event: KeyboardEvent): void {
  const less = bench.splitLevel ? 'ArrowUp' : 'ArrowLeft'
  const more = bench.splitLevel ? 'ArrowDown' : 'ArrowRight'
  const by = event.key === less ? -0.02 : event.key === more ? 0.02 : 0
  if (!by) return
  event.preventDefault()
  bench.splitAt = Math.min(0.98, Math.max(0.02, bench.splitAt + by))
}
</script>

<template>
  <div
    class="split"
    :class="{ level: bench.splitLevel }"
    role="slider"
    tabindex="0"
    aria-label="Split between original and result"
    :aria-orientation="bench.splitLevel ? 'vertical' : 'horizontal'"
    :aria-valuenow="Math.round(bench.splitAt * 100)"
    aria-valuemin="2"
    aria-valuemax="98"
    :style="place"
    @pointerdown.stop="emit('grab', $event)"
    @keydown="key">
    <span class="side before">original</span>
    <span class="grip" />
    <span class="side after">result</span>
  </div>
</template>

<style scoped>
.split {
  position: absolute;
  top: 0;
  bottom: 0;
  width: 15px;
  margin-left: -7px;
  cursor: ew-resize;
}
.split::before {
  content: '';
  position: absolute;
  left: 7px;
  top: 0;
  bottom: 0;
  width: 1px;
  background: rgba(255, 255, 255, 0.85);
  box-shadow: 0 0 0 1px rgba(0, 0, 0, 0.35);
}
.grip {
  position: absolute;
  left: 2px;
  top: 50%;
  width: 11px;
  height: 30px;
  margin-top: -15px;
  background: #e8e8e8;
  border: 1px solid #333;
  border-radius: 2px;
}
.side {
  position: absolute;
  bottom: 48px;
  background: rgba(20, 20, 20, 0.82);
  color: #e6e6e6;
  font-size: 11px;
  padding: 1px 7px;
  border-radius: 2px;
  white-space: nowrap;
}
.side.before {
  right: 16px;
}
.side.after {
  left: 16px;
}
.split.level {
  left: 0;
  right: 0;
  bottom: auto;
  width: auto;
  height: 15px;
  margin: -7px 0 0;
  cursor: ns-resize;
}
.split.level::before {
  left: 0;
  right: 0;
  top: 7px;
  bottom: auto;
  width: auto;
  height: 1px;
}
.split.level .grip {
  left: 50%;
  top: 2px;
  width: 30px;
  height: 11px;
  margin: 0 0 0 -15px;
}
.split.level .side {
  left: 16px;
  right: auto;
}
.split.level .side.before {
  bottom: 16px;
}
.split.level .side.after {
  top: 16px;
  bottom: auto;
}
</style>
