<script setup lang="ts">
import { mdiClose } from '@mdi/js'
import { computed, ref, watch } from 'vue'
import { useBench } from '../../stores/bench'
import { guidance, softness } from './guidance'
import { hintsWanted, touring, wantHints } from './hints'

/** Short notes over the picture; each can be closed and none stops anything. */
const bench = useBench()
const hints = ref(hintsWanted())
const closed = ref<string[]>([])
const storage = computed(() => `notes:${bench.shot?.id}`)

const soft = computed(() => {
  const { edgeWidths, nearness, recipe } = bench
  return edgeWidths && nearness && recipe ? softness(edgeWidths, nearness, recipe.band) : undefined
})
const notes = computed(() => {
  const { shot, recipe } = bench
  if (!shot || !recipe) return []
  return guidance(shot, recipe, soft.value, bench.nearness).filter((each) => !closed.value.includes(each.key))
})

function close(key: string): void {
  closed.value = [...closed.value, key]
  localStorage.setItem(storage.value, JSON.stringify(closed.value))
}

function closeHints(): void {
  hints.value = false
  wantHints(false)
}

watch(
  storage,
  (key) => {
    try {
      closed.value = JSON.parse(localStorage.getItem(key) ?? '[]') as string[]
    } catch {
      closed.value = []
    }
  },
  { immediate: true },
)
watch(
  () => bench.nearness,
  (map) => map && void bench.loadEdgeWidths(),
)
</script>

<template>
  <aside class="notes" aria-label="Notes on this shot">
    <p v-if="hints && !touring" class="note" data-test="hint">
      <span>
        Click what should be sharp, or drag over it. Then turn the aperture on the Lens step until it looks like glass.
        The plan on the right is the scene from above. All keys: press ?
        <a href="#" data-test="tour-begin" @click.prevent="touring = true">Show me around</a>
        or read the
        <router-link to="/guide">guide</router-link>
        .
      </span>
      <v-btn
        :icon="mdiClose"
        size="x-small"
        title="Close; the sheet of keys brings hints back"
        aria-label="Close the hint"
        @click="closeHints" />
    </p>
    <p v-for="each in notes" :key="each.key" class="note" data-test="note">
      <span>{{ each.text }}</span>
      <v-btn
        :icon="mdiClose"
        size="x-small"
        title="Close"
        :aria-label="`Close the note: ${each.text}`"
        @click="close(each.key)" />
    </p>
  </aside>
</template>

<style scoped>
.notes {
  position: absolute;
  left: 12px;
  top: 12px;
  display: grid;
  gap: 5px;
  max-width: min(430px, 70%);
  pointer-events: none;
  justify-items: start;
}
.note {
  display: flex;
  gap: 8px;
  align-items: start;
  margin: 0;
  padding: 4px 4px 4px 10px;
  background: var(--panel);
  color: var(--ink);
  border: 1px solid var(--line);
  border-left: 2px solid var(--accent);
  border-radius: 2px;
  font-size: 11.5px;
  line-height: 1.4;
  pointer-events: auto;
}
.note span {
  padding: 2px 0;
}
a {
  color: inherit;
}
</style>
