<script setup lang="ts">
import { mdiClose, mdiDeleteOutline, mdiFilmstrip, mdiImagePlusOutline, mdiPlus } from '@mdi/js'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type Problem, type Shoot, type Shot } from '../api/client'
import MoreMarker from '../shell/MoreMarker.vue'
import TopBar from '../shell/TopBar.vue'
import { useSettings } from '../stores/settings'
import { timeText } from '../bench/time/strip'
import { useShoots } from '../stores/shoots'

const store = useShoots()
const settings = useSettings()
const route = useRoute()
const router = useRouter()
const input = ref<HTMLInputElement>()
const dropping = ref(false)
const naming = ref(false)
const newName = ref('')
const removing = ref<{ title: string; act: () => Promise<void> }>()
const fault = ref('')

const current = computed<Shoot | undefined>(() => store.shoots.find((each) => each.id === store.current))
const wanted = computed(() => String(route.params.id ?? ''))
watch(wanted, (id) => void store.open(id))

async function attempt(action: () => Promise<unknown>): Promise<void> {
  try {
    await action()
    fault.value = ''
  } catch (problem) {
    fault.value = (problem as Problem).message
  }
}

async function create(): Promise<void> {
  const name = newName.value.trim()
  if (!name) return
  await attempt(async () => {
    const shoot = await store.create(name)
    naming.value = false
    newName.value = ''
    await router.push(`/shoots/${shoot.id}`)
  })
}

async function take(files: File[]): Promise<void> {
  if (files.length === 0) return
  await attempt(async () => {
    const shoot = current.value ?? (await store.create('My photos'))
    await store.bringIn(shoot.id, files)
  })
}

function chosen(event: Event): void {
  const element = event.target as HTMLInputElement
  const files = Array.from(element.files ?? [])
  element.value = ''
  void take(files)
}

function drop(event: DragEvent): void {
  dropping.value = false
  void take(Array.from(event.dataTransfer?.files ?? []))
}

function stateText(shot: Shot): string {
  if (shot.state === 'failed') return shot.problem ?? 'no depth'
  if (shot.state === 'ready' || shot.state === 'refining') return `${shot.width} × ${shot.height}${lengthText(shot)}`
  if (shot.state === 'reading') return `reading, ${Math.round(shot.progress * 100)} %`
  return shot.state === 'waiting' ? 'waiting' : `finding depth, ${Math.round(shot.progress * 100)} %`
}

/** How long a clip is. */
function lengthText(shot: Shot): string {
  const micros = shot.clip?.micros
  return micros ? `, ${timeText(micros)}` : ''
}

async function removeNow(): Promise<void> {
  const wanted = removing.value
  removing.value = undefined
  if (wanted) await attempt(wanted.act)
}

onMounted(() => Promise.all([store.load(wanted.value), settings.load()]))
</script>

