<script setup lang="ts">
import { mdiCheck, mdiDeleteOutline, mdiFileReplaceOutline, mdiFilmstrip } from '@mdi/js'
import { onBeforeUnmount, ref } from 'vue'
import { api, type Shot } from '../api/client'
import { makeReady } from '../bench/picture/ready'
import { timeText } from '../bench/time/strip'

/** A shot of a shoot: opened by a click, chosen by its corner. */
const { shot } = defineProps<{ shot: Shot; chosen: boolean; choosing: boolean }>()
const emit = defineEmits<{ toggle: []; remove: []; replace: [file: File] }>()
const input = ref<HTMLInputElement>()
/** Somebody who rests on a shot as long, in milliseconds, will probably open it. */
const RESTED = 80
let resting: ReturnType<typeof setTimeout> | undefined

function rest(): void {
  clearTimeout(resting)
  if (!shot.clip) resting = setTimeout(() => void makeReady(shot), RESTED)
}

function leave(): void {
  clearTimeout(resting)
}
onBeforeUnmount(leave)

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

function taken(event: Event): void {
  const element = event.target as HTMLInputElement
  const file = element.files?.[0]
  element.value = ''
  if (file) emit('replace', file)
}
</script>

<template>
  <article
    class="shot"
    :class="{ choosing }"
    :data-state="shot.state"
    data-test="shot"
    @pointerenter="rest"
    @pointerleave="leave"
    @focusin="rest"
    @focusout="leave">
    <router-link :to="`/bench/${shot.id}`" :aria-label="`Open ${shot.name} on the Bench`">
      <img v-if="!shot.clip || shot.clip.frames" :src="api.thumbnail(shot.id, shot.picture)" alt="" loading="lazy" />
      <v-icon v-if="shot.clip" class="moving" :icon="mdiFilmstrip" size="16" />
      <v-progress-linear
        v-if="['waiting', 'reading', 'estimating'].includes(shot.state)"
        :model-value="shot.progress * 100"
        :indeterminate="shot.state === 'waiting'"
        color="primary"
        height="2" />
    </router-link>
    <button
      class="choose"
      role="checkbox"
      :aria-checked="chosen"
      :aria-label="`Choose ${shot.name}`"
      title="Choose, to deliver several at once"
      data-test="choose"
      @click="emit('toggle')">
      <v-icon v-if="chosen" :icon="mdiCheck" size="15" />
    </button>
    <div class="caption">
      <router-link class="name" :to="`/bench/${shot.id}`" :title="shot.name" tabindex="-1" data-test="shot-name">
        {{ shot.name }}
      </router-link>
      <span class="does">
        <v-btn
          v-if="!shot.clip"
          :icon="mdiFileReplaceOutline"
          :aria-label="`Replace ${shot.name} by a retouched file`"
          title="Replace by a retouched file of the same shape; depth, touch-ups and versions stay"
          @click="input?.click()" />
        <v-btn
          :icon="mdiDeleteOutline"
          :aria-label="`Delete ${shot.name}`"
          title="Delete this shot"
          @click="emit('remove')" />
      </span>
      <input
        ref="input"
        type="file"
        hidden
        accept="image/jpeg,image/png,image/tiff,image/webp,image/heic,image/heif,image/avif,.heic,.heif,.avif,.dng,.nef,.cr2,.cr3,.arw,.raf,.orf,.rw2,.pef"
        data-test="replacement"
        @change="taken" />
    </div>
    <span class="quiet small" :class="{ fault: shot.state === 'failed' }">{{ stateText(shot) }}</span>
  </article>
</template>

<style scoped>
.shot {
  position: relative;
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
.does {
  display: flex;
}
.does > .v-btn,
.choose {
  opacity: 0;
}
.shot:hover .does > .v-btn,
.does > .v-btn:focus-visible,
.shot:hover .choose,
.choosing .choose,
.choose:focus-visible {
  opacity: 1;
}
.choose {
  position: absolute;
  top: 7px;
  right: 7px;
  width: 22px;
  height: 22px;
  display: grid;
  place-content: center;
  background: rgba(20, 20, 20, 0.75);
  border: 1px solid #bbb;
  border-radius: 3px;
  color: #eee;
}
.choose[aria-checked='true'] {
  background: var(--accent);
  border-color: var(--accent);
  color: #111;
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  min-width: 0;
}
</style>
