<script setup lang="ts">
import { useIntersectionObserver } from '@vueuse/core'
import { ref } from 'vue'

/** Stands at the end of a list that goes on; tells when it comes near the window. */
const emit = defineEmits<{ near: [] }>()
const marker = ref<HTMLElement>()
useIntersectionObserver(marker, (entries) => entries.some((each) => each.isIntersecting) && emit('near'), {
  rootMargin: '600px',
})
</script>

<template>
  <div ref="marker" class="marker quiet small" role="status">Loading more</div>
</template>

<style scoped>
.marker {
  padding: 14px 0;
  text-align: center;
}
</style>