<template>
  <div class="page" @dragover.prevent="dropping = true" @drop.prevent="drop">
    <TopBar />
    <div class="rooms">
      <aside class="scroll" aria-label="Shoots">
        <div class="aside-head">
          <h2>Shoots</h2>
          <v-btn :icon="mdiPlus" title="New shoot" aria-label="New shoot" @click="naming = true" />
        </div>
        <form v-if="naming" class="naming" @submit.prevent="create">
          <v-text-field
            v-model="newName"
            label="Name of the shoot"
            autofocus
            maxlength="120"
            @keydown.esc="naming = false" />
        </form>
        <router-link
          v-for="shoot in store.shoots"
          :key="shoot.id"
          :to="`/shoots/${shoot.id}`"
          class="shoot"
          :class="{ current: shoot.id === current?.id }">
          <span class="name">{{ shoot.name }}</span>
          <span class="quiet small">{{ shoot.shots }}</span>
        </router-link>
        <MoreMarker v-if="store.moreShoots" :key="store.shoots.length" @near="store.showMoreShoots" />
      </aside>
      <main class="scroll">
        <div class="main-head">
          <h1>{{ current?.name ?? 'No shoot yet' }}</h1>
          <span class="actions">
            <v-btn
              v-if="current"
              :icon="mdiDeleteOutline"
              title="Delete this shoot"
              aria-label="Delete this shoot"
              @click="
                removing = {
                  title: `Delete “${current.name}” with its ${current.shots} shots?`,
                  act: () => store.remove(current?.id ?? ''),
                }
              " />
            <v-btn class="lead" :prepend-icon="mdiImagePlusOutline" data-test="bring-in" @click="input?.click()">
              Bring photos and clips in
            </v-btn>
          </span>
          <input
            ref="input"
            type="file"
            multiple
            hidden
            accept="image/jpeg,image/png,image/tiff,image/webp,image/heic,image/heif,image/avif,.heic,.heif,.avif,video/mp4,video/quicktime,video/webm,video/x-matroska,.mkv,.mov,.m4v"
            data-test="files"
            @change="chosen" />
        </div>
        <p v-if="settings.sayNoNetwork" class="once" role="status" data-test="no-network">
          <span>
            The depth networks are missing, so depth comes from the layout of the picture. Settings says more.
          </span>
          <v-btn @click="settings.understood">Understood</v-btn>
        </p>
        <p v-if="fault || store.fault" class="fault" role="alert">{{ fault || store.fault }}</p>
        <ul v-if="store.incoming.length" class="incoming" aria-label="Files on their way in">
          <li v-for="row in store.incoming" :key="row.key" :class="{ fault: row.fault }" data-test="incoming">
            <span class="name">{{ row.name }}</span>
            <span v-if="row.fault" role="alert">{{ row.fault }}</span>
            <v-progress-linear
              v-else
              :model-value="row.share * 100"
              :indeterminate="row.share >= 1"
              color="primary"
              height="3"
              :aria-label="`Progress of ${row.name}`" />
            <span v-if="!row.fault" class="quiet small">
              {{ row.share >= 1 ? 'reading' : `${Math.round(row.share * 100)} %` }}
            </span>
            <v-btn
              v-if="row.fault"
              :icon="mdiClose"
              :aria-label="`Dismiss ${row.name}`"
              @click="store.dismiss(row.key)" />
          </li>
        </ul>
        <div v-if="store.shots.length" class="grid">
          <article v-for="shot in store.shots" :key="shot.id" class="shot" :data-state="shot.state" data-test="shot">
            <router-link :to="`/bench/${shot.id}`" :aria-label="`Open ${shot.name} on the Bench`">
              <img
                v-if="!shot.clip || shot.clip.frames"
                :src="`${api.thumbnail(shot.id)}${shot.clip ? '?read' : ''}`"
                alt=""
                loading="lazy" />
              <v-icon v-if="shot.clip" class="moving" :icon="mdiFilmstrip" size="16" />
              <v-progress-linear
                v-if="['waiting', 'reading', 'estimating'].includes(shot.state)"
                :model-value="shot.progress * 100"
                :indeterminate="shot.state === 'waiting'"
                color="primary"
                height="2" />
            </router-link>
            <div class="caption">
              <router-link
                class="name"
                :to="`/bench/${shot.id}`"
                :title="shot.name"
                tabindex="-1"
                data-test="shot-name">
                {{ shot.name }}
              </router-link>
              <v-btn
                class="remove"
                :icon="mdiDeleteOutline"
                :aria-label="`Delete ${shot.name}`"
                title="Delete this shot"
                @click="
                  removing = {
                    title: `Delete “${shot.name}” with its versions and deliveries?`,
                    act: () => store.removeShot(shot.id),
                  }
                " />
            </div>
            <span class="quiet small" :class="{ fault: shot.state === 'failed' }">{{ stateText(shot) }}</span>
          </article>
          <MoreMarker v-if="store.moreShots" :key="store.shots.length" @near="store.showMoreShots" />
        </div>
        <div v-else-if="!store.loading" class="empty">
          <p>Drop photos and clips anywhere on this page.</p>
          <p class="quiet">
            JPEG, PNG, TIFF, WebP, HEIF or AVIF, up to 120 megapixels and 200 MB each; MP4, MOV, MKV or WebM, up to five
            minutes and 4 GB. They stay on this machine.
          </p>
        </div>
      </main>
    </div>
    <div v-if="dropping" class="drop" @dragleave="dropping = false">
      <span>Drop to bring them into {{ current?.name ?? 'a new shoot' }}</span>
    </div>
    <v-dialog :model-value="!!removing" max-width="420" @update:model-value="removing = undefined">
      <div class="ask" role="alertdialog" :aria-label="removing?.title">
        <p>{{ removing?.title }}</p>
        <div>
          <v-btn autofocus @click="removing = undefined">Keep</v-btn>
          <v-btn class="fault" @click="removeNow">Delete</v-btn>
        </div>
      </div>
    </v-dialog>
  </div>
