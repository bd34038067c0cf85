<script setup lang="ts">
import {
  mdiArrowLeft,
  mdiBrush,
  mdiCircleSlice8,
  mdiImageFilterCenterFocus,
  mdiKeyboardOutline,
  mdiRedo,
  mdiShapeOutline,
  mdiTerrain,
  mdiTrayArrowDown,
  mdiWeatherFog,
  mdiUndo,
} from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import TourCard from '../bench/TourCard.vue'
import { touring } from '../bench/decks/hints'
import CopyDialog from '../bench/versions/CopyDialog.vue'
import DeliverDeck from '../bench/decks/DeliverDeck.vue'
import DepthDeck from '../bench/decks/DepthDeck.vue'
import type { DepthView } from '../editing/depthViews'
import FocusDeck from '../bench/decks/FocusDeck.vue'
import GuidanceNotes from '../bench/decks/GuidanceNotes.vue'
import HistoryMenu from '../bench/versions/HistoryMenu.vue'
import AtmosphereDeck from '../bench/decks/AtmosphereDeck.vue'
import LensDeck from '../bench/decks/LensDeck.vue'
import type { Compare } from '../editing/pictures'
import PictureStage from '../bench/picture/PictureStage.vue'
import { useReadying } from '../bench/picture/ready'
import PlanView from '../bench/plan/PlanView.vue'
import ShapesDeck from '../bench/decks/ShapesDeck.vue'
import ShortcutSheet from '../bench/keys/ShortcutSheet.vue'
import TimeStrip from '../bench/time/TimeStrip.vue'
import TouchupDeck from '../bench/decks/TouchupDeck.vue'
import VersionsMenu from '../bench/versions/VersionsMenu.vue'
import TopBar from '../shell/TopBar.vue'
import { useBench, type Step } from '../stores/bench'
import { useFollows } from '../stores/follows'
import { useTimeline } from '../stores/timeline'

const bench = useBench()
const timeline = useTimeline()
const follows = useFollows()
const route = useRoute()
const stage = ref<InstanceType<typeof PictureStage>>()
const sheet = ref(false)
const copying = ref(false)

useReadying()

const steps: { key: Step; name: string; icon: string; hint: string }[] = [
  { key: 'depth', name: 'Depth', icon: mdiTerrain, hint: 'Where depth comes from, and whether it is right' },
  { key: 'focus', name: 'Focus', icon: mdiImageFilterCenterFocus, hint: 'What is sharp' },
  { key: 'touchup', name: 'Touch-up', icon: mdiBrush, hint: 'What is still wrong, painted right' },
  { key: 'lens', name: 'Lens', icon: mdiCircleSlice8, hint: 'How the rest is blurred' },
  { key: 'shapes', name: 'Shapes', icon: mdiShapeOutline, hint: 'Blur that is placed, besides the depth' },
  { key: 'atmosphere', name: 'Atmosphere', icon: mdiWeatherFog, hint: 'Mist, the tone of what is blurred, grain' },
  { key: 'deliver', name: 'Deliver', icon: mdiTrayArrowDown, hint: 'The finished picture' },
]
const views: { key: DepthView; name: string; hint: string }[] = [
  { key: 'photo', name: 'Photo', hint: 'The result' },
  { key: 'zones', name: 'Zones', hint: 'In front of the band orange, behind it blue, stronger where more blurred' },
  {
    key: 'contours',
    name: 'Contours',
    hint: 'A line for every twentieth of the depth: orange in front of the band, green in it, blue behind',
  },
  { key: 'grey', name: 'Grey', hint: 'The depth map, white is near' },
  {
    key: 'check',
    name: 'Focus check',
    hint: 'Edges that are sharp in the photo itself light up: nothing can make sharp what the lens left soft',
  },
]

const stateText = computed(() => {
  switch (bench.previewState) {
    case 'draft':
      return 'draft'
    case 'refining':
      return 'refining'
    case 'final':
      return `final, ${bench.previewMs} ms`
    case 'failed':
      return 'preview failed'
    default:
      return ''
  }
})
/** What is being done to the depth that is already in use. */
const working = computed(() => {
  const shot = bench.shot
  if (!shot || !bench.recipe || shot.state === 'failed') return ''
  if (shot.state === 'ready') return shot.problem ?? ''
  return `${shot.state === 'refining' ? 'finer matte' : 'estimating'} ${Math.round(shot.progress * 100)} %`
})
const stepName = (position: number): string =>
  bench.version?.history.find((each) => each.position === position)?.name ?? ''

function nextView(by: number): void {
  const at = views.findIndex((each) => each.key === bench.view)
  bench.view = views[(at + by + views.length) % views.length]?.key ?? 'photo'
}

