<script setup lang="ts">
/** A slider with its value; moves live, becomes a step when it is let go. */
defineProps<{ value: number; label: string; hint: string; least: number; most: number; step: number; text: string }>()
const emit = defineEmits<{ live: [value: number]; commit: [value: number] }>()

function number(event: Event): number {
  return Number((event.target as HTMLInputElement).value)
}
</script>

<template>
  <label class="slider" :title="hint">
    <span class="head">
      <span class="heading">{{ label }}</span>
      <span class="value">{{ text }}</span>
    </span>
    <input
      type="range"
      :min="least"
      :max="most"
      :step="step"
      :value="value"
      :aria-label="label"
      :aria-valuetext="text"
      @input="emit('live', number($event))"
      @change="emit('commit', number($event))" />
  </label>
</template>

<style scoped>
.slider {
  display: grid;
  gap: 3px;
  min-width: 0;
}
.head {
  display: flex;
  justify-content: space-between;
  gap: 6px;
  white-space: nowrap;
}
.value {
  font-size: 11.5px;
}
input {
  appearance: none;
  width: 100%;
  height: 22px;
  background: none;
  margin: 0;
  cursor: pointer;
  border-radius: 3px;
}
input::-webkit-slider-runnable-track {
  height: 3px;
  background: var(--strong-line);
  border-radius: 2px;
}
input::-webkit-slider-thumb {
  appearance: none;
  width: 9px;
  height: 18px;
  margin-top: -8px;
  border-radius: 2px;
  background: var(--ink);
  border: 1px solid var(--ground);
}
input::-moz-range-track {
  height: 3px;
  background: var(--strong-line);
}
input::-moz-range-thumb {
  width: 8px;
  height: 16px;
  border-radius: 2px;
  background: var(--ink);
  border: 0;
}
</style>
