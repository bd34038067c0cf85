import '@fontsource-variable/inter'
import './styles/reset.css'
import 'vuetify/styles'
import './styles/main.css'
import { createPinia } from 'pinia'
import { createApp } from 'vue'
import App from './App.vue'
import { router } from './router'
import { vuetify } from './vuetify'

createApp(App).use(createPinia()).use(router).use(vuetify).mount('#app')
