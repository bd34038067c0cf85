<script setup lang="ts">
import { computed } from 'vue'
import { useBench } from '../../stores/bench'
import { useKeeping } from '../../stores/keeping'
import { useTouchups } from '../../stores/touchups'

/** A subject that is kept through a clip. */
const bench = useBench()
const keeping = useKeeping()
const touchups = useTouchups()

const making = computed(() => keeping.chosen && keeping.making[keeping.chosen.id])
const told = computed(() => {
  const now = making.value
  if (now?.fault) return now.fault
  if (now?.waits) return 'Waits for the depth of the clip.'
  if (now) return `Carrying it through the clip: ${Math.round(now.done * 100)} %`
  if (keeping.seenFrames === undefined) return ''
  const frames = bench.clip?.micros.length ?? 0
  return keeping.seenFrames < frames ? `Seen in ${keeping.seenFrames} of ${frames} frames.` : 'Seen in every frame.'
})
</script>

<template>
  <div class="keeps">
    <p class="small quiet">
      {{
        keeping.chosen
          ? 'Draw lines over what is missing, with Erase (E held) over what is too much. They are carried to both sides.'
          : 'Click a subject, or drag a box around it. Its mask goes along with it through the clip.'
      }}
    </p>
    <template v-if="keeping.chosen">
      <div class="row">
        <div
          v-if="keeping.chosen.action === 'focus' || keeping.chosen.action === 'blur'"
          class="buttons tight"
          role="group"
          aria-label="What the kept subject is">
          <button
            :class="{ on: keeping.chosen.action !== 'blur' }"
            title="The subject is sharp, wherever the band is"
            data-test="keep-sharp"
            @click="keeping.chosen.action === 'blur' && keeping.swap()">
            Sharp
          </button>
          <button
            :class="{ on: keeping.chosen.action === 'blur' }"
            title="The subject is blurred"
            data-test="keep-blurred"
            @click="keeping.chosen.action !== 'blur' && keeping.swap()">
            Blurred
          </button>
        </div>
        <v-btn title="Keeps another subject" data-test="keep-another" @click="touchups.selectedId = ''">Another</v-btn>
        <v-btn
          :disabled="keeping.chosen.kept.length < 2"
          title="Takes the last correction back"
          data-test="keep-less"
          @click="keeping.forgetLast">
          Forget last
        </v-btn>
      </div>
      <span class="small" :class="{ quiet: !making?.fault, fault: making?.fault }" role="status" data-test="keep-told">
        {{ told }}
      </span>
    </template>
    <div v-else-if="touchups.selected && keeping.canCarry(touchups.selected)" class="row">
      <v-btn
        title="What is painted goes along with what it lies on, from this frame to both sides"
        data-test="carry-along"
        @click="keeping.carryAlong(touchups.selected)">
        Carry {{ touchups.selected.name }} along
      </v-btn>
    </div>
  </div>
</template>

<style scoped>
.keeps {
  display: grid;
  min-width: 0;
  gap: 4px;
  align-content: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 6px;
}
.fault {
  color: #d98c5f;
}
</style>
