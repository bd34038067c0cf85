<script setup lang="ts">
import { computed, onMounted, ref } from 'vue'
import { allowanceText, browserName, passwordFault } from './accountWords'
import { useAccount } from '../stores/account'
import { useSession } from '../stores/session'

const account = useAccount()
const session = useSession()
const before = ref('')
const password = ref('')
const again = ref('')
const fault = computed(() => passwordFault(password.value, again.value))

onMounted(account.load)

async function change(): Promise<void> {
  if (await account.changePassword(before.value, password.value)) {
    before.value = ''
    password.value = ''
    again.value = ''
  }
}

const when = (time: string): string =>
  new Date(time).toLocaleString(undefined, { dateStyle: 'medium', timeStyle: 'short' })
</script>

<template>
  <section aria-labelledby="account">
    <h2 id="account">Account</h2>
    <p class="quiet">Signed in as {{ session.name }}. Photos, depth maps and results stay with this installation.</p>
    <p v-if="account.allowance" class="quiet" data-test="allowance">
      {{ allowanceText(account.allowance) }}
    </p>
    <p v-if="account.fault" class="fault" role="alert">{{ account.fault }}</p>
    <p v-if="account.done" role="status" data-test="account-done">{{ account.done }}</p>
    <form class="password" data-test="password-form" @submit.prevent="change">
      <!-- Programs that keep passwords need to see whose it is. -->
      <input type="text" autocomplete="username" :value="session.name" hidden readonly aria-hidden="true" />
      <v-text-field v-model="before" label="Password until now" type="password" autocomplete="current-password" />
      <v-text-field v-model="password" label="New password" type="password" autocomplete="new-password" />
      <v-text-field v-model="again" label="New password again" type="password" autocomplete="new-password" />
      <v-btn type="submit" height="34" :disabled="!before || !password || !!fault">Change the password</v-btn>
      <p class="quiet small">{{ fault || 'At least 10 characters. All other sessions end.' }}</p>
    </form>
    <h3>Where you are signed in</h3>
    <table class="listing">
      <thead>
        <tr>
          <th>Browser</th>
          <th>Since</th>
          <th>Last used</th>
          <th aria-label="End" />
        </tr>
      </thead>
      <tbody>
        <tr v-for="each in account.sessions" :key="each.id" data-test="session">
          <td :title="each.browser">{{ browserName(each.browser) }}</td>
          <td class="quiet">{{ when(each.since) }}</td>
          <td class="quiet">{{ each.current ? 'this one' : when(each.lastUsed) }}</td>
          <td>
            <v-btn v-if="!each.current" size="small" @click="account.end(each.id)">End</v-btn>
          </td>
        </tr>
      </tbody>
    </table>
    <v-btn v-if="account.sessions.length > 1" class="others" @click="account.endOthers">End all others</v-btn>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.password {
  display: grid;
  grid-template-columns: repeat(3, minmax(160px, 240px)) max-content;
  gap: 4px 12px;
  align-items: start;
}
.password :deep(.v-field:not(.v-field--focused) .v-label) {
  color: var(--dim);
  opacity: 1;
}
.password p {
  grid-column: 1 / -1;
}
td:last-child {
  text-align: right;
}
h3 {
  font-size: 12.5px;
  font-weight: 600;
  margin-top: 8px;
}
.others {
  justify-self: start;
}
</style>
