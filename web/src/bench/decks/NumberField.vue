<script setup lang="ts">
import { ref, watch } from 'vue'

/** A number that takes effect on Enter or when it loses the focus; a value outside its range is put back to the limit. */
const props = defineProps<{
  value: number
  label: string
  hint: string
  least: number
  most: number
  digits?: number
  step?: number
  unit?: string
  /** What stands for 0 where that means that nothing is known. */
  unknown?: string
}>()
const emit = defineEmits<{ commit: [value: number] }>()

const typed = ref('')
watch(() => props.value, show, { immediate: true })

function show(): void {
  typed.value = props.unknown !== undefined && props.value === 0 ? '' : props.value.toFixed(props.digits ?? 0)
}

function take(): void {
  const text = typed.value.trim() || (props.unknown === undefined ? '' : '0')
  const number = Number(text.replace(',', '.'))
  if (!Number.isFinite(number) || text === '') {
    show()
    return
  }
  const limited = Math.min(props.most, Math.max(props.least, number))
  if (limited.toFixed(props.digits ?? 0) !== props.value.toFixed(props.digits ?? 0)) emit('commit', limited)
  else show()
}

function nudge(event: KeyboardEvent): void {
  const sign = event.key === 'ArrowUp' ? 1 : event.key === 'ArrowDown' ? -1 : 0
  if (!sign) return
  event.preventDefault()
  const by = (props.step ?? 1) * (event.shiftKey ? 10 : 1)
  emit('commit', Math.min(props.most, Math.max(props.least, props.value + sign * by)))
}
</script>

<template>
  <label class="number" :title="hint">
    <span class="heading">{{ label }}</span>
    <span class="box">
      <input
        v-model="typed"
        type="text"
        inputmode="decimal"
        :aria-label="label"
        :placeholder="unknown"
        @change="take"
        @keydown.enter="take"
        @keydown="nudge"
        @focus="($event.target as HTMLInputElement).select()" />
      <span v-if="unit" class="unit">{{ unit }}</span>
    </span>
  </label>
</template>

<style scoped>
.number {
  display: grid;
  gap: 2px;
  min-width: 0;
}
.heading {
  white-space: nowrap;
}
.box {
  display: flex;
  align-items: baseline;
  border: 1px solid var(--line);
  border-radius: 3px;
  background: var(--well);
  padding: 0 7px;
  height: 26px;
  line-height: 24px;
}
.box:focus-within {
  border-color: var(--accent);
}
input {
  width: 100%;
  min-width: 0;
  background: none;
  border: 0;
  outline: 0;
  color: var(--ink);
  font: inherit;
  font-size: 12.5px;
}
.unit {
  color: var(--dim);
  font-size: 11px;
  padding-left: 4px;
}
</style>