/** Split upright, then level, then off. */
function nextSplit(): void {
  if (!bench.split) {
    bench.compare = 'split'
    bench.splitLevel = false
  } else if (!bench.splitLevel) bench.splitLevel = true
  else bench.compare = 'none'
}

function toggleCompare(kind: Compare): void {
  bench.compare = bench.compare === kind ? 'none' : kind
}

function typing(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement
  return target.tagName === 'INPUT' || target.tagName === 'SELECT' || target.tagName === 'TEXTAREA'
}

/** Keys that move in time, as editors are used to. */
function timeKey(event: KeyboardEvent, key: string, command: boolean): boolean {
  const on = event.target as HTMLElement
  const elsewhere = event.defaultPrevented || on.closest('[role=application], [role=slider], .plan') !== null
  const far = event.shiftKey ? 10 : 1
  if (key === 'arrowleft' || key === 'arrowright') {
    if (elsewhere) return false
    const by = key === 'arrowleft' ? -1 : 1
    if (command) timeline.jump(by)
    else bench.turnTo(bench.frame + by * far)
    return true
  }
  if (command) return false
  if (key === ' ' && on.tagName !== 'BUTTON') timeline.toggle()
  else if (key === 'k') timeline.stop()
  else if (key === 'l' && !elsewhere)
    timeline.play(bench.playing && timeline.rate > 0 ? Math.min(4, timeline.rate * 2) : 1)
  else if (key === 'j') timeline.play(bench.playing && timeline.rate < 0 ? Math.max(-4, timeline.rate * 2) : -1)
  else if (key === 'i' && event.shiftKey) timeline.setOut()
  else if (key === 'i') timeline.setIn()
  else if (key === 'r') void timeline.render()
  else if (key === 'home') bench.turnTo(timeline.from)
  else if (key === 'end') bench.turnTo(timeline.end - 1)
  else if ((key === 'delete' || key === 'backspace') && timeline.chosen.length) timeline.removeChosen()
  else return false
  return true
}

function keydown(event: KeyboardEvent): void {
  const command = event.ctrlKey || event.metaKey
  const key = event.key.toLowerCase()
  if (command && key === 'z') {
    event.preventDefault()
    if (event.shiftKey ? bench.canRedo : bench.canUndo) void (event.shiftKey ? bench.redo() : bench.undo())
  }
  if (!event.altKey && !typing(event) && !sheet.value && !copying.value && bench.clip && timeKey(event, key, command))
    return event.preventDefault()
  if (command || event.altKey || typing(event) || sheet.value || copying.value) return
  const step = steps[['f1', 'f2', 'f3', 'f4', 'f5', 'f6', 'f7'].indexOf(key)]
  if (step) {
    event.preventDefault()
    bench.step = step.key
  } else if (key === 'o') bench.holding = true
  else if (key === 's') nextSplit()
  else if (key === 'b') toggleCompare('beside')
  else if (key === 'g') bench.loupe = !bench.loupe
  else if (key === 'v') nextView(event.shiftKey ? -1 : 1)
  else if (key === 'c') bench.view = bench.view === 'check' ? 'photo' : 'check'
  else if (key === '?') sheet.value = true
  else if (key === 'h') document.querySelector<HTMLElement>('[data-test=history]')?.click()
  else if (key === 'n') void bench.focusOnThing(bench.thing + (event.shiftKey ? -1 : 1))
  else if (key === 'm') void bench.focusOn({ kind: 'subject' }, 'Main subject')
  else if (key === 'e' && bench.clip && bench.step === 'focus') void follows.addEye()
  else if (key === '0') stage.value?.refit()
  else if (key === '1') stage.value?.fullSize()
}

function keyup(event: KeyboardEvent): void {
  if (event.key.toLowerCase() === 'o') bench.holding = false
}

watch(
  () => route.params.id,
  (id) => typeof id === 'string' && void bench.open(id),
  { immediate: true },
)
useEventListener(window, 'keydown', keydown)
useEventListener(window, 'keyup', keyup)
onBeforeUnmount(bench.close)
</script>

