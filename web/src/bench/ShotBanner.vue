<script setup lang="ts">
import { useBench } from '../stores/bench'

/** What keeps the picture from being worked on, or an edit from being saved. */
const bench = useBench()
</script>

<template>
  <div
    v-if="bench.savingState === 'offline' || bench.savingState === 'conflict' || bench.savingState === 'refused'"
    class="banner"
    role="alert"
    data-test="saving">
    <span>{{ bench.savingMessage }}</span>
    <v-btn v-if="bench.savingState === 'conflict'" @click="bench.loadAgain">Load it again</v-btn>
  </div>
  <div
    v-if="bench.shot && bench.shot.state !== 'ready' && !bench.recipe"
    class="banner"
    :class="{ fault: bench.shot.state === 'failed' }"
    role="status">
    <template v-if="bench.shot.state === 'failed'">
      <span>{{ bench.shot.problem }}</span>
      <v-btn @click="bench.estimateAgain()">Try again</v-btn>
    </template>
    <template v-else>
      <span>{{ bench.shot.clip && !bench.clip ? 'Reading the clip' : 'Finding depth' }}</span>
      <v-progress-linear
        :model-value="bench.shot.progress * 100"
        :indeterminate="bench.shot.state === 'waiting'"
        color="primary"
        height="3" />
    </template>
  </div>
</template>

<style scoped>
.banner {
  position: absolute;
  left: 50%;
  top: 14px;
  transform: translateX(-50%);
  background: var(--panel);
  border: 1px solid var(--strong-line);
  border-radius: 4px;
  padding: 8px 16px;
  display: flex;
  gap: 14px;
  align-items: center;
  min-width: 260px;
  max-width: 90%;
}
</style>
