<script setup lang="ts">
import { mdiClose, mdiDownload, mdiTrayArrowDown } from '@mdi/js'
import { computed, onMounted, ref } from 'vue'
import { api, type Problem } from '../../api/client'
import { clipFormats, lossy, photoFormats, progressText } from '../../editing/deliveryWords'
import { useBench } from '../../stores/bench'
import { useDeliveries } from '../../stores/deliveries'
import { useTimeline } from '../../stores/timeline'

const bench = useBench()
const store = useDeliveries()
const timeline = useTimeline()
/** Clips and photos have formats of their own, and each is remembered. */
const remembered = computed(() => (bench.shot?.clip ? 'clip-format' : 'format'))
const formats = computed(() => (bench.shot?.clip ? clipFormats : photoFormats))
const format = ref(localStorage.getItem(remembered.value) ?? Object.keys(formats.value)[0] ?? 'jpeg')
const quality = ref(92)
const size = ref<number | null>(null)
const busy = ref(false)

const own = computed(() => store.deliveries.filter((each) => each.shotId === bench.shot?.id).slice(0, 4))
const longest = computed(() => Math.max(bench.shot?.width ?? 0, bench.shot?.height ?? 0))
const sizes = computed(() => [null, ...[4096, 2048, 1200].filter((each) => each < longest.value)])

async function deliver(): Promise<void> {
  const { shot, stored: recipe, version } = bench
  if (!shot || !recipe || !version) return
  busy.value = true
  localStorage.setItem(remembered.value, format.value)
  try {
    await api.deliver(shot.id, {
      versionName: version.name,
      recipe,
      format: format.value,
      quality: quality.value / 100,
      longestSide: size.value,
      frames: shot.clip ? { from: timeline.from, end: timeline.end } : null,
    })
    await store.load()
  } catch (problem) {
    bench.notice = (problem as Problem).message
  } finally {
    busy.value = false
  }
}

onMounted(store.load)
</script>

<template>
  <div class="deck">
    <div class="fields">
      <label>
        <span class="heading">Format</span>
        <select v-model="format" aria-label="Format">
          <option v-for="(text, key) in formats" :key="key" :value="key">{{ text }}</option>
        </select>
      </label>
      <label>
        <span class="heading">Longer side</span>
        <select v-model="size" aria-label="Longer side">
          <option v-for="each in sizes" :key="String(each)" :value="each">{{ each ?? `full, ${longest}` }} px</option>
        </select>
      </label>
      <label v-if="lossy.includes(format)">
        <span class="heading">Quality {{ quality }}</span>
        <input v-model.number="quality" type="range" min="50" max="100" aria-label="Quality" />
      </label>
    </div>
    <div class="column">
      <v-btn
        class="lead"
        :prepend-icon="mdiTrayArrowDown"
        :loading="busy"
        data-test="deliver"
        title="Renders this version at full size in the background"
        @click="deliver">
        Deliver
      </v-btn>
      <p class="quiet small">
        <template v-if="bench.shot?.clip">
          Frames {{ timeline.from + 1 }} to {{ timeline.end }},
          <br />
          times, colours and sound kept.
        </template>
        <template v-else>
          Profile and metadata of the
          <br />
          photo are kept.
        </template>
      </p>
    </div>
    <ul class="list" aria-label="Deliveries of this shot">
      <li v-if="own.length === 0" class="quiet">Nothing delivered from this shot yet.</li>
      <li v-for="each in own" :key="each.id" :data-state="each.state" data-test="delivery">
        <span class="name" :title="each.fileName">{{ each.fileName }}</span>
        <span class="quiet small state" :class="{ fault: each.state === 'failed' }">{{ progressText(each) }}</span>
        <v-btn
          v-if="each.state === 'done'"
          :icon="mdiDownload"
          :href="api.deliveryFile(each.id)"
          :aria-label="`Download ${each.fileName}`"
          title="Download"
          data-test="download" />
        <v-btn
          v-else-if="each.state === 'waiting' || each.state === 'rendering'"
          :icon="mdiClose"
          :aria-label="`Cancel ${each.fileName}`"
          title="Cancel"
          @click="store.cancel(each.id)" />
        <span v-else />
      </li>
    </ul>
  </div>
</template>

<style scoped>
.deck {
  display: grid;
  grid-template-columns: 200px auto minmax(0, 480px);
  gap: 44px;
  align-items: center;
  justify-content: start;
  height: 100%;
}
.fields {
  display: grid;
  gap: 7px;
}
.fields label {
  display: grid;
  grid-template-columns: 78px 1fr;
  align-items: center;
  gap: 8px;
}
select,
input {
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 3px 6px;
  font-size: 12.5px;
  min-width: 0;
  accent-color: var(--accent);
}
.column {
  display: grid;
  gap: 8px;
  justify-items: start;
}
.list {
  list-style: none;
  border-left: 1px solid var(--line);
  padding-left: 22px;
  display: grid;
  gap: 2px;
  align-content: center;
}
.list li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 28px;
  gap: 10px;
  align-items: center;
  min-height: 28px;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
