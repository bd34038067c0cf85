<script setup lang="ts">
import {
  mdiBlur,
  mdiChevronDown,
  mdiChevronUp,
  mdiContentCopy,
  mdiDeleteOutline,
  mdiDeleteSweepOutline,
  mdiEyeOffOutline,
  mdiEyeOutline,
  mdiEyedropper,
  mdiImageFilterCenterFocus,
  mdiLayersOutline,
  mdiRestore,
} from '@mdi/js'
import { computed, ref } from 'vue'
import { useBench } from '../../stores/bench'
import { useInspector } from '../../stores/inspector'
import { useTouchups, type Tool } from '../../stores/touchups'
import {
  actionHints,
  actionNames,
  hasPaint,
  LARGEST,
  SMALLEST,
  strengthText,
  type Action,
} from '../../editing/painting'
import { control } from '../../editing/settings'
import KeepColumn from './KeepColumn.vue'
import SliderField from './SliderField.vue'
import SpanRow from './SpanRow.vue'

const bench = useBench()
const touchups = useTouchups()
const inspector = useInspector()
const renaming = ref('')

const icons: Record<Action, string> = {
  focus: mdiImageFilterCenterFocus,
  blur: mdiBlur,
  match: mdiLayersOutline,
  reveal: mdiRestore,
}
const actions = Object.keys(icons) as Action[]
const toolNames: Record<Tool, string> = { brush: 'Brush', 'pick-out': 'Pick-out', keep: 'Keep' }
const TOOLS = { brush: 'Paint strokes', 'pick-out': 'Find an object from a box around it and marks on it' }
const KEEP = 'Click a subject: its mask goes along with it through the clip'
const tools = computed<Partial<Record<Tool, string>>>(() => (bench.clip ? { ...TOOLS, keep: KEEP } : TOOLS))
const brush = computed(() => touchups.brush)
const chosen = computed(() => touchups.selected)
const action = computed(() => (chosen.value?.action ?? 'focus') as Action)
const percent = (value: number): string => `${Math.round(value * 100)} %`

/** Small sizes need fine steps, so the slider runs by the logarithm. */
const sizeAt = computed(() => Math.log(brush.value.size / SMALLEST) / Math.log(LARGEST / SMALLEST))
const sizeText = computed(
  () => `${Math.round(brush.value.size * Math.max(bench.shot?.width ?? 0, bench.shot?.height ?? 0))} px`,
)

function set(part: Partial<typeof brush.value>): void {
  touchups.brush = { ...brush.value, ...part }
}

function setSize(at: number): void {
  set({ size: Math.round(SMALLEST * (LARGEST / SMALLEST) ** at * 1e5) / 1e5 })
}

const long = computed(() => Math.max(bench.shot?.width ?? 1, bench.shot?.height ?? 1))
const pixels = (share: number): number => Math.round(share * long.value * 2) / 2
const shares = (value: number): number => Math.round((value / long.value) * 1e7) / 1e7
const file = ref<HTMLInputElement>()

function load(event: Event): void {
  const input = event.target as HTMLInputElement
  const chosenFile = input.files?.[0]
  if (chosenFile) void touchups.loadMask(chosenFile)
  input.value = ''
}

function rename(id: string, event: Event): void {
  // The field also loses the focus as it goes away.
  if (renaming.value !== id) return
  const name = (event.target as HTMLInputElement).value.trim().slice(0, 80)
  renaming.value = ''
  if (name) touchups.change(id, `Rename to ${name}`, { name })
}
</script>

