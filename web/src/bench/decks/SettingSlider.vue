<script setup lang="ts">
import { computed } from 'vue'
import type { Recipe } from '../../api/client'
import { changed, control, setting, textOf, valueAt, type RecipePath } from '../../editing/settings'
import { useBench } from '../../stores/bench'
import SliderField from './SliderField.vue'

/** A slider for one number of the recipe; range, unit, name and hint are those of its declaration where none are given. */
const props = defineProps<{
  path: RecipePath
  label?: string
  hint?: string
  least?: number
  most?: number
  step?: number
  text?: (value: number) => string
  /** What a change of it is called in the history, where its name alone does not say which. */
  called?: string
  /** Turns the value that is set into a change, where more has to follow it. */
  change?: (value: number) => Partial<Recipe>
}>()

const bench = useBench()
const value = computed(() => (bench.recipe ? valueAt(bench.recipe, props.path) : setting(props.path).usual))
const field = computed(() => {
  const usual = control(props.path)
  return {
    label: props.label ?? usual.label,
    hint: props.hint ?? usual.hint,
    least: props.least ?? usual.least,
    most: props.most ?? usual.most,
    step: props.step ?? usual.step,
    text: props.text?.(value.value) ?? textOf(props.path, value.value),
  }
})

function after(set: number): Partial<Recipe> {
  return props.change?.(set) ?? changed(bench.recipe as Recipe, props.path, set)
}
</script>

<template>
  <SliderField
    v-bind="field"
    :value="value"
    @live="bench.live(after($event))"
    @commit="bench.commit(called ?? setting(path).called, after($event))" />
</template>
