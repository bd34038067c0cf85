<script setup lang="ts">
import { mdiCheck, mdiChevronLeft, mdiChevronRight, mdiClose, mdiSkipNext } from '@mdi/js'
import { useEventListener } from '@vueuse/core'
import { useInspector } from '../../stores/inspector'
import { faultHint, faultName, inspectorText } from '../../editing/faults'

/** Steps through the places that probably need a touch-up. */
const inspector = useInspector()

function keydown(event: KeyboardEvent): void {
  const tag = (event.target as HTMLElement).tagName
  if (tag === 'INPUT' || tag === 'SELECT' || tag === 'TEXTAREA' || event.ctrlKey || event.metaKey || event.altKey)
    return
  if (event.key === '.') inspector.next()
  else if (event.key === ',') inspector.previous()
  else if (event.repeat) return
  else if (event.key === 'a' || event.key === 'A') inspector.accept()
  else if (event.key === 'x' || event.key === 'X') inspector.skip()
}

useEventListener(window, 'keydown', keydown)
</script>

<template>
  <div
    class="bar"
    role="group"
    aria-label="Edge inspector"
    data-test="inspector"
    @pointerdown.stop
    @dblclick.stop
    @wheel.stop>
    <span v-if="inspector.looking" role="status">Looking for probable faults</span>
    <template v-else>
      <span
        class="what"
        :title="
          inspector.current
            ? faultHint(inspector.current.kind)
            : 'Depth that is wrong as a whole, or fades, has no such place: look at the plan and the depth views for that'
        "
        role="status">
        <b v-if="inspector.current" data-test="fault-kind">{{ faultName(inspector.current.kind) }}</b>
        <span class="quiet" data-test="fault-count">
          {{ inspectorText(inspector.faults, inspector.at) }}
          <template v-if="inspector.current?.verdict">, {{ inspector.current.verdict }}</template>
        </span>
      </span>
      <template v-if="inspector.current">
        <v-btn
          :icon="mdiChevronLeft"
          title="The one before (,)"
          aria-label="The fault before"
          data-test="fault-previous"
          @click="inspector.previous" />
        <v-btn
          :icon="mdiChevronRight"
          title="Next (.)"
          aria-label="The next fault"
          data-test="fault-next"
          @click="inspector.next" />
        <v-btn
          :prepend-icon="mdiCheck"
          :disabled="inspector.mended"
          title="Mends it with a touch-up that stays adjustable (A)"
          data-test="fault-accept"
          @click="inspector.accept">
          Mend
        </v-btn>
        <v-btn
          :prepend-icon="mdiSkipNext"
          title="It is right as it is (X)"
          data-test="fault-skip"
          @click="inspector.skip">
          Skip
        </v-btn>
      </template>
    </template>
    <v-btn
      :icon="mdiClose"
      title="Close the inspector"
      aria-label="Close the inspector"
      data-test="inspector-close"
      @click="inspector.stop" />
  </div>
</template>

<style scoped>
.bar {
  position: absolute;
  left: 12px;
  top: 12px;
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 3px 4px 3px 12px;
  border-radius: 3px;
  background: rgba(20, 20, 20, 0.88);
  color: #e6e6e6;
  font-size: 12.5px;
  border: 1px solid rgba(255, 255, 255, 0.16);
}
.what {
  display: flex;
  gap: 10px;
  align-items: baseline;
  padding-right: 8px;
  white-space: nowrap;
}
.what b {
  font-weight: 600;
}
.what .quiet {
  color: #b4b4b4;
  font-variant-numeric: tabular-nums;
}
</style>
