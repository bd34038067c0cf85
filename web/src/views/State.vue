<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core'
import { computed, onMounted } from 'vue'
import TopBar from '../shell/TopBar.vue'
import { useInstallation } from '../stores/installation'
import { bytesText, countText } from '../editing/amounts'
import { nodeProblem, quietText, urgencyNames } from './stateWords'

const LOOK_AGAIN = 5000

const installation = useInstallation()
const state = computed(() => installation.state)
const time = new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short' })

onMounted(installation.load)
useIntervalFn(() => {
  if (document.visibilityState === 'visible') void installation.load()
}, LOOK_AGAIN)
</script>

<template>
  <div class="page">
    <TopBar />
    <main class="scroll">
      <h1>State</h1>
      <p v-if="installation.fault" class="fault" role="alert">{{ installation.fault }}</p>
      <template v-if="state">
        <p class="quiet" data-test="store">
          Accounts: {{ countText(state.store.accounts) }}; here in the last quarter of an hour:
          {{ countText(state.people) }}. Photos and clips: {{ countText(state.store.shots) }} with
          {{ bytesText(state.store.bytes) }}; deliveries: {{ countText(state.store.deliveries) }} with
          {{ bytesText(state.store.deliveryBytes) }}.
        </p>
        <section aria-labelledby="nodes">
          <h2 id="nodes">Nodes</h2>
          <table class="listing">
            <thead>
              <tr>
                <th>Name</th>
                <th>Does</th>
                <th>Version</th>
                <th>Since</th>
                <th>Last seen</th>
                <th class="wide">State</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="each in state.nodes" :key="each.name" data-test="node" :data-state="each.state">
                <td>{{ each.name }}</td>
                <td>{{ { all: 'pages and work', web: 'pages', work: 'work' }[each.role] ?? each.role }}</td>
                <td class="quiet">{{ each.version || 'unknown' }}</td>
                <td class="quiet">{{ time.format(new Date(each.started)) }}</td>
                <td class="quiet">{{ quietText(each.quiet) }}</td>
                <td :class="{ fault: nodeProblem(each) }">{{ nodeProblem(each) || each.state }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section aria-labelledby="queue">
          <h2 id="queue">What waits</h2>
          <p v-if="!state.queue.length" class="quiet">Nothing waits and nothing is being made.</p>
          <table v-else class="listing">
            <thead>
              <tr>
                <th>Work</th>
                <th class="number">Being made</th>
                <th class="number">Waits</th>
                <th class="number">Comes again later</th>
                <th class="wide">Longest wait</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="each in state.queue" :key="each.urgency" data-test="queue">
                <td>{{ urgencyNames[each.urgency] ?? each.urgency }}</td>
                <td class="number">{{ each.working }}</td>
                <td class="number">{{ each.waiting }}</td>
                <td class="number">{{ each.later }}</td>
                <td class="quiet">{{ each.waiting ? quietText(each.oldest) : '' }}</td>
              </tr>
            </tbody>
          </table>
        </section>
        <section aria-labelledby="failures">
          <h2 id="failures">What failed in the last day</h2>
          <p v-if="!state.failures.length" class="quiet">Nothing.</p>
          <table v-else class="listing">
            <thead>
              <tr>
                <th>When</th>
                <th>Account</th>
                <th>What</th>
                <th class="wide">Why</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(each, index) in state.failures" :key="index" data-test="failure">
                <td class="quiet">{{ time.format(new Date(each.when)) }}</td>
                <td>{{ each.account }}</td>
                <td>{{ each.kind }}</td>
                <td>{{ each.problem }}</td>
              </tr>
            </tbody>
          </table>
        </section>
      </template>
    </main>
  </div>
</template>

<style scoped>
main {
  padding: 16px 22px;
  display: grid;
  gap: 18px;
  align-content: start;
}
section {
  display: grid;
  gap: 6px;
}
h2 {
  font-size: 14px;
  font-weight: 600;
}
.number {
  text-align: right;
}
.wide {
  width: 40%;
}
</style>
