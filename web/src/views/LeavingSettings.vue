<script setup lang="ts">
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import { api, type Problem } from '../api/client'
import { useSession } from '../stores/session'

/** Everything of the account to take along, and its end. */
const session = useSession()
const router = useRouter()
const asking = ref(false)
const password = ref('')
const fault = ref('')

function ask(): void {
  password.value = ''
  fault.value = ''
  asking.value = true
}

async function endNow(): Promise<void> {
  try {
    await api.endAccount(password.value)
    await session.load(true)
    await router.push('/sign-in')
  } catch (problem) {
    fault.value = (problem as Problem).message
  }
}
</script>

<template>
  <section aria-labelledby="leaving">
    <h2 id="leaving">Leaving</h2>
    <p class="quiet small">
      One zip with all photos and clips as they came in, the depth of photos, a recipe file for each version, and what
      was delivered.
    </p>
    <div class="actions">
      <v-btn :href="api.everything" download data-test="everything">Download everything</v-btn>
      <v-btn class="fault" data-test="end-account" @click="ask">End this account</v-btn>
    </div>
    <v-dialog v-model="asking" width="440" aria-label="End this account">
      <form class="sheet framed" role="alertdialog" aria-labelledby="end-account" @submit.prevent="endNow">
        <h2 id="end-account">End this account</h2>
        <p>
          All shoots of {{ session.name }}, with their photos, versions and deliveries, are removed from this
          installation at once. Nobody can bring them back.
        </p>
        <input type="text" autocomplete="username" :value="session.name" hidden readonly aria-hidden="true" />
        <v-text-field v-model="password" label="Password" type="password" autocomplete="current-password" autofocus />
        <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
        <div class="actions">
          <v-btn @click="asking = false">Keep it</v-btn>
          <v-btn type="submit" class="fault" :disabled="!password" data-test="end-account-now">End it for good</v-btn>
        </div>
      </form>
    </v-dialog>
  </section>
</template>

<style scoped>
section {
  display: grid;
  gap: 8px;
}
.sheet {
  display: grid;
  gap: 12px;
  padding: 18px 20px;
}
.actions {
  display: flex;
  gap: 8px;
}
form .actions {
  justify-content: flex-end;
}
</style>
