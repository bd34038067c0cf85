<script setup lang="ts">
import {
  mdiContentCopy,
  mdiDeleteOutline,
  mdiEllipseOutline,
  mdiEyeOffOutline,
  mdiEyeOutline,
  mdiMinus,
  mdiRectangleOutline,
} from '@mdi/js'
import { computed, nextTick, ref, watch } from 'vue'
import { settings, type SettingPath } from '../../api/generated/settings'
import { nearnessAt } from '../../editing/nearness'
import type { Form, Place, Shape } from '../../editing/shapes'
import { useBench } from '../../stores/bench'
import { useFollows } from '../../stores/follows'
import { useShapes } from '../../stores/shapes'
import SliderField from './SliderField.vue'
import SpanRow from './SpanRow.vue'

/** Blur that is placed: shapes, and how the chosen one blurs. */
const bench = useBench()
const shapes = useShapes()
const follows = useFollows()
const chosen = computed(() => shapes.chosen)

const list = ref<HTMLUListElement>()
watch(
  () => chosen.value?.id,
  () => void nextTick(() => list.value?.querySelector('.chosen')?.scrollIntoView({ block: 'nearest' })),
)

const FORMS: { form: Form; name: string; icon: string; hint: string }[] = [
  { form: 'ellipse', name: 'Ellipse', icon: mdiEllipseOutline, hint: 'Drag it over what should be blurred' },
  { form: 'rectangle', name: 'Rectangle', icon: mdiRectangleOutline, hint: 'Drag it over what should be blurred' },
  { form: 'line', name: 'Line', icon: mdiMinus, hint: 'A straight band: drag along it' },
]
const COVERS: { covers: Shape['covers']; name: string; hint: string }[] = [
  { covers: 'everything', name: 'Everything', hint: 'Blurs all that it lies over' },
  { covers: 'behind', name: 'Behind', hint: 'Blurs only what lies behind its depth: what stands before it stays' },
  { covers: 'in-front', name: 'In front', hint: 'Blurs only what lies in front of its depth' },
]
const longSide = computed(() => Math.max(bench.shot?.width ?? 0, bench.shot?.height ?? 0))

type Field = { key: 'strength' | 'soft' | 'corners' | 'depth' | 'depthFade'; most: number; step: number }
const text = ({ key }: Field, shape: Shape): string =>
  key === 'strength'
    ? `${Math.round(shape.strength)} %`
    : key === 'soft'
      ? `${Math.round(shape.soft * longSide.value)} px`
      : key === 'corners'
        ? `${Math.round(shape.corners * 100)} %`
        : shape[key].toFixed(2)
const LOOK: Field[] = [
  { key: 'strength', most: 100, step: 1 },
  { key: 'soft', most: 0.3, step: 0.001 },
  { key: 'corners', most: 1, step: 0.01 },
]
const DEPTH: Field[] = [
  { key: 'depth', most: 1, step: 0.01 },
  { key: 'depthFade', most: 0.3, step: 0.005 },
]
const looks = computed(() => LOOK.filter((each) => each.key !== 'corners' || chosen.value?.form === 'rectangle'))

const named = (key: string) => settings[`shape.${key}` as SettingPath]
const field = (each: Field, shape: Shape) => ({
  value: shape[each.key],
  label: named(each.key).called,
  hint: named(each.key).means,
  least: 0,
  most: each.most,
  step: each.step,
  text: text(each, shape),
})
const set = ({ key }: Field, value: number, live: boolean): void =>
  shapes.change(`${named(key).called} of a shape`, { [key]: value }, live)

/** A number of its place, which has marks in a clip. */
const turn = computed(() => Math.round(shapes.place?.turn ?? 0))
const put = (part: Partial<Place>, live: boolean): void => shapes.put(part, live, 'Shape turned')

/** A shape that begins to tell depths apart stands where the sharp band ends. */
function cover(covers: Shape['covers'], name: string): void {
  const band = bench.recipe?.band
  const fresh = chosen.value?.covers === 'everything' && band
  const depth = fresh ? { depth: covers === 'behind' ? band.far : band.near } : {}
  shapes.change(`Blurs ${name.toLowerCase()}`, { covers, ...(covers !== 'everything' && depth) })
}

/** Puts it at the depth of what lies in its middle. */
function depthHere(): void {
  const place = shapes.place
  const map = bench.nearness
  if (!place || !map) return
  const inside = (share: number): number => Math.min(1, Math.max(0, share))
  shapes.change('Depth of a shape', { depth: nearnessAt(map, inside(place.x), inside(place.y)) })
}
</script>

