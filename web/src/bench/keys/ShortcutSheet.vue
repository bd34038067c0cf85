<script setup lang="ts">
import { ref } from 'vue'
import { hintsWanted, touring, wantHints } from '../decks/hints'
import { shortcuts } from './shortcuts'

const emit = defineEmits<{ close: [] }>()
const hints = ref(hintsWanted())

function tour(): void {
  touring.value = true
  emit('close')
}

function change(event: Event): void {
  hints.value = (event.target as HTMLInputElement).checked
  wantHints(hints.value)
}
</script>

<template>
  <v-dialog :model-value="true" width="720" aria-label="Keys" @update:model-value="emit('close')">
    <div class="sheet framed" data-test="shortcuts">
      <section v-for="each in shortcuts" :key="each.group">
        <h2>{{ each.group }}</h2>
        <dl>
          <template v-for="line in each.keys" :key="line.key">
            <dt>{{ line.key }}</dt>
            <dd>{{ line.does }}</dd>
          </template>
        </dl>
      </section>
      <label class="foot">
        <input type="checkbox" :checked="hints" @change="change" />
        Hints for the first steps
      </label>
      <span class="more">
        <router-link to="/guide" data-test="to-guide">Guide</router-link>
        <a href="#" @click.prevent="tour">Show me around</a>
      </span>
      <v-btn class="close" @click="emit('close')">Close</v-btn>
    </div>
  </v-dialog>
</template>

<style scoped>
.sheet {
  padding: 16px 20px;
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 14px 32px;
}
dl {
  display: grid;
  grid-template-columns: 108px 1fr;
  gap: 3px 12px;
  margin: 6px 0 0;
  font-size: 12px;
}
dt {
  color: var(--accent);
}
dd {
  margin: 0;
}
.foot {
  align-self: center;
}
.close {
  justify-self: end;
}
input {
  accent-color: var(--accent);
}
a {
  color: inherit;
}
</style>
