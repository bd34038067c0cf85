<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue'
import type { Step } from '../editing/looking'

/** Four steps around the Bench; what each speaks of is outlined. */
const emit = defineEmits<{ close: []; step: [step: Step] }>()
const stops: { target: string; step: Step; title: string; text: string }[] = [
  {
    target: '[data-test=stage]',
    step: 'focus',
    title: 'Focus',
    text: 'Click what should be sharp, or drag over it. Hold O to see the photo as it was.',
  },
  {
    target: '[data-test=plan]',
    step: 'focus',
    title: 'The plan',
    text: 'The scene from above, the camera at the bottom. The green slab is what is sharp: drag it, or its edges.',
  },
  {
    target: '[data-test=deck]',
    step: 'lens',
    title: 'Aperture',
    text: 'Turn the dial: smaller numbers blur more. The line below it says what real lens would draw this.',
  },
  {
    target: '[data-test=deck]',
    step: 'deliver',
    title: 'Deliver',
    text: 'The result at full size, made in the background. Nothing is ever lost: every step can be undone, also tomorrow.',
  },
]
const at = ref(0)
const stop = computed(() => stops[at.value])

function unmark(): void {
  document.querySelectorAll('.tour-target').forEach((each) => each.classList.remove('tour-target'))
}

function mark(): void {
  unmark()
  if (stop.value) document.querySelector(stop.value.target)?.classList.add('tour-target')
}

watch(stop, (now) => {
  if (now) emit('step', now.step)
  // The step's controls are there in the next frame.
  requestAnimationFrame(mark)
})
onMounted(() => {
  if (stop.value) emit('step', stop.value.step)
  requestAnimationFrame(mark)
})
onBeforeUnmount(unmark)

function next(): void {
  if (at.value + 1 < stops.length) at.value++
  else emit('close')
}
</script>

<template>
  <div v-if="stop" class="tour" role="dialog" aria-label="Tour" data-test="tour" @keydown.esc="emit('close')">
    <h2>{{ stop.title }}</h2>
    <p>{{ stop.text }}</p>
    <div>
      <span class="quiet small">{{ at + 1 }} of {{ stops.length }}</span>
      <span class="spring" />
      <v-btn v-if="at + 1 < stops.length" @click="emit('close')">Leave</v-btn>
      <v-btn class="lead" autofocus data-test="tour-next" @click="next">
        {{ at + 1 < stops.length ? 'Next' : 'Done' }}
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.tour {
  position: fixed;
  left: 92px;
  bottom: 188px;
  z-index: 40;
  width: 300px;
  display: grid;
  gap: 8px;
  padding: 14px 16px;
  background: var(--panel);
  border: 1px solid var(--accent);
  border-radius: 4px;
}
.tour div {
  display: flex;
  align-items: center;
  gap: 6px;
}
</style>

<style>
.tour-target {
  outline: 2px solid var(--accent);
  outline-offset: -2px;
}
</style>
