<script setup lang="ts">
import { mdiCheck, mdiChevronDown, mdiDeleteOutline, mdiDownload, mdiPencilOutline, mdiPlus, mdiUpload } from '@mdi/js'
import { ref } from 'vue'
import { api, type Problem, type Version } from '../../api/client'
import { useBench } from '../../stores/bench'

/** The versions of a shot: choose, make, name, remove with a way back, and pick which are compared. */
const MOST_COMPARED = 4
const emit = defineEmits<{ copy: [] }>()
const bench = useBench()
const open = ref(false)
const renaming = ref('')
const typed = ref('')
const input = ref<HTMLInputElement>()
const told = ref('')
const removed = ref<{ id: string; name: string }>()

function use(version: Version): void {
  bench.use(version)
  open.value = false
}

async function add(): Promise<void> {
  const names = bench.versions.map((each) => each.name)
  let number = bench.versions.length + 1
  while (names.includes(`Version ${number}`)) number++
  await bench.duplicate(`Version ${number}`)
}

function copy(): void {
  open.value = false
  emit('copy')
}

function rename(version: Version): void {
  renaming.value = version.id
  typed.value = version.name
}

async function renamed(): Promise<void> {
  const id = renaming.value
  const name = typed.value.trim()
  renaming.value = ''
  if (id && name) await bench.rename(id, name)
}

async function remove(version: Version): Promise<void> {
  await bench.remove(version.id)
  removed.value = { id: version.id, name: version.name }
}

async function bringBack(): Promise<void> {
  const id = removed.value?.id
  removed.value = undefined
  if (id) await bench.bringBack(id)
}

async function load(event: Event): Promise<void> {
  const element = event.target as HTMLInputElement
  const file = element.files?.[0]
  element.value = ''
  if (!file) return
  try {
    told.value = (await bench.takeRecipeFile(file)) ?? ''
  } catch (problem) {
    told.value = (problem as Problem).message
  }
}

function compare(id: string): void {
  const chosen = bench.compared.includes(id)
    ? bench.compared.filter((each) => each !== id)
    : [...bench.compared, id].slice(-MOST_COMPARED)
  bench.compared = chosen
  if (chosen.length > 1) bench.compare = 'versions'
  else if (bench.compare === 'versions') bench.compare = 'none'
}
</script>

<template>
  <v-menu v-model="open" :close-on-content-click="false" location="bottom start">
    <template #activator="{ props }">
      <button
        v-bind="props"
        class="chosen"
        :disabled="!bench.version"
        title="Versions of this shot"
        :aria-label="`Version ${bench.version?.name}`"
        data-test="versions">
        <span>{{ bench.version?.name }}</span>
        <v-icon :icon="mdiChevronDown" size="14" />
      </button>
    </template>
    <div class="sheet">
      <p class="heading head">
        <span>Version</span>
        <span title="Show two to four of them beside each other">compare</span>
      </p>
      <div
        v-for="each in bench.versions"
        :key="each.id"
        class="line"
        :class="{ now: each.id === bench.version?.id }"
        data-test="version">
        <input
          v-if="renaming === each.id"
          v-model="typed"
          maxlength="80"
          aria-label="Name of the version"
          autofocus
          @keydown.enter="renamed"
          @keydown.esc.stop="renaming = ''"
          @blur="renamed" />
        <button v-else class="name" :title="`Work on ${each.name}`" @click="use(each)">{{ each.name }}</button>
        <v-btn
          :icon="mdiPencilOutline"
          size="x-small"
          title="Rename"
          :aria-label="`Rename ${each.name}`"
          @click="rename(each)" />
        <v-btn
          :icon="mdiDeleteOutline"
          size="x-small"
          :disabled="bench.versions.length < 2"
          title="Remove; it can be brought back"
          :aria-label="`Remove ${each.name}`"
          data-test="remove-version"
          @click="remove(each)" />
        <button
          class="tick"
          role="checkbox"
          :aria-checked="bench.compared.includes(each.id)"
          :aria-label="`Compare ${each.name}`"
          data-test="compare-version"
          @click="compare(each.id)">
          <v-icon v-if="bench.compared.includes(each.id)" :icon="mdiCheck" size="13" />
        </button>
      </div>
      <p v-if="removed" class="line back">
        “{{ removed.name }}” removed
        <v-btn data-test="bring-back" @click="bringBack">Bring it back</v-btn>
      </p>
      <div class="foot">
        <v-btn
          :prepend-icon="mdiPlus"
          title="A copy of this version, with the recipe as it is now"
          data-test="new-version"
          @click="add">
          New version from here
        </v-btn>
        <v-btn title="Give parts of this recipe to other shots" data-test="copy-parts" @click="copy">
          Copy to other shots…
        </v-btn>
      </div>
      <div class="foot">
        <v-btn
          :prepend-icon="mdiDownload"
          :href="bench.version ? api.recipeFile(bench.version.id) : ''"
          title="This version's recipe with its masks, for another machine"
          data-test="save-recipe">
          Save recipe
        </v-btn>
        <v-btn
          :prepend-icon="mdiUpload"
          title="A new version from a recipe file"
          data-test="load-recipe"
          @click="input?.click()">
          Load recipe…
        </v-btn>
        <input ref="input" type="file" hidden accept="application/json,.json" data-test="recipe-file" @change="load" />
      </div>
      <p v-if="told" class="line back" role="status">{{ told }}</p>
    </div>
  </v-menu>
</template>

<style scoped>
.chosen {
  display: flex;
  gap: 6px;
  align-items: center;
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--line);
  border-radius: 3px;
  padding: 2px 6px 2px 9px;
  font-size: 12.5px;
  max-width: 170px;
}
.chosen span {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.sheet {
  width: 352px;
  background: var(--panel);
  border: 1px solid var(--strong-line);
  border-radius: 4px;
  padding: 6px 0 4px;
}
.head {
  display: flex;
  justify-content: space-between;
  padding: 0 10px 3px 12px;
  margin: 0;
}
.line {
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 1px 10px 1px 12px;
}
.line.now {
  box-shadow: inset 2px 0 0 var(--accent);
  background: rgba(128, 128, 128, 0.18);
}
.name {
  flex: 1;
  text-align: left;
  color: var(--ink);
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  padding: 4px 0;
}
input {
  flex: 1;
  min-width: 0;
  background: var(--well);
  color: var(--ink);
  border: 1px solid var(--accent);
  border-radius: 3px;
  padding: 2px 6px;
  font: inherit;
}
.tick {
  width: 17px;
  height: 17px;
  border: 1px solid var(--strong-line);
  border-radius: 3px;
  color: var(--ink);
  display: grid;
  place-content: center;
  margin-left: 6px;
}
.tick[aria-checked='true'] {
  border-color: var(--accent);
  color: var(--accent);
}
.back {
  justify-content: space-between;
  margin: 0;
  color: var(--dim);
}
.foot {
  display: flex;
  justify-content: space-between;
  border-top: 1px solid var(--line);
  margin-top: 5px;
  padding: 4px 4px 0;
}
</style>
