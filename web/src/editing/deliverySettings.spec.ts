// @vitest-environment happy-dom
import { beforeEach, describe, expect, it } from 'vitest'
import { nextTick } from 'vue'
import { settable, useRemembered, usualSettings } from './deliverySettings'

beforeEach(() => localStorage.clear())

describe('settings of a delivery', () => {
  it('offer only what a format knows', () => {
    expect(settable(usualSettings('jpeg'), false)).toMatchObject({ quality: true, halvesColour: true, space: true })
    expect(settable(usualSettings('png16'), false)).toMatchObject({ quality: false, halvesColour: false, place: true })
    expect(settable(usualSettings('depth-exr32'), false)).toMatchObject({ space: false, place: false })
    expect(settable(usualSettings('openraster'), false)).toMatchObject({ space: false, place: true })
    expect(settable(usualSettings('mp4'), true)).toMatchObject({ quality: true, space: false, place: false })
  })

  it('sharpen only what is made smaller', () => {
    expect(settable(usualSettings('jpeg'), false).sharpening).toBe(false)
    expect(settable({ ...usualSettings('jpeg'), longestSide: 1200 }, false).sharpening).toBe(true)
  })

  it('are the same again the next time, also from before there were more of them', async () => {
    const first = useRemembered('some', 'jpeg')
    first.value = { ...first.value, format: 'webp', quality: 0.7 }
    await nextTick()
    expect(useRemembered('some', 'jpeg').value).toMatchObject({ format: 'webp', quality: 0.7, keepsPlace: true })
    localStorage.setItem('some', '{"format":"avif"}')
    expect(useRemembered('some', 'jpeg').value).toMatchObject({ format: 'avif', quality: 0.92 })
    localStorage.setItem('some', 'damaged')
    expect(useRemembered('some', 'png8').value.format).toBe('png8')
  })
})
