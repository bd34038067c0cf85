<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import { useBench } from '../../stores/bench'
import { useInspector } from '../../stores/inspector'
import { useLadder } from '../../stores/ladder'
import { useTouchups } from '../../stores/touchups'
import FaultFrame from '../inspect/FaultFrame.vue'
import InspectorBar from '../inspect/InspectorBar.vue'
import PaintLayer from '../paint/PaintLayer.vue'
import PickLayer from '../paint/PickLayer.vue'
import PlayLayer from '../time/PlayLayer.vue'
import { useAiming } from './aiming'
import FollowLayer from './FollowLayer.vue'
import LadderLayer from './LadderLayer.vue'
import LoupeView from './LoupeView.vue'
import MiniMap from './MiniMap.vue'
import PaneTags from './PaneTags.vue'
import ShapeLayer from './ShapeLayer.vue'
import SplitHandle from './SplitHandle.vue'
import { useStageDrawing } from './stageDrawing'
import { useStageView } from './stageView'
import ThingOutlines from './ThingOutlines.vue'
import ZoomCorner from './ZoomCorner.vue'

const bench = useBench()
const touchups = useTouchups()
const ladder = useLadder()
const inspector = useInspector()
const root = ref<HTMLDivElement>()
const canvas = ref<HTMLCanvasElement>()
const overlayCanvas = ref<HTMLCanvasElement>()

const view = useStageView(root)
const { stage, viewport, fitted, picture, panes, rows, pane, originOf, refit, centreOn } = view
const { dragging, patch, aim, aimStyle, pointer, wheel, down, splitDown, move, up, calledOff, key } = useAiming(
  root,
  view,
)
useStageDrawing(canvas, overlayCanvas, view)

const alone = computed(() => panes.value.length === 1)

function fullSize(): void {
  view.fullSize(aim.value ?? bench.hovered)
}

/** A probable fault is shown at 100 %. */
watch(
  () => inspector.current,
  (fault) => {
    if (fault) centreOn({ x: fault.left + fault.width / 2, y: fault.top + fault.height / 2 }, 1 / devicePixelRatio)
  },
)

/** The other versions are drawn anew when they, the choice of them, or the room for each has changed. */
const comparison = computed(() =>
  bench.compare === 'versions'
    ? JSON.stringify([
        pane.value,
        bench.version?.id,
        bench.versions.filter((each) => bench.compared.includes(each.id)).map((each) => [each.id, each.position]),
      ])
    : '',
)
watch(
  comparison,
  (now) =>
    now && void bench.compareVersions(bench.compared, Math.max(pane.value.width, pane.value.height) * devicePixelRatio),
)

defineExpose({ refit, fullSize })
</script>

<template>
  <div
    ref="root"
    class="stage"
    :class="[dragging, { aim: bench.step === 'focus' }]"
    data-test="stage"
    tabindex="0"
    role="application"
    aria-label="The picture. Arrow keys aim, Enter focuses there, plus and minus zoom."
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="calledOff"
    @pointerleave="bench.hovered = undefined"
    @wheel.prevent="wheel"
    @dblclick="fitted ? fullSize() : refit()"
    @keydown="key">
    <canvas ref="canvas" />
    <PlayLayer v-if="bench.playing" :viewport="viewport" :picture="picture" />
    <canvas ref="overlayCanvas" class="overlay" />
    <ThingOutlines v-if="bench.step === 'focus' && alone && !bench.holding" :viewport="viewport" :picture="picture" />
    <div
      v-if="patch"
      class="patch"
      :style="{ left: `${patch.x}px`, top: `${patch.y}px`, width: `${patch.width}px`, height: `${patch.height}px` }" />
    <PaintLayer
      v-if="bench.step === 'touchup' && alone && bench.recipe"
      :viewport="viewport"
      :picture="picture"
      :stage="stage" />
    <PickLayer
      v-if="bench.step === 'touchup' && alone && bench.recipe && touchups.tool !== 'brush' && !touchups.picking"
      :viewport="viewport"
      :picture="picture" />
    <FollowLayer
      v-if="bench.step === 'focus' && bench.clip && alone && bench.recipe && !bench.playing"
      :viewport="viewport"
      :picture="picture" />
    <LadderLayer
      v-if="bench.step === 'depth' && ladder.open && alone && bench.recipe && !bench.playing && !bench.holding"
      :viewport="viewport"
      :picture="picture" />
    <ShapeLayer
      v-if="bench.step === 'shapes' && alone && bench.recipe && !bench.playing && !bench.holding"
      :viewport="viewport"
      :picture="picture" />
    <FaultFrame v-if="inspector.current && alone" :fault="inspector.current" :viewport="viewport" :picture="picture" />
    <InspectorBar v-if="inspector.open" />
    <div v-if="aim" class="cross" :style="aimStyle" />
    <SplitHandle v-if="bench.split && !bench.holding" :viewport="viewport" :picture="picture" @grab="splitDown" />
    <PaneTags v-if="!alone || bench.holding" :panes="panes" :pane="pane" :rows="rows" :origin-of="originOf" />
    <LoupeView v-if="bench.loupe && bench.hovered && !dragging" :pointer="pointer" :stage="stage" />
    <MiniMap v-if="!fitted && (bench.seen.width < 0.98 || bench.seen.height < 0.98)" class="mini" @centre="centreOn" />
    <ZoomCorner :scale="viewport.scale" :fitted="fitted" @fit="refit" @full="fullSize" />
  </div>
</template>

<style scoped>
.stage {
  position: relative;
  overflow: hidden;
  background: var(--well);
  touch-action: none;
  cursor: grab;
  min-width: 0;
  min-height: 0;
}
.stage.aim {
  cursor: crosshair;
}
.stage.pan {
  cursor: grabbing;
}
canvas {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.overlay {
  pointer-events: none;
}
.patch {
  position: absolute;
  border: 1px solid #fff;
  box-shadow: 0 0 0 1px rgba(0, 0, 0, 0.6);
  pointer-events: none;
}
.cross {
  position: absolute;
  width: 19px;
  height: 19px;
  margin: -9px 0 0 -9px;
  pointer-events: none;
  background:
    linear-gradient(#fff, #fff) center / 1px 100% no-repeat,
    linear-gradient(#fff, #fff) center / 100% 1px no-repeat;
  filter: drop-shadow(0 0 1px #000);
}
.mini {
  position: absolute;
  left: 10px;
  bottom: 8px;
}
</style>
