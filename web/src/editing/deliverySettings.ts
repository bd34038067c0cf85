import { ref, watch, type Ref } from 'vue'
import type { Schemas } from '../api/client'

export type DeliverySettings = Schemas['DeliverySettings']

/** Colour spaces by what they are called. */
export const colourSpaces: Record<NonNullable<DeliverySettings['space']>, string> = {
  source: "the photo's own",
  srgb: 'sRGB',
  'display-p3': 'Display P3',
  bt2020: 'BT.2020, wide',
}

const HALVED = ['jpeg', 'jpeg-depth', 'avif']
const WITHOUT_LOSS_AT_MOST = ['webp', 'avif']

/** What can be set for a format. */
export function settable({ format, longestSide }: DeliverySettings, clip: boolean) {
  const depth = format.startsWith('depth-')
  const layers = format === 'openraster' || format === 'tiff-pages'
  const picture = !clip && !depth && !layers
  return {
    quality: [...HALVED, 'webp', 'mp4', 'vp9', 'av1'].includes(format),
    halvesColour: HALVED.includes(format),
    space: picture,
    sharpening: picture && longestSide !== null,
    place: !clip && !depth,
    lossless: WITHOUT_LOSS_AT_MOST.includes(format),
  }
}

export function usualSettings(format: DeliverySettings['format']): DeliverySettings {
  return {
    format,
    quality: 0.92,
    longestSide: null,
    halvesColour: false,
    space: 'source',
    keepsPlace: true,
    sharpening: 0,
  }
}

/** Settings that are the same again the next time. */
export function useRemembered(key: string, format: DeliverySettings['format']): Ref<DeliverySettings> {
  const settings = ref(usualSettings(format))
  try {
    settings.value = { ...settings.value, ...(JSON.parse(localStorage.getItem(key) ?? '{}') as DeliverySettings) }
  } catch {
    localStorage.removeItem(key)
  }
  watch(settings, (now) => localStorage.setItem(key, JSON.stringify(now)), { deep: true })
  return settings
}
