<script setup lang="ts">
import { computed } from 'vue'
import { useTouchups } from '../../stores/touchups'

/** Finding an object from a box and marks, for the chosen touch-up. */
const touchups = useTouchups()
const chosen = computed(() => touchups.selected)
</script>

<template>
  <div class="picks">
    <p class="small quiet">
      {{
        chosen?.pickOut
          ? 'Draw a short line over what belongs to the object; with Erase, or while E is held, over what does not. The sides of the box can be moved.'
          : 'Drag a box loosely around the object. It becomes the mask of the chosen touch-up, or of a new one.'
      }}
    </p>
    <div v-if="chosen?.pickOut" class="row">
      <v-btn
        :disabled="!chosen.pickOut.marks.length"
        data-test="unmark-all"
        @click="touchups.pickOut(chosen.id, `Marks off ${chosen.name}`, { marks: [] })">
        Clear marks
      </v-btn>
      <v-btn
        data-test="no-pick-out"
        @click="touchups.change(chosen.id, `Pick-out off ${chosen.name}`, { pickOut: null })">
        Remove box
      </v-btn>
    </div>
    <span class="small quiet" role="status">{{ touchups.finding ? 'Finding the object' : '' }}</span>
  </div>
</template>

<style scoped>
.picks {
  display: grid;
  gap: 6px;
  align-content: start;
}
</style>