<template>
  <div class="deck">
    <div class="new">
      <span class="heading">New touch-up</span>
      <div class="actions">
        <v-btn
          v-for="each in actions"
          :key="each"
          :prepend-icon="icons[each]"
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
          <input type="checkbox" :checked="brush.erases" data-test="erase" @change="set({ erases: !brush.erases })" />
          Erase
        </label>
        <label class="check" title="Tints what the chosen touch-up has painted (P); the tint is not in the result">
          <input type="checkbox" :checked="touchups.tint" data-test="tint" @change="touchups.tint = !touchups.tint" />
          Show paint
        </label>
      </div>
    </div>

    <div v-if="touchups.tool === 'pick-out'" class="picks">
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
    <KeepColumn v-else-if="touchups.tool === 'keep'" />
    <div v-else class="brush">
      <SliderField
        label="Size"
        hint="Diameter of the brush in pixels of the photo ([ and ], or Shift and the wheel)"
        :least="0"
        :most="1"
        :step="0.005"
        :value="sizeAt"
        :text="sizeText"
        @live="setSize"
        @commit="setSize" />
      <SliderField
        v-bind="control('stroke.softness')"
        :value="brush.softness"
        :text="percent(brush.softness)"
        @live="set({ softness: $event })"
        @commit="set({ softness: $event })" />
      <SliderField
        v-bind="control('stroke.buildUp')"
        :value="brush.buildUp"
        :text="percent(brush.buildUp)"
        @live="set({ buildUp: $event })"
        @commit="set({ buildUp: $event })" />
      <SliderField
        v-bind="control('stroke.cling')"
        :value="brush.cling"
        :text="percent(brush.cling)"
        @live="set({ cling: $event })"
        @commit="set({ cling: $event })" />
      <label class="choice" title="Which edges paint stops at">
        <span class="heading">Clings to</span>
        <select
          :value="brush.edges"
          aria-label="Clings to"
          @change="set({ edges: ($event.target as HTMLSelectElement).value as typeof brush.edges })">
          <option value="photo">photo</option>
          <option value="depth">depth</option>
          <option value="both">both</option>
        </select>
      </label>
      <label class="choice" title="What the pressure of a pen changes">
        <span class="heading">Pen pressure</span>
        <select
          :value="brush.pressure"
          aria-label="Pen pressure"
          @change="set({ pressure: ($event.target as HTMLSelectElement).value as typeof brush.pressure })">
          <option value="nothing">nothing</option>
          <option value="size">size</option>
          <option value="build-up">build-up</option>
        </select>
      </label>
    </div>

    <ol v-if="touchups.all.length" class="list" aria-label="Touch-ups, in the order in which they act">
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
          <v-icon :icon="icons[each.action as Action]" size="15" />
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
    <p v-else class="quiet small none">
      Paint on the picture, or begin with an action on the left. Strokes are kept as strokes: strength, order and target
      stay adjustable.
    </p>

    <div v-if="chosen" class="chosen">
      <div class="side">
        <SliderField
          label="Strength"
          :hint="
            action === 'blur'
              ? 'How far out of the band, behind it or in front'
              : 'How far the action goes, on all strokes of this touch-up'
          "
          :least="action === 'blur' ? -1 : 0"
          :most="1"
          :step="0.01"
          :value="chosen.strength"
          :text="strengthText(action, chosen.strength)"
          data-test="strength"
          @live="touchups.live({ strength: $event })"
          @commit="touchups.change(chosen.id, `Strength of ${chosen.name}`, { strength: $event })" />
        <div v-if="(action === 'focus' && !chosen.kept.length) || action === 'match'" class="row">
          <span class="small target">
            depth
            <span data-test="target">{{ chosen.target.toFixed(2) }}</span>
          </span>
          <v-btn v-if="action === 'focus'" title="Leads to where the sharp band is now" @click="touchups.readBand">
            Read band
          </v-btn>
          <v-btn
            :icon="mdiEyedropper"
            :active="touchups.picking"
            title="Pick the depth in the picture"
            aria-label="Pick the depth in the picture"
            data-test="pick"
            @click="touchups.picking = !touchups.picking" />
        </div>
        <div class="row">
          <label class="check" title="Acts where nothing is painted">
            <input
              type="checkbox"
              :checked="chosen.inverted"
              @change="touchups.change(chosen.id, `Invert ${chosen.name}`, { inverted: !chosen.inverted })" />
            Inverted
          </label>
          <span class="spring" />
          <v-btn
            :icon="mdiContentCopy"
            title="Duplicate"
            aria-label="Duplicate"
            data-test="duplicate"
            @click="touchups.duplicate(chosen.id)" />
          <v-btn
            :icon="mdiDeleteOutline"
            title="Delete"
            aria-label="Delete"
            data-test="delete"
            @click="touchups.remove(chosen.id)" />
          <v-btn
            :icon="mdiDeleteSweepOutline"
            title="Removes every touch-up; undo brings them back"
            aria-label="Remove all touch-ups"
            data-test="reset"
            @click="touchups.reset" />
        </div>
      </div>
      <div class="side">
        <SliderField
          label="Grow"
          hint="Moves the edge of what is painted out, or in below zero; in pixels of the photo"
          :least="-20"
          :most="20"
          :step="0.5"
          :value="pixels(chosen.grow)"
          :text="`${pixels(chosen.grow)} px`"
          @live="touchups.live({ grow: shares($event) })"
          @commit="touchups.change(chosen.id, `Edge of ${chosen.name}`, { grow: shares($event) })" />
        <SliderField
          label="Soften"
          hint="Fades the edge of what is painted over this many pixels of the photo"
          :least="0"
          :most="20"
          :step="0.5"
          :value="pixels(chosen.soften)"
          :text="`${pixels(chosen.soften)} px`"
          @live="touchups.live({ soften: shares($event) })"
          @commit="touchups.change(chosen.id, `Edge of ${chosen.name}`, { soften: shares($event) })" />
        <div class="row">
          <v-btn
            title="Saves what is painted as a grey PNG of the photo's size, white is painted"
            :disabled="!hasPaint(chosen)"
            data-test="save-mask"
            @click="touchups.saveMask">
            Save mask
          </v-btn>
          <v-btn
            title="Begins this touch-up with a mask from a picture file of the photo's shape, white is painted"
            data-test="load-mask"
            @click="file?.click()">
            Load mask
          </v-btn>
          <v-btn
            v-if="chosen.maskFile"
            title="Takes the loaded mask away"
            data-test="drop-mask"
            @click="touchups.change(chosen.id, `Mask off ${chosen.name}`, { maskFile: null })">
            Drop
          </v-btn>
          <input ref="file" type="file" accept="image/*" hidden data-test="mask-file" @change="load" />
        </div>
      </div>
      <SpanRow class="span" />
    </div>
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
.check {
  display: flex;
  gap: 6px;
  align-items: center;
  cursor: pointer;
  font-size: 12.5px;
  min-height: 24px;
}
.check input {
  accent-color: var(--accent);
}
.brush {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  align-content: start;
}
.choice {
  display: grid;
  gap: 1px;
}
select {
  padding: 2px 6px;
  min-height: 24px;
}
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
.none {
  align-self: center;
}
.chosen {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 4px 18px;
  align-content: start;
  align-items: start;
}
.side {
  display: grid;
  gap: 4px;
  align-content: start;
}
.picks {
  display: grid;
  gap: 6px;
  align-content: start;
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
.row {
  display: flex;
  align-items: center;
  gap: 4px;
}
.spring {
  flex: 1;
}
.target {
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
.span {
  grid-column: 1 / -1;
}
</style>
