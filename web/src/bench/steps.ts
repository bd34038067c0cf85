import {
  mdiBrush,
  mdiCircleSlice8,
  mdiImageFilterCenterFocus,
  mdiShapeOutline,
  mdiTerrain,
  mdiTrayArrowDown,
  mdiWeatherFog,
} from '@mdi/js'
import type { Step } from '../editing/looking'

/** In working order; F1 to F7 open them. */
export const steps: { key: Step; name: string; icon: string; hint: string }[] = [
  { key: 'depth', name: 'Depth', icon: mdiTerrain, hint: 'Where depth comes from, and whether it is right' },
  { key: 'focus', name: 'Focus', icon: mdiImageFilterCenterFocus, hint: 'What is sharp' },
  { key: 'touchup', name: 'Touch-up', icon: mdiBrush, hint: 'What is still wrong, painted right' },
  { key: 'lens', name: 'Lens', icon: mdiCircleSlice8, hint: 'How the rest is blurred' },
  { key: 'shapes', name: 'Shapes', icon: mdiShapeOutline, hint: 'Blur that is placed, besides the depth' },
  { key: 'atmosphere', name: 'Atmosphere', icon: mdiWeatherFog, hint: 'Mist, the tone of what is blurred, grain' },
  { key: 'deliver', name: 'Deliver', icon: mdiTrayArrowDown, hint: 'The finished picture' },
]