<template>
  <div class="page" :data-saving="bench.savingState">
    <TopBar>
      <div class="tools">
        <router-link
          :to="bench.shot ? `/shoots/${bench.shot.shootId}` : '/shoots'"
          class="name"
          :title="bench.shot?.name">
          <v-icon :icon="mdiArrowLeft" size="14" />
          {{ bench.shot?.name }}
        </router-link>
        <VersionsMenu @copy="copying = true" />
        <span class="rule" />
        <HistoryMenu />
        <v-btn
          :icon="mdiUndo"
          :disabled="!bench.canUndo"
          :title="`Undo ${stepName(bench.version?.position ?? 0)} (Ctrl Z)`"
          aria-label="Undo"
          data-test="undo"
          @click="bench.undo" />
        <v-btn
          :icon="mdiRedo"
          :disabled="!bench.canRedo"
          title="Redo (Ctrl Shift Z)"
          aria-label="Redo"
          data-test="redo"
          @click="bench.redo" />
        <span class="rule" />
        <v-btn
          :icon="mdiKeyboardOutline"
          title="What the keys do (?)"
          aria-label="What the keys do"
          data-test="keys"
          @click="sheet = true" />
      </div>
    </TopBar>

    <div v-if="bench.fault" class="gone">
      <p class="fault" role="alert">{{ bench.fault }}</p>
      <router-link to="/shoots">Back to the shoots</router-link>
    </div>
    <div v-else class="bench">
      <nav class="rail" aria-label="Steps">
        <button
          v-for="each in steps"
          :key="each.key"
          :class="{ open: bench.step === each.key }"
          :aria-current="bench.step === each.key ? 'step' : undefined"
          :title="each.hint"
          :data-test="`step-${each.key}`"
          @click="bench.step = each.key">
          <v-icon :icon="each.icon" size="20" />
          <span>{{ each.name }}</span>
        </button>
      </nav>

      <div class="middle">
        <div class="strip">
          <div class="buttons" role="group" aria-label="View">
            <button
              v-for="each in views"
              :key="each.key"
              :class="{ on: bench.view === each.key }"
              :aria-pressed="bench.view === each.key"
              :title="`${each.hint} (V)`"
              :data-test="`view-${each.key}`"
              @click="bench.view = each.key">
              {{ each.name }}
            </button>
          </div>
          <div class="buttons" role="group" aria-label="Compare">
            <button
              :class="{ on: bench.holding }"
              title="The untouched photo while held (O)"
              data-test="hold"
              @keydown.space.prevent="bench.holding = true"
              @keyup.space="bench.holding = false"
              @blur="bench.holding = false"
              @pointerdown="bench.holding = true"
              @pointerup="bench.holding = false"
              @pointerleave="bench.holding = false">
              Original
            </button>
            <button
              :class="{ on: bench.split }"
              :aria-pressed="bench.split"
              title="Original and result in one picture, upright, then level, then off (S)"
              data-test="split"
              @click="nextSplit">
              Split
            </button>
            <button
              :class="{ on: bench.compare === 'beside' }"
              :aria-pressed="bench.compare === 'beside'"
              title="The original beside the result, zoomed together (B)"
              data-test="beside"
              @click="toggleCompare('beside')">
              Beside
            </button>
            <button
              :class="{ on: bench.loupe }"
              :aria-pressed="bench.loupe"
              title="Original and result at 100 % around the pointer (G)"
              data-test="loupe-toggle"
              @click="bench.loupe = !bench.loupe">
              Loupe
            </button>
          </div>
          <div v-if="bench.view === 'zones' || bench.view === 'contours'" class="legend small">
            <i class="near" />
            in front
            <i :class="bench.view === 'zones' ? 'in' : 'band'" />
            sharp
            <i class="far" />
            behind
          </div>
          <div v-else-if="bench.view === 'grey'" class="legend small">
            far
            <i class="ramp" />
            near
          </div>
          <div v-else-if="bench.view === 'check'" class="legend small">
            <i class="band" />
            sharp in the photo
          </div>
          <span class="spring" />
          <span v-if="working" class="quiet small working" role="status" data-test="depth-state">{{ working }}</span>
          <span v-if="bench.shot?.notice" class="small notice" :title="bench.shot.notice">{{ bench.shot.notice }}</span>
          <span v-if="bench.notice" class="fault small notice" role="alert" :title="bench.notice">
            {{ bench.notice }}
          </span>
          <span class="quiet small" data-test="preview-state" :data-state="bench.previewState" role="status">
            {{ stateText }}
          </span>
        </div>
        <div class="picture">
          <PictureStage ref="stage" class="fill" />
          <GuidanceNotes v-if="bench.recipe && !bench.holding && bench.compare === 'none'" />
          <div
            v-if="
              bench.savingState === 'offline' || bench.savingState === 'conflict' || bench.savingState === 'refused'
            "
            class="banner"
            role="alert"
            data-test="saving">
            <span>{{ bench.savingMessage }}</span>
            <v-btn v-if="bench.savingState === 'conflict'" @click="bench.loadAgain">Load it again</v-btn>
          </div>
          <div
            v-if="bench.shot && bench.shot.state !== 'ready' && !bench.recipe"
            class="banner"
            :class="{ fault: bench.shot.state === 'failed' }"
            role="status">
            <template v-if="bench.shot.state === 'failed'">
              <span>{{ bench.shot.problem }}</span>
              <v-btn @click="bench.estimateAgain()">Try again</v-btn>
            </template>
            <template v-else>
              <span>{{ bench.shot.clip && !bench.clip ? 'Reading the clip' : 'Finding depth' }}</span>
              <v-progress-linear
                :model-value="bench.shot.progress * 100"
                :indeterminate="bench.shot.state === 'waiting'"
                color="primary"
                height="3" />
            </template>
          </div>
        </div>
        <TimeStrip v-if="bench.clip" />
      </div>

      <PlanView class="plan-room" />

      <section class="deck-room" data-test="deck" :aria-label="`${bench.step} controls`">
        <template v-if="bench.recipe">
          <DepthDeck v-if="bench.step === 'depth'" />
          <FocusDeck v-else-if="bench.step === 'focus'" />
          <TouchupDeck v-else-if="bench.step === 'touchup'" />
          <LensDeck v-else-if="bench.step === 'lens'" />
          <ShapesDeck v-else-if="bench.step === 'shapes'" />
          <AtmosphereDeck v-else-if="bench.step === 'atmosphere'" />
          <DeliverDeck v-else />
        </template>
      </section>
    </div>
    <TourCard v-if="touring && bench.recipe" @step="bench.step = $event" @close="touring = false" />
    <ShortcutSheet v-if="sheet" @close="sheet = false" />
    <CopyDialog v-if="copying" @close="copying = false" />
  </div>
