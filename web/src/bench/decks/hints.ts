import { ref } from 'vue'

const KEY = 'hints'

/** Whether somebody is being shown around. */
export const touring = ref(false)

/** Hints for the first steps: shown until they are closed, and again when they are wanted. */
export function hintsWanted(): boolean {
  return localStorage.getItem(KEY) !== 'no'
}

export function wantHints(wanted: boolean): void {
  localStorage.setItem(KEY, wanted ? 'yes' : 'no')
}
