<script setup lang="ts">
import { computed } from 'vue'
import { clipFormats, depthFormats, layerFormats, photoFormats } from '../editing/deliveryWords'
import { colourSpaces, settable, type DeliverySettings } from '../editing/deliverySettings'

/** How something is delivered: only what its format knows can be set. */
const settings = defineModel<DeliverySettings>({ required: true })
const props = defineProps<{ clip?: boolean; longest?: number | undefined }>()

const groups = computed(() =>
  props.clip
    ? [{ name: 'Clip', formats: clipFormats }]
    : [
        { name: 'Picture', formats: photoFormats },
        { name: 'Layers', formats: layerFormats },
        { name: 'Depth', formats: depthFormats },
      ],
)
const can = computed(() => settable(settings.value, !!props.clip))
const sizes = computed(() => [4096, 2048, 1200].filter((each) => !props.longest || each < props.longest))
const quality = computed({
  get: () => Math.round(settings.value.quality * 100),
  set: (percent: number) => set({ quality: percent / 100 }),
})

function set(change: Partial<DeliverySettings>): void {
  settings.value = { ...settings.value, ...change }
}

function chosen(event: Event): string {
  return (event.target as HTMLSelectElement).value
}
</script>

<template>
  <div class="fields">
    <label>
      <span class="heading">Format</span>
      <select
        :value="settings.format"
        aria-label="Format"
        @change="set({ format: chosen($event) as DeliverySettings['format'] })">
        <optgroup v-for="group in groups" :key="group.name" :label="group.name">
          <option v-for="(text, key) in group.formats" :key="key" :value="key">{{ text }}</option>
        </optgroup>
      </select>
    </label>
    <label>
      <span class="heading">Longer side</span>
      <select
        :value="settings.longestSide ?? ''"
        aria-label="Longer side"
        @change="set({ longestSide: Number(chosen($event)) || null })">
        <option value="">{{ longest ? `full, ${longest} px` : 'full' }}</option>
        <option v-for="each in sizes" :key="each" :value="each">{{ each }} px</option>
      </select>
    </label>
    <label v-if="can.quality">
      <span class="heading">Quality {{ quality }}</span>
      <input
        v-model.number="quality"
        type="range"
        min="50"
        max="100"
        aria-label="Quality"
        :title="can.lossless ? 'At 100 nothing is lost' : ''" />
    </label>
    <label v-if="can.space">
      <span class="heading">Colour</span>
      <select
        :value="settings.space ?? 'source'"
        aria-label="Colour space"
        @change="set({ space: chosen($event) as DeliverySettings['space'] })">
        <option v-for="(text, key) in colourSpaces" :key="key" :value="key">{{ text }}</option>
      </select>
    </label>
    <label v-if="can.sharpening">
      <span class="heading">Sharpen</span>
      <input
        :value="settings.sharpening ?? 0"
        type="range"
        min="0"
        max="1"
        step="0.05"
        aria-label="Sharpening"
        title="Gives back what a picture loses when it is made smaller"
        @input="set({ sharpening: Number(chosen($event)) })" />
    </label>
    <label v-if="can.halvesColour" class="tick" title="Colour at half the resolution: a smaller file">
      <input
        type="checkbox"
        :checked="!!settings.halvesColour"
        @change="set({ halvesColour: !settings.halvesColour })" />
      Colour at half resolution
    </label>
    <label v-if="can.place" class="tick" title="Position and names of places in the photo's metadata">
      <input
        type="checkbox"
        :checked="settings.keepsPlace !== false"
        @change="set({ keepsPlace: settings.keepsPlace === false })" />
      Say where it was taken
    </label>
  </div>
</template>

<style scoped>
.fields {
  display: grid;
  gap: 7px 28px;
  align-content: center;
}
label {
  display: grid;
  grid-template-columns: 78px minmax(0, 1fr);
  align-items: center;
  gap: 8px;
}
label.tick {
  grid-template-columns: auto 1fr;
  font-size: 12.5px;
  min-height: 24px;
}
select,
input[type='range'] {
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 3px 6px;
  font-size: 12.5px;
  min-width: 0;
  width: 100%;
  accent-color: var(--accent);
}
input[type='checkbox'] {
  accent-color: var(--accent);
}
</style>
