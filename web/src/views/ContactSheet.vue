<script setup lang="ts">
import { mdiPrinterOutline } from '@mdi/js'
import { computed, onMounted, ref } from 'vue'
import { useRoute } from 'vue-router'
import { api, type Delivery, type Problem } from '../api/client'

/** What was delivered together, small and with names: to print, or to keep as a PDF. */
const route = useRoute()
const all = ref<Delivery[]>([])
const fault = ref('')
const done = computed(() => all.value.filter((each) => each.state === 'done' && each.thumbnail))
const day = computed(() => {
  const first = all.value[0]
  return first ? new Intl.DateTimeFormat(undefined, { dateStyle: 'long' }).format(new Date(first.created)) : ''
})

function print(): void {
  window.print()
}

onMounted(async () => {
  try {
    all.value = await api.batch(String(route.params.batch))
  } catch (problem) {
    fault.value = (problem as Problem).message
  }
})
</script>

<template>
  <div class="paper scroll">
    <header>
      <h1>Contact sheet</h1>
      <span>{{ day }}, {{ done.length }} of {{ all.length }} files</span>
      <span class="spring" />
      <router-link class="screen" to="/deliveries">Deliveries</router-link>
      <v-btn class="screen" :prepend-icon="mdiPrinterOutline" :disabled="!done.length" @click="print">Print</v-btn>
    </header>
    <p v-if="fault" role="alert">{{ fault }}</p>
    <p v-else-if="all.length && !done.length">Nothing of this is done yet.</p>
    <ol data-test="contact-sheet">
      <li v-for="each in done" :key="each.id">
        <img :src="api.deliveryThumbnail(each.id)" alt="" />
        <span>{{ each.fileName }}</span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.paper {
  background: #fff;
  color: #111;
  height: 100vh;
  padding: 24px 32px;
}
header {
  display: flex;
  gap: 18px;
  align-items: baseline;
  margin-bottom: 18px;
}
h1 {
  font-size: 17px;
}
a,
.paper .v-btn {
  color: #111;
}
ol {
  list-style: none;
  display: grid;
  grid-template-columns: repeat(4, minmax(0, 1fr));
  gap: 16px 14px;
}
li {
  display: grid;
  gap: 4px;
  break-inside: avoid;
  font-size: 11px;
}
img {
  width: 100%;
  aspect-ratio: 3 / 2;
  object-fit: contain;
  background: #f2f2f2;
}
@media print {
  .screen {
    display: none;
  }
  .paper {
    height: auto;
    padding: 0;
    overflow: visible;
  }
}
</style>
