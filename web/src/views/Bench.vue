<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue'
import { useRoute } from 'vue-router'
import BenchTools from '../bench/BenchTools.vue'
import AtmosphereDeck from '../bench/decks/AtmosphereDeck.vue'
import DeliverDeck from '../bench/decks/DeliverDeck.vue'
import DepthDeck from '../bench/decks/DepthDeck.vue'
import FocusDeck from '../bench/decks/FocusDeck.vue'
import GuidanceNotes from '../bench/decks/GuidanceNotes.vue'
import { touring } from '../bench/decks/hints'
import LensDeck from '../bench/decks/LensDeck.vue'
import ShapesDeck from '../bench/decks/ShapesDeck.vue'
import TouchupDeck from '../bench/decks/TouchupDeck.vue'
import { useBenchKeys } from '../bench/keys/benchKeys'
import ShortcutSheet from '../bench/keys/ShortcutSheet.vue'
import LookStrip from '../bench/LookStrip.vue'
import PictureStage from '../bench/picture/PictureStage.vue'
import { useReadying } from '../bench/picture/ready'
import PlanView from '../bench/plan/PlanView.vue'
import ShotBanner from '../bench/ShotBanner.vue'
import StepRail from '../bench/StepRail.vue'
import TimeStrip from '../bench/time/TimeStrip.vue'
import TourCard from '../bench/TourCard.vue'
import CopyDialog from '../bench/versions/CopyDialog.vue'
import TopBar from '../shell/TopBar.vue'
import { useBench } from '../stores/bench'

const bench = useBench()
const route = useRoute()
const stage = ref<InstanceType<typeof PictureStage>>()
const sheet = ref(false)
const copying = ref(false)

useReadying()
useBenchKeys({ stage, away: () => sheet.value || copying.value, askForKeys: () => (sheet.value = true) })

watch(
  () => route.params.id,
  (id) => typeof id === 'string' && void bench.open(id),
  { immediate: true },
)
onBeforeUnmount(bench.close)
</script>

<template>
  <div class="page" :data-saving="bench.savingState">
    <TopBar>
      <BenchTools @copy="copying = true" @keys="sheet = true" />
    </TopBar>

    <div v-if="bench.fault" class="gone">
      <p class="fault" role="alert">{{ bench.fault }}</p>
      <router-link to="/shoots">Back to the shoots</router-link>
    </div>
    <div v-else class="bench">
      <StepRail class="rail" />

      <div class="middle">
        <LookStrip />
        <div class="picture">
          <PictureStage ref="stage" class="fill" />
          <GuidanceNotes v-if="bench.recipe && !bench.holding && bench.compare === 'none'" />
          <ShotBanner />
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
}
.middle {
  grid-area: middle;
  display: grid;
  grid-template-rows: 34px minmax(0, 1fr) auto;
  min-width: 0;
}
.picture {
  position: relative;
  min-height: 0;
}
.fill {
  position: absolute;
  inset: 0;
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