</template>

<style scoped>
.tools {
  display: flex;
  align-items: center;
  gap: 4px;
  min-width: 0;
  padding-left: 12px;
  border-left: 1px solid var(--line);
}
.tools .name {
  color: var(--ink);
  text-decoration: none;
  max-width: 240px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  margin-right: 6px;
}
.rule {
  width: 1px;
  height: 18px;
  background: var(--line);
  margin: 0 4px;
}
.bench {
  display: grid;
  min-height: 0;
  grid-template: 'rail middle plan' minmax(0, 1fr) 'rail deck deck' 168px / 68px minmax(0, 1fr) clamp(
      280px,
      23vw,
      420px
    );
}
.rail {
  grid-area: rail;
  background: var(--panel);
  border-right: 1px solid var(--line);
  display: flex;
  flex-direction: column;
  padding-top: 6px;
}
.rail button {
  display: grid;
  justify-items: center;
  gap: 3px;
  padding: 11px 0 9px;
  color: var(--dim);
  font-size: 11px;
  letter-spacing: -0.01em;
  position: relative;
}
.rail button:hover {
  color: var(--ink);
}
.rail button.open {
  color: var(--ink);
  background: rgba(128, 128, 128, 0.14);
  box-shadow: inset 2px 0 0 var(--accent);
}
.middle {
  grid-area: middle;
  display: grid;
  grid-template-rows: 34px minmax(0, 1fr) auto;
  min-width: 0;
}
.strip {
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 10px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  min-width: 0;
}
.legend {
  display: flex;
  gap: 5px;
  align-items: center;
  color: var(--dim);
  white-space: nowrap;
}
.legend i {
  width: 9px;
  height: 9px;
  border-radius: 1px;
  margin-left: 5px;
}
.legend .near {
  background: #e39a4e;
}
.legend .far {
  background: #4e8ccc;
}
.legend .in {
  border: 1px solid var(--dim);
}
.legend .band {
  background: #8fb996;
}
.legend .ramp {
  width: 44px;
  background: linear-gradient(90deg, #000, #fff);
  border: 1px solid var(--dim);
  margin: 0 5px;
}
.spring {
  flex: 1;
}
.notice {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.picture {
  position: relative;
  min-height: 0;
}
.fill {
  position: absolute;
  inset: 0;
}
.banner {
  position: absolute;
  left: 50%;
  top: 14px;
  transform: translateX(-50%);
  background: var(--panel);
  border: 1px solid var(--strong-line);
  border-radius: 4px;
  padding: 8px 16px;
  display: flex;
  gap: 14px;
  align-items: center;
  min-width: 260px;
  max-width: 90%;
}
.plan-room {
  grid-area: plan;
}
.deck-room {
  grid-area: deck;
  background: var(--panel);
  border-top: 1px solid var(--line);
  padding: 12px 22px;
  min-width: 0;
  overflow: hidden;
}
.gone {
  display: grid;
  place-content: center;
  gap: 10px;
  text-align: center;
}
.gone a {
  color: var(--ink);
}
</style>
