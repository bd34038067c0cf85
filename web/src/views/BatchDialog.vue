<script setup lang="ts">
import { mdiDeleteOutline } from '@mdi/js'
import { watchDebounced } from '@vueuse/core'
import { computed, onMounted, ref } from 'vue'
import { api, type Problem, type Schemas } from '../api/client'
import { useRemembered } from '../editing/deliverySettings'
import DeliveryFields from '../shell/DeliveryFields.vue'

/** Delivers several shots with the same settings, under names that are seen before. */
const props = defineProps<{ shots: string[] }>()
const emit = defineEmits<{ close: []; done: [left: Schemas['LeftOut'][]] }>()

const USUAL = '{photo} - {version}'
const settings = useRemembered('deliver-many', 'jpeg')
const pattern = ref(localStorage.getItem('deliver-pattern') ?? USUAL)
const everyVersion = ref(false)
const names = ref<Schemas['BatchNames']>()
const told = ref('')
const busy = ref(false)
const presets = ref<Schemas['PresetView'][]>([])
const presetName = ref('')

const batch = computed(() => ({
  shots: props.shots,
  everyVersion: everyVersion.value,
  pattern: pattern.value,
  settings: settings.value,
}))
const problem = computed(() => told.value || (names.value?.problem ?? ''))

async function attempt(work: () => Promise<unknown>): Promise<void> {
  try {
    told.value = ''
    await work()
  } catch (fault) {
    told.value = (fault as Problem).message
  }
}

let asked = 0

/** The newest question counts, whichever answer comes last. */
const look = (): Promise<void> =>
  attempt(async () => {
    const own = ++asked
    names.value = undefined
    const found = await api.namesOfMany(batch.value)
    if (own === asked) names.value = found
  })

async function deliver(): Promise<void> {
  busy.value = true
  await attempt(async () => {
    const asked = await api.deliverMany(batch.value)
    localStorage.setItem('deliver-pattern', pattern.value)
    emit('done', asked.left)
  })
  busy.value = false
}

const loadPresets = (): Promise<void> => attempt(async () => (presets.value = await api.presets()))

function use(preset: Schemas['PresetView']): void {
  settings.value = { ...preset.settings }
  pattern.value = preset.pattern
  presetName.value = preset.name
}

const keep = (): Promise<void> =>
  attempt(async () => {
    await api.keepPreset({ name: presetName.value.trim(), pattern: pattern.value, settings: settings.value })
    await loadPresets()
  })

const forget = (id: string): Promise<void> =>
  attempt(async () => {
    await api.deletePreset(id)
    await loadPresets()
  })

watchDebounced(batch, look, { debounce: 250 })
onMounted(() => Promise.all([look(), loadPresets()]))
</script>

<template>
  <v-dialog :model-value="true" width="760" aria-label="Deliver several" @update:model-value="emit('close')">
    <div class="sheet framed" data-test="batch">
      <h2>Deliver {{ shots.length === 1 ? 'one shot' : `${shots.length} shots` }}</h2>
      <div class="halves">
        <section>
          <DeliveryFields v-model="settings" />
          <label class="tick">
            <input v-model="everyVersion" type="checkbox" />
            Every version, not only the first
          </label>
        </section>
        <section class="naming">
          <label>
            <span class="heading">Names</span>
            <input v-model="pattern" maxlength="120" aria-label="Name pattern" data-test="pattern" />
          </label>
          <p class="quiet small">{photo} {version} {shoot} {number} {date}</p>
          <ol class="names scroll" aria-label="Names of the files">
            <li v-for="(name, index) in names?.names ?? []" :key="index">{{ name }}</li>
          </ol>
          <p v-for="each in names?.left ?? []" :key="each.shot" class="quiet small">
            Without {{ each.name }}: {{ each.why }}
          </p>
        </section>
      </div>
      <div class="presets">
        <span class="heading">Presets</span>
        <span v-for="each in presets" :key="each.id" class="preset">
          <button :aria-pressed="each.name === presetName" data-test="preset" @click="use(each)">
            {{ each.name }}
          </button>
          <v-btn
            :icon="mdiDeleteOutline"
            size="x-small"
            title="Forget this preset"
            :aria-label="`Forget ${each.name}`"
            @click="forget(each.id)" />
        </span>
        <input v-model="presetName" maxlength="60" placeholder="Name" aria-label="Name of the preset" />
        <v-btn :disabled="!presetName.trim()" data-test="keep-preset" @click="keep">Keep as preset</v-btn>
      </div>
      <div class="foot">
        <span class="fault" role="alert" data-test="batch-problem">{{ problem }}</span>
        <span class="spring" />
        <v-btn @click="emit('close')">Close</v-btn>
        <v-btn
          class="lead"
          :disabled="busy || !names || !!names.problem"
          :loading="busy"
          data-test="deliver-many"
          @click="deliver">
          {{ names ? `Deliver ${names.names.length} ${names.names.length === 1 ? 'file' : 'files'}` : 'Deliver' }}
        </v-btn>
      </div>
    </div>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 14px 18px;
  display: grid;
  gap: 14px;
}
.halves {
  display: grid;
  grid-template-columns: 290px minmax(0, 1fr);
  gap: 34px;
  min-height: 230px;
}
section {
  display: grid;
  align-content: start;
  gap: 7px;
}
.tick {
  display: flex;
  gap: 8px;
  align-items: center;
  font-size: 12.5px;
}
.naming label {
  display: grid;
  grid-template-columns: 50px 1fr;
  align-items: center;
}
input:not([type='checkbox']) {
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 4px 7px;
  font: inherit;
  min-width: 0;
}
input[type='checkbox'] {
  accent-color: var(--accent);
}
.names {
  margin: 0;
  padding: 6px 10px 6px 34px;
  height: 150px;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
  font-size: 12.5px;
}
.presets {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  border-top: 1px solid var(--line);
  padding-top: 10px;
}
.preset {
  display: inline-flex;
  align-items: center;
  border: 1px solid var(--line);
  border-radius: 3px;
  padding-left: 8px;
  font-size: 12.5px;
}
.preset button {
  color: var(--ink);
}
.preset button[aria-pressed='true'] {
  color: var(--accent);
}
.foot {
  display: flex;
  gap: 10px;
  align-items: center;
}
</style>
