<script setup lang="ts">
import { computed } from 'vue'

const props = defineProps<{ scale: number; fitted: boolean }>()
const emit = defineEmits<{ fit: []; full: [] }>()
const text = computed(() => `${Math.round(props.scale * devicePixelRatio * 100)} %`)
</script>

<template>
  <div class="zoom">
    <v-btn
      title="The whole picture (0)"
      :active="fitted"
      data-test="fit"
      @click.stop="emit('fit')"
      @pointerdown.stop
      @dblclick.stop>
      Fit
    </v-btn>
    <v-btn
      title="One pixel of the photo is one pixel of the screen (1)"
      data-test="full"
      @click.stop="emit('full')"
      @pointerdown.stop
      @dblclick.stop>
      100 %
    </v-btn>
    <span class="small" data-test="zoom">{{ text }}</span>
  </div>
</template>

<style scoped>
.zoom {
  position: absolute;
  right: 10px;
  bottom: 8px;
  display: flex;
  gap: 2px;
  align-items: center;
  background: var(--panel);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 0 8px 0 2px;
}
</style>