</template>

<style scoped>
.rooms {
  display: grid;
  grid-template-columns: 220px minmax(0, 1fr);
  min-height: 0;
}
aside {
  border-right: 1px solid var(--line);
  padding: 12px 8px;
  background: var(--panel);
}
.aside-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 6px 6px 8px;
}
.naming {
  padding: 4px 6px 10px;
}
.shoot {
  display: flex;
  justify-content: space-between;
  gap: 8px;
  padding: 7px 9px;
  color: var(--ink);
  text-decoration: none;
  border-radius: 3px;
}
.shoot.current {
  background: rgba(128, 128, 128, 0.18);
  box-shadow: inset 2px 0 0 var(--accent);
}
main {
  padding: 16px 22px;
}
.main-head {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-bottom: 14px;
}
.actions {
  display: flex;
  gap: 8px;
  align-items: center;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
.grid {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(250px, 1fr));
  gap: 20px;
}
.shot > a {
  display: block;
  aspect-ratio: 3 / 2;
  background: var(--well);
  border: 1px solid var(--line);
  border-radius: 3px;
  overflow: hidden;
  position: relative;
}
.shot > a:hover {
  border-color: var(--strong-line);
}
.shot .moving {
  position: absolute;
  left: 6px;
  bottom: 6px;
  color: #eee;
  filter: drop-shadow(0 0 2px #000);
}
.shot img {
  width: 100%;
  height: 100%;
  object-fit: contain;
  display: block;
}
.shot .v-progress-linear {
  position: absolute;
  left: 0;
  bottom: 0;
  top: auto !important;
}
.caption .name {
  color: var(--ink);
  text-decoration: none;
}
.caption .name:hover {
  text-decoration: underline;
}
.caption {
  display: flex;
  justify-content: space-between;
  align-items: center;
  margin-top: 4px;
  height: 24px;
}
.remove {
  opacity: 0;
}
.shot:hover .remove,
.remove:focus-visible {
  opacity: 1;
}
.incoming {
  list-style: none;
  margin-bottom: 16px;
  border-top: 1px solid var(--line);
}
.incoming li {
  display: grid;
  grid-template-columns: minmax(120px, 260px) minmax(0, 1fr) auto;
  gap: 14px;
  align-items: center;
  padding: 5px 4px;
  min-height: 34px;
  border-bottom: 1px solid var(--line);
}
.once {
  display: flex;
  gap: 14px;
  align-items: center;
  border: 1px solid var(--strong-line);
  border-radius: 4px;
  padding: 6px 12px;
}
.empty {
  display: grid;
  gap: 6px;
  place-content: center;
  text-align: center;
  height: 60%;
  border: 1px dashed var(--strong-line);
  border-radius: 4px;
}
.drop {
  position: fixed;
  inset: 0;
  z-index: 50;
  display: grid;
  place-content: center;
  background: rgba(20, 20, 20, 0.8);
  color: #eee;
  font-size: 18px;
  border: 3px solid var(--accent);
}
.drop span {
  pointer-events: none;
}
.ask {
  background: var(--panel);
  border: 1px solid var(--strong-line);
  border-radius: 4px;
  padding: 18px 20px;
  display: grid;
  gap: 16px;
}
.ask div {
  display: flex;
  justify-content: flex-end;
  gap: 6px;
}
</style>
