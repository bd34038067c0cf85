<script setup lang="ts">
import { mdiClose, mdiDownload, mdiTrayArrowDown } from '@mdi/js'
import { computed, onMounted, ref } from 'vue'
import { api, type Problem } from '../../api/client'
import { useRemembered } from '../../editing/deliverySettings'
import { progressText } from '../../editing/deliveryWords'
import DeliveryFields from '../../shell/DeliveryFields.vue'
import { useBench } from '../../stores/bench'
import { useDeliveries } from '../../stores/deliveries'
import { useTimeline } from '../../stores/timeline'

const bench = useBench()
const store = useDeliveries()
const timeline = useTimeline()
/** Clips and photos have formats of their own, and each is remembered. */
const clipSettings = useRemembered('deliver-clip', 'mp4')
const photoSettings = useRemembered('deliver-photo', 'jpeg')
const settings = computed({
  get: () => (bench.shot?.clip ? clipSettings.value : photoSettings.value),
  set: (now) => {
    if (bench.shot?.clip) clipSettings.value = now
    else photoSettings.value = now
  },
})
const busy = ref(false)

const own = computed(() => store.deliveries.filter((each) => each.shotId === bench.shot?.id).slice(0, 4))
const longest = computed(() => Math.max(bench.shot?.width ?? 0, bench.shot?.height ?? 0))

async function deliver(): Promise<void> {
  const { shot, stored: recipe, version } = bench
  if (!shot || !recipe || !version) return
  busy.value = true
  try {
    await api.deliver(shot.id, {
      versionName: version.name,
      recipe,
      ...settings.value,
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
    <DeliveryFields v-model="settings" class="fields" :clip="!!bench.shot?.clip" :longest="longest" />
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
  grid-template-columns: auto auto minmax(0, 420px);
  gap: 30px;
  align-items: center;
  justify-content: start;
  height: 100%;
}
.fields {
  grid-template-rows: repeat(4, auto);
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 236px);
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
