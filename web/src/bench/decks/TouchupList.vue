<script setup lang="ts">
import { mdiChevronDown, mdiChevronUp, mdiEyeOffOutline, mdiEyeOutline } from '@mdi/js'
import { ref } from 'vue'
import { actionHints, strengthText, type Action } from '../../editing/painting'
import { useTouchups } from '../../stores/touchups'
import { actionIcons } from './actionIcons'

/** All touch-ups: chosen, shown or hidden, named and put in order here. */
const touchups = useTouchups()
const renaming = ref('')

function rename(id: string, event: Event): void {
  // The field also loses the focus as it goes away.
  if (renaming.value !== id) return
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 80)
  renaming.value = ''
  if (name) touchups.change(id, `Rename to ${name}`, { name })
}
</script>

<template>
  <ol class="list" aria-label="Touch-ups, in the order in which they act">
    <li
      v-for="(each, i) in touchups.all"
      :key="each.id"
      v-memo="[each, i, touchups.all.length, each.id === touchups.selectedId, each.id === renaming]"
      :class="{ on: each.id === touchups.selectedId, off: !each.shown }"
      data-test="touchup">
      <button
        class="eye"
        :title="each.shown ? 'Hide' : 'Show'"
        :aria-label="`${each.shown ? 'Hide' : 'Show'} ${each.name}`"
        data-test="shown"
        @click="touchups.change(each.id, `${each.shown ? 'Hide' : 'Show'} ${each.name}`, { shown: !each.shown })">
        <v-icon :icon="each.shown ? mdiEyeOutline : mdiEyeOffOutline" size="16" />
      </button>
      <input
        v-if="renaming === each.id"
        class="rename"
        :value="each.name"
        aria-label="Name"
        maxlength="80"
        autofocus
        @keydown.enter="rename(each.id, $event)"
        @keydown.esc="renaming = ''"
        @blur="rename(each.id, $event)" />
      <button
        v-else
        class="name"
        :aria-current="each.id === touchups.selectedId"
        :title="`${actionHints[each.action as Action]}. Double click to rename.`"
        @click="touchups.selectedId = each.id"
        @dblclick="renaming = each.id">
        <v-icon :icon="actionIcons[each.action as Action]" size="15" />
        <span>{{ each.name }}</span>
        <span class="quiet small">{{ strengthText(each.action as Action, each.strength) }}</span>
      </button>
      <button
        :disabled="i === 0"
        title="Acts earlier"
        :aria-label="`${each.name} earlier`"
        @click="touchups.reorder(each.id, -1)">
        <v-icon :icon="mdiChevronUp" size="16" />
      </button>
      <button
        :disabled="i === touchups.all.length - 1"
        title="Acts later"
        :aria-label="`${each.name} later`"
        @click="touchups.reorder(each.id, 1)">
        <v-icon :icon="mdiChevronDown" size="16" />
      </button>
    </li>
  </ol>
</template>

<style scoped>
.list {
  list-style: none;
  overflow-y: auto;
  min-height: 0;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: 3px;
  align-content: start;
}
.list li {
  display: flex;
  align-items: center;
  border-bottom: 1px solid var(--line);
}
.list li.on {
  background: rgba(128, 128, 128, 0.18);
  box-shadow: inset 2px 0 0 var(--accent);
}
.list li.off .name span:first-of-type {
  text-decoration: line-through;
}
.list button {
  min-height: 27px;
  min-width: 25px;
  color: var(--dim);
  display: grid;
  place-items: center;
}
.list button:hover:not(:disabled) {
  color: var(--ink);
}
.list button:disabled {
  opacity: 0.35;
}
.list .name {
  display: flex;
  gap: 6px;
  align-items: center;
  flex: 1;
  min-width: 0;
  color: var(--ink);
}
.list .name span:first-of-type {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  flex: 1;
  text-align: left;
}
.list .name .small {
  white-space: nowrap;
}
.rename {
  flex: 1;
  min-width: 0;
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--accent);
  border-radius: 2px;
  padding: 2px 5px;
}
</style>