<template>
  <div class="deck">
    <div class="column">
      <span class="heading">New shape</span>
      <v-btn
        v-for="each in FORMS"
        :key="each.form"
        :prepend-icon="each.icon"
        :active="shapes.drawing === each.form"
        :disabled="shapes.full"
        :title="each.hint"
        :data-test="`new-${each.form}`"
        @click="shapes.drawing = shapes.drawing === each.form ? undefined : each.form">
        {{ each.name }}
      </v-btn>
    </div>
    <p v-if="!chosen" class="quiet small about">
      An area that is blurred on its own, besides the depth:
      <br />
      a sign in the background, a number plate, a strip of floor.
      <br />
      Choose a form and drag it over the picture.
    </p>
    <template v-else>
      <div class="column">
        <ul ref="list" class="list" aria-label="Blur shapes">
          <li v-for="each in shapes.all" :key="each.id" :class="{ chosen: each.id === chosen.id, off: !each.shown }">
            <v-btn
              :icon="each.shown ? mdiEyeOutline : mdiEyeOffOutline"
              size="x-small"
              :title="each.shown ? 'Hide it' : 'Show it'"
              :aria-label="`${each.shown ? 'Hide' : 'Show'} ${each.name}`"
              @click="
                ((shapes.chosenId = each.id),
                shapes.change(each.shown ? 'Shape hidden' : 'Shape shown', { shown: !each.shown }))
              " />
            <button class="name" data-test="shape-name" @click="shapes.chosenId = each.id">{{ each.name }}</button>
          </li>
        </ul>
        <div class="row">
          <v-btn
            :icon="mdiContentCopy"
            :disabled="shapes.full"
            size="small"
            title="Copy this shape (D)"
            aria-label="Copy this shape"
            @click="shapes.duplicate" />
          <v-btn
            :icon="mdiDeleteOutline"
            size="small"
            title="Remove this shape (Delete)"
            aria-label="Remove this shape"
            data-test="shape-remove"
            @click="shapes.remove" />
        </div>
      </div>
      <div class="column sliders">
        <SliderField
          v-for="each in looks"
          :key="each.key"
          v-bind="field(each, chosen)"
          :data-test="`shape-${each.key}`"
          @live="set(each, $event, true)"
          @commit="set(each, $event, false)" />
        <SliderField
          :value="turn"
          :label="named('turn').called"
          :hint="named('turn').means"
          :least="-90"
          :most="90"
          :step="1"
          :text="`${turn}°`"
          @live="put({ turn: $event }, true)"
          @commit="put({ turn: $event }, false)" />
      </div>
      <div class="column">
        <div class="buttons tight" role="group" aria-label="What it blurs">
          <button
            v-for="each in COVERS"
            :key="each.covers"
            :class="{ on: chosen.covers === each.covers }"
            :aria-pressed="chosen.covers === each.covers"
            :title="each.hint"
            :data-test="`covers-${each.covers}`"
            @click="cover(each.covers, each.name)">
            {{ each.name }}
          </button>
        </div>
        <v-checkbox
          :model-value="chosen.outside"
          label="Outside of it"
          density="compact"
          hide-details
          title="Blurs what lies outside of it"
          data-test="shape-outside"
          @update:model-value="shapes.change($event ? 'Outside of it' : 'Inside of it', { outside: !!$event })" />
      </div>
      <div v-if="chosen.covers !== 'everything'" class="column sliders">
        <SliderField
          v-for="each in DEPTH"
          :key="each.key"
          v-bind="field(each, chosen)"
          @live="set(each, $event, true)"
          @commit="set(each, $event, false)" />
        <v-btn
          size="small"
          title="Its depth becomes that of what lies in its middle"
          data-test="depth-here"
          @click="depthHere">
          Depth of its middle
        </v-btn>
      </div>
      <div v-if="bench.clip" class="column">
        <label class="row small">
          moves with
          <select
            :value="chosen.follow"
            title="It moves along with a point that is followed"
            data-test="shape-follow"
            @change="shapes.tie(($event.target as HTMLSelectElement).value)">
            <option value="">nothing</option>
            <option v-for="each in follows.all" :key="each.id" :value="each.id">{{ each.name }}</option>
          </select>
        </label>
        <div class="row">
          <v-btn
            size="small"
            :active="shapes.markedHere"
            title="A mark of where it lies at this moment; between marks it goes smoothly from one to the other"
            data-test="shape-mark"
            @click="shapes.toggleMark">
            {{ shapes.markedHere ? 'Marked here' : 'Mark here' }}
          </v-btn>
          <span v-if="chosen.marks.length" class="quiet small">{{ chosen.marks.length }}</span>
        </div>
        <SpanRow />
      </div>
    </template>
  </div>
</template>

<style scoped>
.deck {
  display: flex;
  gap: 26px;
  align-items: center;
  height: 100%;
}
.column {
  display: grid;
  gap: 6px;
  justify-items: start;
}
.sliders {
  width: 150px;
  justify-items: stretch;
}
.about {
  line-height: 1.5;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 150px;
  max-height: 104px;
  overflow-y: auto;
  border: 1px solid var(--line);
}
.list li {
  display: flex;
  align-items: center;
  gap: 4px;
}
.list li.chosen {
  background: rgba(128, 128, 128, 0.26);
}
.list .name {
  flex: 1;
  text-align: left;
  font-size: 12px;
  padding: 3px 4px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.list li.off .name {
  opacity: 0.5;
}
.row {
  display: flex;
  gap: 6px;
  align-items: center;
}
</style>
