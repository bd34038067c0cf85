<script setup lang="ts">
import { mdiArrowLeft, mdiArrowRight, mdiClose, mdiLinkVariant } from '@mdi/js'
import { nextTick, ref, watch } from 'vue'
import { setting } from '../../editing/settings'
import { settings, type SettingPath } from '../../api/generated/settings'
import { useLadder } from '../../stores/ladder'
import NumberField from './NumberField.vue'

/** The levels of the ladder from near to far: their order, their distances, and what stands equally far. */
const ladder = useLadder()
const list = ref<HTMLOListElement>()
watch(
  () => ladder.chosen,
  () =>
    void nextTick(() => list.value?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest', inline: 'nearest' })),
)
const METRES: SettingPath = 'rung.metres'
const { most, means } = settings[METRES]
const name = setting(METRES).called

function course(number: number): string {
  const stands = ladder.stands?.rungs[number]
  const [found, led] = [stands?.found.toFixed(2), stands?.nearness.toFixed(2)]
  return found === led ? (led ?? '') : `${found} → ${led}`
}

/** Arrow keys move a level, Delete removes its last rung. */
function key(level: number, event: KeyboardEvent): void {
  if (event.target !== event.currentTarget) return
  if (event.key === 'ArrowLeft') ladder.reorder(level, level - 1)
  else if (event.key === 'ArrowRight') ladder.reorder(level, level + 1)
  else if (event.key === 'Delete') ladder.remove(ladder.levels[level]?.numbers.at(-1) ?? -1)
  else return
  event.preventDefault()
}
</script>

<template>
  <div class="panel" data-test="ladder-panel">
    <p v-if="!ladder.rungs.length" class="quiet">
      Click things in the picture, from the nearest to the farthest. Three often are enough.
      <br />
      With Shift a thing stands as far as the one before.
    </p>
    <ol v-else ref="list" aria-label="Rungs, from near to far">
      <li
        v-for="(level, at) in ladder.levels"
        :key="at"
        tabindex="0"
        :class="{ chosen: level.numbers.includes(ladder.chosen) }"
        :aria-label="`Rung ${at + 1}. Left and right move it, Delete removes it.`"
        data-test="level"
        @click="ladder.chosen = level.numbers.at(-1) ?? -1"
        @keydown="key(at, $event)">
        <span class="head">
          <b>{{ at + 1 }}</b>
          <span class="small quiet" title="Nearness of the map there, and where the rung puts it">
            {{ course(level.numbers[0] ?? 0) }}
          </span>
        </span>
        <NumberField
          :value="level.metres"
          :label="name"
          :hint="`${means}. Two make the plan show metres.`"
          :least="0"
          :most="most"
          unknown="not known"
          :digits="2"
          unit="m"
          @commit="ladder.tell(at, $event)" />
        <span class="tools">
          <v-btn
            :icon="mdiArrowLeft"
            size="x-small"
            :disabled="at === 0"
            :aria-label="`Rung ${at + 1} nearer`"
            title="Nearer than the one before"
            @click.stop="ladder.reorder(at, at - 1)" />
          <v-btn
            v-if="level.numbers.length > 1 || at > 0"
            :icon="mdiLinkVariant"
            size="x-small"
            :active="level.numbers.length > 1"
            :aria-label="level.numbers.length > 1 ? `Untie rung ${at + 1}` : `Tie rung ${at + 1} to the one before`"
            :title="level.numbers.length > 1 ? 'Its last thing stands for itself' : 'As far as the one before'"
            @click.stop="
              level.numbers.length > 1
                ? ladder.tie(level.numbers.at(-1) ?? 0, false)
                : ladder.tie(level.numbers[0] ?? 0, true)
            " />
          <v-btn
            :icon="mdiArrowRight"
            size="x-small"
            :disabled="at === ladder.levels.length - 1"
            :aria-label="`Rung ${at + 1} farther`"
            title="Farther than the one after"
            @click.stop="ladder.reorder(at, at + 1)" />
          <v-btn
            :icon="mdiClose"
            size="x-small"
            :aria-label="`Remove rung ${at + 1}`"
            title="Remove"
            data-test="remove-rung"
            @click.stop="ladder.remove(level.numbers.at(-1) ?? 0)" />
        </span>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.panel {
  min-width: 0;
  align-self: stretch;
  display: grid;
  align-items: center;
}
ol {
  display: flex;
  gap: 6px;
  overflow-x: auto;
  list-style: none;
  padding: 2px;
}
li {
  display: grid;
  gap: 4px;
  flex: none;
  width: 133px;
  grid-template-columns: minmax(0, 1fr);
  padding: 5px;
  border: 1px solid var(--line);
  border-radius: 3px;
}
li.chosen {
  border-color: var(--accent);
}
.head {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  font-variant-numeric: tabular-nums;
}
.tools {
  display: flex;
  justify-content: space-between;
}
p {
  max-width: 320px;
  line-height: 1.5;
}
</style>
