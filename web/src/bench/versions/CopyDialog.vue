<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { api, Problem, type Shot } from '../../api/client'
import { usePaged } from '../../editing/paged'
import MoreMarker from '../../shell/MoreMarker.vue'
import { useBench } from '../../stores/bench'

/** Gives parts of this version's recipe to other shots of the shoot; each gets one step that can be undone there. */
const emit = defineEmits<{ close: [] }>()
const bench = useBench()
const parts = [
  { key: 'lens', name: 'Lens', about: 'aperture, disc, glints, both sides' },
  { key: 'band', name: 'Sharp band', about: 'its edges, falloffs and tilt' },
  { key: 'trims', name: 'Depth trims', about: 'not where depth comes from' },
  { key: 'touchups', name: 'Touch-ups', about: 'to shots of the same size' },
  { key: 'shapes', name: 'Blur shapes', about: 'where they lie in the picture' },
  { key: 'atmosphere', name: 'Atmosphere', about: 'mist, tone, grain, crispness' },
  { key: 'opacity', name: 'Opacity', about: 'of the whole effect' },
]
const chosenParts = ref(['lens'])
const chosen = ref<string[]>([])
const told = ref('')
const busy = ref(false)

const all = usePaged<Shot>((after) => api.shotsOf(bench.shot?.shootId ?? '', after))
const others = computed(() => all.items.value.filter((each) => each.id !== bench.shot?.id && each.depths.length))

async function load(work: () => Promise<void>): Promise<void> {
  try {
    await work()
  } catch (problem) {
    told.value = (problem as Problem).message
  }
}

/** Also those that have not been looked at yet. */
async function chooseAll(): Promise<void> {
  await load(async () => {
    while (all.next.value !== null) await all.more()
  })
  chosen.value = others.value.map((each) => each.id)
}

function toggled(all: string[], key: string): string[] {
  return all.includes(key) ? all.filter((each) => each !== key) : [...all, key]
}

async function copy(): Promise<void> {
  busy.value = true
  try {
    const changed = await bench.copyParts(chosenParts.value, chosen.value)
    told.value = changed === 1 ? 'One shot has been changed.' : `${changed} shots have been changed.`
  } catch (problem) {
    told.value = (problem as Problem).message
  } finally {
    busy.value = false
  }
}

onMounted(() => void load(all.load))
</script>

<template>
  <v-dialog :model-value="true" width="560" aria-label="Copy to other shots" @update:model-value="emit('close')">
    <div class="sheet framed">
      <h2>Copy to other shots</h2>
      <div class="parts" role="group" aria-label="What is copied">
        <label v-for="each in parts" :key="each.key">
          <input
            type="checkbox"
            :checked="chosenParts.includes(each.key)"
            @change="chosenParts = toggled(chosenParts, each.key)" />
          {{ each.name }}
          <span class="quiet small">{{ each.about }}</span>
        </label>
      </div>
      <div class="shots" role="group" aria-label="To which shots">
        <label v-for="each in others" :key="each.id" :class="{ on: chosen.includes(each.id) }" data-test="copy-target">
          <input type="checkbox" :checked="chosen.includes(each.id)" @change="chosen = toggled(chosen, each.id)" />
          <img :src="api.thumbnail(each.id, each.picture)" alt="" />
          <span>{{ each.name }}</span>
        </label>
        <MoreMarker v-if="all.next.value !== null" :key="all.items.value.length" @near="load(all.more)" />
        <p v-else-if="!others.length" class="quiet">There is no other shot with depth in this shoot.</p>
      </div>
      <div class="foot">
        <v-btn :disabled="!others.length" @click="chooseAll">All shots</v-btn>
        <span role="status" data-test="copied">{{ told }}</span>
        <span class="spring" />
        <v-btn @click="emit('close')">Close</v-btn>
        <v-btn class="lead" :disabled="!chosen.length || !chosenParts.length || busy" data-test="copy" @click="copy">
          {{ chosen.length ? `Copy to ${chosen.length}` : 'Copy' }}
        </v-btn>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 14px 18px;
  display: grid;
  gap: 12px;
}
.parts {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 16px;
}
.shots {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(118px, 1fr));
  gap: 8px;
  max-height: 300px;
  overflow: auto;
}
.shots label {
  position: relative;
  display: grid;
  gap: 3px;
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 5px;
  font-size: 11.5px;
  cursor: pointer;
}
.shots label.on {
  border-color: var(--accent);
}
.shots img {
  width: 100%;
  height: 72px;
  object-fit: cover;
  display: block;
}
.shots span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.shots input {
  position: absolute;
  left: 9px;
  top: 9px;
}
.foot {
  display: flex;
  gap: 8px;
  align-items: center;
}
input {
  accent-color: var(--accent);
}
</style>
