<script setup lang="ts">
import { computed } from 'vue'
import { actionHints, actionNames, type Action } from '../../editing/painting'
import { useBench } from '../../stores/bench'
import { useInspector } from '../../stores/inspector'
import { useTouchups, type Tool } from '../../stores/touchups'
import { actionIcons } from './actionIcons'
import BrushColumn from './BrushColumn.vue'
import KeepColumn from './KeepColumn.vue'
import PickOutColumn from './PickOutColumn.vue'
import TouchupColumn from './TouchupColumn.vue'
import TouchupList from './TouchupList.vue'

const bench = useBench()
const touchups = useTouchups()
const inspector = useInspector()

const actions = Object.keys(actionIcons) as Action[]
const toolNames: Record<Tool, string> = { brush: 'Brush', 'pick-out': 'Pick-out', keep: 'Keep' }
const TOOLS = { brush: 'Paint strokes', 'pick-out': 'Find an object from a box around it and marks on it' }
const KEEP = 'Click a subject: its mask goes along with it through the clip'
const tools = computed<Partial<Record<Tool, string>>>(() => (bench.clip ? { ...TOOLS, keep: KEEP } : TOOLS))
const brush = computed(() => touchups.brush)
</script>

<template>
  <div class="deck">
    <div class="new">
      <span class="heading">New touch-up</span>
      <div class="actions">
        <v-btn
          v-for="each in actions"
          :key="each"
          :prepend-icon="actionIcons[each]"
          :title="actionHints[each]"
          :data-test="`new-${each}`"
          @click="touchups.add(each)">
          {{ actionNames[each] }}
        </v-btn>
      </div>
      <div class="row">
        <div class="tools" role="group" aria-label="Tool">
          <button
            v-for="(means, each) in tools"
            :key="each"
            :class="{ on: touchups.tool === each }"
            :aria-pressed="touchups.tool === each"
            :title="means"
            :data-test="`tool-${each}`"
            @click="touchups.tool = each">
            {{ toolNames[each] }}
          </button>
        </div>
        <v-btn
          :active="inspector.open"
          title="Goes through the places that probably need a touch-up, at 100 %"
          data-test="inspect"
          @click="inspector.open ? inspector.stop() : inspector.start()">
          Inspect
        </v-btn>
      </div>
      <div class="checks">
        <label
          class="check"
          title="Takes paint away, or marks what does not belong to the object; holding E does the same for as long as it is held">
          <input
            type="checkbox"
            :checked="brush.erases"
            data-test="erase"
            @change="touchups.useBrush({ erases: !brush.erases })" />
          Erase
        </label>
        <label class="check" title="Tints what the chosen touch-up has painted (P); the tint is not in the result">
          <input type="checkbox" :checked="touchups.tint" data-test="tint" @change="touchups.tint = !touchups.tint" />
          Show paint
        </label>
      </div>
    </div>

    <PickOutColumn v-if="touchups.tool === 'pick-out'" />
    <KeepColumn v-else-if="touchups.tool === 'keep'" />
    <BrushColumn v-else />

    <TouchupList v-if="touchups.all.length" />
    <p v-else class="quiet small none">
      Paint on the picture, or begin with an action on the left. Strokes are kept as strokes: strength, order and target
      stay adjustable.
    </p>

    <TouchupColumn v-if="touchups.selected" :chosen="touchups.selected" />
  </div>
</template>

<style scoped>
.deck {
  display: grid;
  grid-template-columns: max-content minmax(170px, 260px) minmax(140px, 330px) minmax(398px, 420px);
  gap: clamp(14px, 1.8vw, 26px);
  height: 100%;
  min-width: 0;
}
.new {
  display: grid;
  gap: 3px;
  align-content: start;
}
.actions {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 2px 4px;
  justify-items: start;
}
.none {
  align-self: center;
}
.checks {
  display: flex;
  gap: 14px;
}
.tools {
  display: flex;
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: hidden;
  width: max-content;
}
.tools button {
  padding: 2px 12px;
  min-height: 24px;
  font-size: 12px;
  color: var(--dim);
}
.tools button.on {
  background: rgba(128, 128, 128, 0.24);
  color: var(--ink);
}
</style>
