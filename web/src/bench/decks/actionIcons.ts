import { mdiBlur, mdiImageFilterCenterFocus, mdiLayersOutline, mdiRestore } from '@mdi/js'
import type { Action } from '../../editing/painting'

export const actionIcons: Record<Action, string> = {
  focus: mdiImageFilterCenterFocus,
  blur: mdiBlur,
  match: mdiLayersOutline,
  reveal: mdiRestore,
}
