import type { Version } from '../../api/client'
import type { Patch } from '../../editing/patches'
import type { Compare } from '../../editing/pictures'
import { differences } from '../versions/versionWords'

/** One of the pictures that are shown beside each other, or the only one. */
export type Pane = {
  key: string
  title: string
  about: string
  original: boolean
  whole: ImageBitmap | undefined
  detail: Patch | undefined
}

/** What panes are made of. */
export type Shown = {
  compare: Compare
  holding: boolean
  original: ImageBitmap | undefined
  originalDetail: Patch | undefined
  preview: ImageBitmap | undefined
  detail: Patch | undefined
  versions: Version[]
  version: Version | undefined
  compared: string[]
  versionPreviews: Map<string, ImageBitmap>
}

/** The panes in reading order; the version that is worked on shows the newest preview, the others their own. */
export function panesOf(shown: Shown): Pane[] {
  const photo: Pane = {
    key: 'original',
    title: 'original',
    about: '',
    original: true,
    whole: shown.original,
    detail: shown.originalDetail,
  }
  const result: Pane = {
    key: 'result',
    title: 'result',
    about: '',
    original: false,
    whole: shown.preview ?? shown.original,
    detail: shown.detail,
  }
  if (shown.holding) return [photo]
  if (shown.compare === 'beside') return [photo, result]
  const chosen = shown.compare === 'versions' ? shown.versions.filter((each) => shown.compared.includes(each.id)) : []
  if (chosen.length < 2) return [result]
  const apart = differences(chosen.map((each) => each.recipe))
  return chosen.map((each, i) => {
    const named = { key: each.id, title: each.name, about: apart[i] ?? '' }
    return each.id === shown.version?.id
      ? { ...result, ...named }
      : { ...named, original: false, whole: shown.versionPreviews.get(each.id), detail: undefined }
  })
}
