import { createVuetify } from 'vuetify'
import { aliases, mdi } from 'vuetify/iconsets/mdi-svg'

/** Neutral greys throughout: colour is judged here. The accent is a quiet green; orange and blue mean near and far. */
export const vuetify = createVuetify({
  icons: { defaultSet: 'mdi', aliases, sets: { mdi } },
  theme: {
    defaultTheme: localStorage.getItem('surroundings') === 'light' ? 'light' : 'dark',
    themes: {
      dark: {
        dark: true,
        colors: {
          background: '#1a1a1a',
          surface: '#232323',
          'surface-variant': '#3a3a3a',
          'on-surface-variant': '#dedede',
          primary: '#8fb996',
          secondary: '#9a9a9a',
          error: '#d98a7b',
          warning: '#cfa95f',
          info: '#9a9a9a',
          success: '#8fb996',
        },
      },
      light: {
        dark: false,
        colors: {
          background: '#d6d6d6',
          surface: '#e4e4e4',
          'surface-variant': '#c4c4c4',
          'on-surface-variant': '#2a2a2a',
          primary: '#2f6b3c',
          secondary: '#5c5c5c',
          error: '#9c3524',
          warning: '#7a5a12',
          info: '#5c5c5c',
          success: '#2f6b3c',
        },
      },
    },
  },
  defaults: {
    global: { ripple: false },
    VBtn: { variant: 'text', rounded: 'sm', size: 'small', height: 28 },
    VTextField: { variant: 'outlined', density: 'compact', hideDetails: 'auto' },
    VSelect: { variant: 'outlined', density: 'compact', hideDetails: true },
    VTooltip: { openDelay: 400, location: 'top' },
    VCheckbox: { density: 'compact', hideDetails: true },
  },
})
