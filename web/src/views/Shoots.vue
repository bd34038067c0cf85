<script setup lang="ts">
import { mdiClose, mdiDeleteOutline, mdiImagePlusOutline, mdiPlus, mdiTrayArrowDown } from '@mdi/js'
import { computed, onMounted, ref, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Problem, Schemas, Shoot } from '../api/client'
import MoreMarker from '../shell/MoreMarker.vue'
import TopBar from '../shell/TopBar.vue'
import BatchDialog from './BatchDialog.vue'
import ShotCard from './ShotCard.vue'
import { nearlyFull } from './accountWords'
import { useAccount } from '../stores/account'
import { useSettings } from '../stores/settings'
import { useShoots } from '../stores/shoots'

const store = useShoots()
const account = useAccount()
const settings = useSettings()
const route = useRoute()
const router = useRouter()
const input = ref<HTMLInputElement>()
const dropping = ref(false)
const naming = ref(false)
const newName = ref('')
const removing = ref<{ title: string; act: () => Promise<void> }>()
const fault = ref('')
const chosenShots = ref<string[]>([])
const delivering = ref(false)
const told = ref('')

const full = computed(() => account.allowance && nearlyFull(account.allowance))
// Nothing is said when it cannot be found out.
const look = (): Promise<unknown> => account.loadAllowance().catch(() => undefined)
onMounted(look)

const current = computed<Shoot | undefined>(() => store.shoots.find((each) => each.id === store.current))
const wanted = computed(() => String(route.params.id ?? ''))
watch(wanted, (id) => {
  chosenShots.value = []
  void store.open(id)
})

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
    await look()
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

function toggle(id: string): void {
  chosenShots.value = chosenShots.value.includes(id)
    ? chosenShots.value.filter((each) => each !== id)
    : [...chosenShots.value, id]
}

/** Also those that have not been looked at yet. */
async function chooseAll(): Promise<void> {
  // A page that cannot be loaded is told by the store; asking for it again and again would not help.
  while (store.moreShots && !store.fault) await store.showMoreShots()
  chosenShots.value = store.shots.map((each) => each.id)
}

function asked(left: Schemas['LeftOut'][]): void {
  delivering.value = false
  chosenShots.value = []
  told.value = left.length
    ? `Under way, without ${left.map((each) => each.name).join(', ')}: see Deliveries.`
    : 'Under way: see Deliveries.'
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
            accept="image/jpeg,image/png,image/tiff,image/webp,image/heic,image/heif,image/avif,.heic,.heif,.avif,.dng,.nef,.cr2,.cr3,.arw,.raf,.orf,.rw2,.pef,video/mp4,video/quicktime,video/webm,video/x-matroska,.mkv,.mov,.m4v"
            data-test="files"
            @change="chosen" />
        </div>
        <div v-if="chosenShots.length" class="once" role="group" aria-label="Chosen shots" data-test="chosen">
          <span>{{ chosenShots.length }} chosen</span>
          <v-btn data-test="choose-all" @click="chooseAll">All of this shoot</v-btn>
          <v-btn @click="chosenShots = []">None</v-btn>
          <v-btn class="lead" :prepend-icon="mdiTrayArrowDown" data-test="deliver-chosen" @click="delivering = true">
            Deliver…
          </v-btn>
        </div>
        <p v-else-if="told" class="once" role="status">
          <span>{{ told }}</span>
          <v-btn @click="told = ''">Understood</v-btn>
        </p>
        <p v-if="settings.sayNoNetwork" class="once" role="status" data-test="no-network">
          <span>
            The depth networks are missing, so depth comes from the layout of the picture. Settings says more.
          </span>
          <v-btn @click="settings.understood">Understood</v-btn>
        </p>
        <p v-if="full" class="quiet" role="status" data-test="nearly-full">{{ full }}</p>
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
          <ShotCard
            v-for="shot in store.shots"
            :key="shot.id"
            :shot="shot"
            :chosen="chosenShots.includes(shot.id)"
            :choosing="chosenShots.length > 0"
            @toggle="toggle(shot.id)"
            @replace="(file) => attempt(() => store.replaceSource(shot.id, file))"
            @remove="
              removing = {
                title: `Delete “${shot.name}” with its versions and deliveries?`,
                act: () => store.removeShot(shot.id),
              }
            " />
          <MoreMarker v-if="store.moreShots" :key="store.shots.length" @near="store.showMoreShots" />
        </div>
        <div v-else-if="!store.loading" class="empty">
          <p>Drop photos and clips anywhere on this page.</p>
          <p class="quiet">
            JPEG, PNG, TIFF, WebP, HEIF, AVIF or a camera's raw file, up to 120 megapixels and 200 MB each; MP4, MOV,
            MKV or WebM, up to five minutes and 4 GB. They stay with this installation.
          </p>
        </div>
      </main>
    </div>
    <div v-if="dropping" class="drop" @dragleave="dropping = false">
      <span>Drop to bring them into {{ current?.name ?? 'a new shoot' }}</span>
    </div>
    <BatchDialog v-if="delivering" :shots="chosenShots" @close="delivering = false" @done="asked" />
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
  margin-bottom: 14px;
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
