import { shallowRef, type Ref, type ShallowRef } from 'vue'
import { api, type Shot } from '../api/client'
import { airy, drawn, within, type Patch } from './patches'
import type { useSight } from './sight'

/** Longer side of the untouched photo, in pixels. */
export const LARGEST_PHOTO = 1600

type Source = {
  shot: ShallowRef<Shot | undefined>
  frame: Ref<number>
  sight: ReturnType<typeof useSight>
  isCompared: () => boolean
  attempt: (work: () => Promise<void>) => Promise<void>
}

/** The untouched photo: all of it, and at full resolution where one has zoomed in and compares. */
export function useUntouched({ shot, frame, sight, isCompared, attempt }: Source) {
  const original = shallowRef<ImageBitmap>()
  const originalDetail = shallowRef<Patch>()
  let asked = ''
  let opened = 0

  async function open(of: Shot): Promise<void> {
    const ticket = opened
    void openSmall(of)
    const bitmap = await createImageBitmap(await api.photo(of, LARGEST_PHOTO))
    if (ticket === opened) show(bitmap)
    else bitmap.close()
  }

  /** Something to look at until the photo is there: what the card in Shoots showed, which the browser still has. */
  async function openSmall({ id, picture }: Shot): Promise<void> {
    const ticket = opened
    try {
      const bitmap = await createImageBitmap(await api.thumbnailOf(id, picture))
      if (ticket === opened && !original.value) original.value = bitmap
      else bitmap.close()
    } catch {
      // The photo follows anyway, and tells what is wrong.
    }
  }

  /** A frame of a clip instead of what was shown. */
  function show(bitmap: ImageBitmap): void {
    original.value?.close()
    original.value = bitmap
  }

  async function loadDetail(): Promise<void> {
    const current = shot.value
    if (!current || !isCompared() || !sight.isZoomed()) return
    const has = originalDetail.value
    if (has && within(sight.seen.value, has.region) && sight.isFine(has)) return
    const side = sight.sideFor('final')
    const region = airy(sight.seen.value)
    const wish = `${side} ${JSON.stringify(region)} ${frame.value}`
    if (wish === asked) return
    asked = wish
    const ticket = opened
    await attempt(async () => {
      const answer = await api.photoRegion(current, side, region, frame.value)
      const bitmap = await createImageBitmap(await answer.blob())
      if (ticket !== opened || wish !== asked) return
      originalDetail.value?.bitmap.close()
      originalDetail.value = { bitmap, region: drawn(answer), recipe: '' }
    })
  }

  function dropDetail(): void {
    originalDetail.value?.bitmap.close()
    originalDetail.value = undefined
    asked = ''
  }

  function close(): void {
    opened++
    dropDetail()
    original.value?.close()
    original.value = undefined
  }

  return { original, originalDetail, open, show, loadDetail, dropDetail, close }
}
