import vue from '@vitejs/plugin-vue'
import { defineConfig } from 'vitest/config'
import vuetify from 'vite-plugin-vuetify'

export default defineConfig({
  plugins: [vue(), vuetify({ autoImport: true })],
  build: { target: 'es2022', chunkSizeWarningLimit: 900 },
  // Components of the library bring styles, which only the bundler can read.
  test: { server: { deps: { inline: ['vuetify'] } } },
  server: { proxy: { '/api': 'http://127.0.0.1:8080' } },
})
