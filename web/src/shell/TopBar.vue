<script setup lang="ts">
import { mdiLogout, mdiCircleHalfFull } from '@mdi/js'
import { useRoute, useRouter } from 'vue-router'
import { useTheme } from 'vuetify'
import { useSession } from '../stores/session'

const session = useSession()
const route = useRoute()
const router = useRouter()
const theme = useTheme()

function toggle(): void {
  const next = theme.global.name.value === 'dark' ? 'light' : 'dark'
  theme.change(next)
  localStorage.setItem('surroundings', next)
}

async function leave(): Promise<void> {
  await session.signOut()
  await router.push('/sign-in')
}
</script>

<template>
  <header class="bar">
    <router-link to="/shoots" class="brand" aria-label="Yubble, to the shoots">
      <img src="/mark.svg" alt="" width="20" height="20" />
      Yubble
    </router-link>
    <nav aria-label="Main">
      <router-link to="/shoots" :class="{ 'router-link-active': route.path.startsWith('/shoots') }">Shoots</router-link>
      <router-link to="/deliveries">Deliveries</router-link>
      <router-link to="/settings">Settings</router-link>
      <router-link to="/guide">Guide</router-link>
      <router-link v-if="session.administrator" to="/state">State</router-link>
    </nav>
    <div class="middle"><slot /></div>
    <v-btn
      :icon="mdiCircleHalfFull"
      title="Dark or light surroundings"
      aria-label="Dark or light surroundings"
      @click="toggle" />
    <span class="quiet who">{{ session.name }}</span>
    <v-btn :icon="mdiLogout" title="Sign out" aria-label="Sign out" @click="leave" />
  </header>
</template>

<style scoped>
.bar {
  display: flex;
  align-items: center;
  gap: 10px;
  padding: 0 10px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  min-width: 0;
}
.brand {
  display: flex;
  gap: 8px;
  align-items: center;
  font-weight: 600;
  color: var(--ink);
  text-decoration: none;
}
nav {
  display: flex;
  gap: 2px;
  margin-left: 6px;
}
nav a {
  color: var(--dim);
  text-decoration: none;
  padding: 4px 9px;
  border-radius: 3px;
}
nav a:hover,
nav a.router-link-active {
  color: var(--ink);
}
.middle {
  flex: 1;
  min-width: 0;
  display: flex;
  align-items: center;
}
.who {
  white-space: nowrap;
}
</style>
