<script setup lang="ts">
import { watch } from 'vue'
import { useEvents } from './stores/events'
import { useSession } from './stores/session'

const session = useSession()
const events = useEvents()
watch(
  () => session.name,
  (name) => (name ? events.open() : events.close()),
  { immediate: true },
)
</script>

<template>
  <v-app>
    <router-view />
  </v-app>
</template>
