<script setup lang="ts">
import { mdiClose, mdiDeleteOutline, mdiDownload, mdiFolderZipOutline, mdiGridLarge, mdiRestart } from '@mdi/js'
import { computed, onMounted } from 'vue'
import { api } from '../api/client'
import MoreMarker from '../shell/MoreMarker.vue'
import TopBar from '../shell/TopBar.vue'
import { useDeliveries } from '../stores/deliveries'
import { deliveryFormats, progressText } from '../editing/deliveryWords'

const store = useDeliveries()
const time = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })
/** The first that is listed of what was asked for together. */
const firstOf = computed(() => {
  const out = new Map<string, string>()
  for (const { batch, id } of store.deliveries) if (batch && !out.has(batch)) out.set(batch, id)
  return out
})
onMounted(store.load)
</script>

<template>
  <div class="page">
    <TopBar />
    <main class="scroll">
      <h1>Deliveries</h1>
      <p v-if="store.fault" class="fault" role="alert">{{ store.fault }}</p>
      <table class="listing" v-if="store.deliveries.length">
        <thead>
          <tr>
            <th aria-label="Picture" />
            <th>File</th>
            <th>Version</th>
            <th>Format</th>
            <th>Asked for</th>
            <th class="wide">State</th>
            <th aria-label="Actions" />
          </tr>
        </thead>
        <tbody>
          <template v-for="each in store.deliveries" :key="each.id">
            <tr v-if="each.batch && firstOf.get(each.batch) === each.id" class="together" data-test="together">
              <td />
              <td colspan="5">asked for together</td>
              <td class="actions">
                <v-btn
                  :icon="mdiFolderZipOutline"
                  :href="api.batchZip(each.batch)"
                  title="Download what is done of these as one zip"
                  aria-label="Download these as one zip"
                  data-test="zip" />
                <v-btn
                  :icon="mdiGridLarge"
                  :to="`/contact-sheets/${each.batch}`"
                  title="Contact sheet of these"
                  aria-label="Contact sheet of these"
                  data-test="sheet" />
              </td>
            </tr>
            <tr :data-state="each.state">
              <td class="picture">
                <img
                  :src="each.thumbnail ? api.deliveryThumbnail(each.id) : api.thumbnail(each.shotId)"
                  alt=""
                  loading="lazy" />
              </td>
              <td>
                <router-link :to="`/bench/${each.shotId}`" title="Open the shot">{{ each.fileName }}</router-link>
              </td>
              <td>{{ each.versionName }}</td>
              <td>{{ deliveryFormats[each.format] ?? each.format }}</td>
              <td class="quiet">{{ time.format(new Date(each.created)) }}</td>
              <td :class="{ fault: each.state === 'failed', quiet: each.state === 'cancelled' }">
                <v-progress-linear
                  v-if="each.state === 'rendering' || each.state === 'waiting'"
                  :model-value="each.progress * 100"
                  :indeterminate="each.state === 'waiting'"
                  color="primary"
                  height="3" />
                {{ each.state === 'done' ? `done, ${progressText(each)}` : progressText(each) }}
              </td>
              <td class="actions">
                <v-btn
                  v-if="each.state === 'done'"
                  :icon="mdiDownload"
                  :href="api.deliveryFile(each.id)"
                  title="Download"
                  :aria-label="`Download ${each.fileName}`" />
                <v-btn
                  v-if="each.state === 'waiting' || each.state === 'rendering'"
                  :icon="mdiClose"
                  title="Cancel"
                  :aria-label="`Cancel ${each.fileName}`"
                  @click="store.cancel(each.id)" />
                <v-btn
                  v-if="each.state === 'failed' || each.state === 'cancelled'"
                  :icon="mdiRestart"
                  title="Try again"
                  :aria-label="`Try ${each.fileName} again`"
                  data-test="again"
                  @click="store.again(each.id)" />
                <v-btn
                  v-if="each.state !== 'waiting' && each.state !== 'rendering'"
                  :icon="mdiDeleteOutline"
                  title="Remove from the list"
                  :aria-label="`Remove ${each.fileName}`"
                  @click="store.remove(each.id)" />
              </td>
            </tr>
          </template>
        </tbody>
      </table>
      <MoreMarker v-if="store.more" :key="store.deliveries.length" @near="store.showMore" />
      <div v-if="!store.deliveries.length && !store.loading" class="empty">
        <p>Nothing delivered yet.</p>
        <p class="quiet">Open a shot on the Bench and go to its last step, Deliver.</p>
      </div>
    </main>
  </div>
</template>

<style scoped>
main {
  padding: 16px 22px;
  display: grid;
  gap: 14px;
  align-content: start;
}
.listing th,
.listing td {
  height: 38px;
}
td a {
  color: var(--ink);
  text-decoration-color: var(--strong-line);
}
.together td {
  color: var(--dim);
  height: 30px;
}
.wide {
  width: 26%;
}
.picture {
  width: 66px;
}
.picture img {
  display: block;
  width: 54px;
  height: 36px;
  object-fit: cover;
  border-radius: 2px;
}
.actions {
  text-align: right;
  white-space: nowrap;
  padding-right: 0;
}
.empty {
  display: grid;
  gap: 6px;
  place-content: center;
  text-align: center;
  height: 300px;
  border: 1px dashed var(--strong-line);
  border-radius: 4px;
}
</style>
