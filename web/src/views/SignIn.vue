<script setup lang="ts">
import { ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { api, type Problem } from '../api/client'
import { useSession } from '../stores/session'

const session = useSession()
const router = useRouter()
const route = useRoute()
const name = ref('')
const password = ref('')
const fault = ref('')
const busy = ref(false)
const creating = ref(false)

/** Rows of lamps, each row farther from the one that is in focus: the same light on a larger disc. */
const lights = Array.from({ length: 9 * 11 }, (_, key) => {
  const row = Math.floor(key / 11)
  const away = Math.abs(row - 5)
  const r = 3 + away * 9
  return {
    key,
    x: 40 + (key % 11) * 72 + (row % 2) * 36,
    y: 80 + row * 80,
    r,
    strength: away === 0 ? 1 : Math.min(0.5, 60 / (r * r)) + 0.05,
    sharp: away === 0,
  }
})

async function enter(): Promise<void> {
  busy.value = true
  fault.value = ''
  try {
    if (creating.value) await api.createAccount(name.value, password.value)
    await session.signIn(name.value, password.value)
    const to = route.query.to
    await router.push(typeof to === 'string' && to.startsWith('/') && !to.startsWith('//') ? to : '/shoots')
  } catch (problem) {
    fault.value = (problem as Problem).message
  } finally {
    busy.value = false
  }
}
</script>

<template>
  <main class="sign-in">
    <svg class="scene" viewBox="0 0 800 800" preserveAspectRatio="xMidYMid slice" aria-hidden="true">
      <circle
        v-for="light in lights"
        :key="light.key"
        :cx="light.x"
        :cy="light.y"
        :r="light.r"
        :fill-opacity="light.strength"
        :class="{ sharp: light.sharp }" />
    </svg>
    <form @submit.prevent="enter">
      <div class="brand">
        <img src="/mark.svg" alt="" width="30" height="30" />
        <h1>Yubble</h1>
      </div>
      <p class="quiet">Choose what is sharp, after the photo was taken.</p>
      <v-text-field v-model="name" label="Name" autocomplete="username" autofocus maxlength="80" />
      <v-text-field
        v-model="password"
        label="Password"
        type="password"
        :autocomplete="creating ? 'new-password' : 'current-password'" />
      <p v-if="creating" class="quiet small">At least 10 characters.</p>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <v-btn type="submit" class="lead" height="34" :loading="busy" :disabled="!name || !password">
        {{ creating ? 'Create the account' : 'Sign in' }}
      </v-btn>
      <v-btn v-if="session.openAccounts" @click="creating = !creating">
        {{ creating ? 'I have an account' : 'Create an account' }}
      </v-btn>
      <p v-if="session.demo" class="quiet small demo">
        To look around, sign in as
        <b>demo</b>
        with the password that the start command has printed.
      </p>
    </form>
  </main>
</template>

<style scoped>
.sign-in {
  height: 100dvh;
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(380px, 460px);
}
.scene {
  width: 100%;
  height: 100%;
  background: var(--well);
  border-right: 1px solid var(--line);
}
.scene circle {
  fill: var(--ink);
}
.scene circle.sharp {
  fill: var(--accent);
}
form {
  display: grid;
  gap: 14px;
  align-content: center;
  padding: 0 56px;
}
.brand {
  display: flex;
  gap: 12px;
  align-items: center;
}
h1 {
  font-size: 24px;
}
.demo {
  border-top: 1px solid var(--line);
  padding-top: 12px;
}
.demo b {
  color: var(--ink);
  font-weight: 600;
}
</style>
