<script setup lang="ts">
import { computed } from 'vue'
import type { Recipe } from '../../api/client'
import { changed, control, setting, valueAt, type RecipePath } from '../../editing/settings'
import { useBench } from '../../stores/bench'
import NumberField from './NumberField.vue'

/** A typed number of the recipe; range, unit, name and hint are those of its declaration where none are given. */
const props = defineProps<{
  path: RecipePath
  least?: number
  most?: number
  digits?: number
  hint?: string
  /** Turns the value that is set into a change, where more has to follow it. */
  change?: (value: number) => Partial<Recipe>
}>()

const UNITS: Record<string, string> = { millimetres: 'mm', metres: 'm' }

const bench = useBench()
const value = computed(() => (bench.recipe ? valueAt(bench.recipe, props.path) : setting(props.path).usual))
const field = computed(() => {
  const usual = control(props.path)
  const unit = UNITS[setting(props.path).unit]
  return {
    label: usual.label,
    hint: props.hint ?? usual.hint,
    least: props.least ?? usual.least,
    most: props.most ?? usual.most,
    step: usual.step,
    ...(unit && { unit }),
    ...(props.digits !== undefined && { digits: props.digits }),
  }
})

function set(number: number): void {
  bench.commit(
    setting(props.path).called,
    props.change?.(number) ?? changed(bench.recipe as Recipe, props.path, number),
  )
}
</script>

<template>
  <NumberField v-bind="field" :value="value" @commit="set" />
</template>
