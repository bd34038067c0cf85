<script setup lang="ts">
import { onMounted } from 'vue'
import AccountSettings from './AccountSettings.vue'
import LeavingSettings from './LeavingSettings.vue'
import TopBar from '../shell/TopBar.vue'
import { useSettings } from '../stores/settings'

const store = useSettings()
onMounted(store.load)
</script>

<template>
  <div class="page">
    <TopBar />
    <main class="scroll">
      <h1>Settings</h1>
      <p v-if="store.fault" class="fault" role="alert">{{ store.fault }}</p>
      <section v-if="store.settings" aria-labelledby="networks">
        <h2 id="networks">Depth networks</h2>
        <p class="quiet">
          New shots are estimated with the one chosen here. On the Bench, in the Depth step, any shot can be estimated
          with another.
        </p>
        <p v-if="!store.settings.learned" class="fault">
          The networks are missing, so depth comes from the layout of the picture. Starting with a connection to the
          package registry fetches them.
        </p>
        <table class="listing">
          <thead>
            <tr>
              <th aria-label="Chosen" />
              <th>Name</th>
              <th>What it is</th>
              <th>Licence of its weights</th>
            </tr>
          </thead>
          <tbody>
            <tr>
              <td>
                <input
                  type="radio"
                  name="engine"
                  :checked="store.settings.depthEngine === 'auto'"
                  aria-label="The best there is"
                  data-test="engine-auto"
                  @change="store.useEngine('auto')" />
              </td>
              <td>the best there is</td>
              <td class="quiet">The first of the list below</td>
              <td />
            </tr>
            <tr v-for="each in store.settings.engines" :key="each.name" :data-test="`row-${each.name}`">
              <td>
                <input
                  type="radio"
                  name="engine"
                  :checked="store.settings.depthEngine === each.name"
                  :disabled="!!each.problem"
                  :aria-label="each.name"
                  :data-test="`engine-${each.name}`"
                  @change="store.useEngine(each.name)" />
              </td>
              <td>{{ each.name }}</td>
              <td :class="each.problem ? 'fault' : 'quiet'">{{ each.problem || each.about }}</td>
              <td class="quiet">{{ each.licence }}</td>
            </tr>
          </tbody>
        </table>
        <p class="quiet small" data-test="faces">
          {{
            store.settings.faces
              ? `Faces and eyes are found by two small networks (${store.settings.faces}).`
              : 'The networks that find faces are missing; everything else works without them.'
          }}
        </p>
        <p class="quiet small">
          More depth networks: an ONNX file and its descriptor go into
          <code>models/depth</code>
          of the data folder; docs/formats.md describes the descriptor. They are there after the next start.
        </p>
      </section>
      <AccountSettings />
      <LeavingSettings />
    </main>
  </div>
</template>

<style scoped>
main {
  padding: 16px 22px;
  display: grid;
  gap: 22px;
  align-content: start;
  max-width: 1080px;
}
section {
  display: grid;
  gap: 8px;
}
td:first-child {
  width: 28px;
}
input {
  accent-color: var(--accent);
}
code {
  font-size: 11.5px;
  background: var(--well);
  padding: 1px 5px;
  border-radius: 3px;
  overflow-wrap: anywhere;
}
</style>
