import type { Region } from '../api/client'

/** A part of the picture as it is drawn, and where it lies. */
export type Patch = { bitmap: ImageBitmap; region: Region; recipe: string }

export const ALL: Region = { x: 0, y: 0, width: 1, height: 1 }

/** How much around what is seen is drawn too, as a share of it: enough for small moves. */
const AIR = 0.06

/** Where a picture lies in the whole, as the server tells it. */
export function drawn(answer: Response): Region {
  const [x = 0, y = 0, w = 1, h = 1, width = 1, height = 1] = (answer.headers.get('X-Region') ?? '0 0 1 1 1 1')
    .split(' ')
    .map(Number)
  return { x: x / width, y: y / height, width: w / width, height: h / height }
}

/** A picture with a smaller one laid over it where it belongs. */
export function laidOver(base: Patch, patch: Patch): ImageBitmap {
  const { width, height } = base.bitmap
  const canvas = new OffscreenCanvas(width, height)
  const context = canvas.getContext('2d')
  const at = (share: number, from: number, whole: number, pixels: number): number =>
    Math.round(((share - from) / whole) * pixels)
  context?.drawImage(base.bitmap, 0, 0)
  context?.drawImage(
    patch.bitmap,
    at(patch.region.x, base.region.x, base.region.width, width),
    at(patch.region.y, base.region.y, base.region.height, height),
  )
  patch.bitmap.close()
  return canvas.transferToImageBitmap()
}

/** A region with a little of what lies around it. */
export function airy({ x, y, width, height }: Region): Region {
  const left = Math.max(0, x - AIR * width)
  const top = Math.max(0, y - AIR * height)
  return {
    x: left,
    y: top,
    width: Math.min(1, x + width * (1 + AIR)) - left,
    height: Math.min(1, y + height * (1 + AIR)) - top,
  }
}

export function within(inner: Region, outer: Region): boolean {
  const slack = 0.002
  return (
    inner.x >= outer.x - slack &&
    inner.y >= outer.y - slack &&
    inner.x + inner.width <= outer.x + outer.width + slack &&
    inner.y + inner.height <= outer.y + outer.height + slack
  )
}
