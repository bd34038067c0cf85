/** Where the picture lies in the stage: `scale` is stage pixels per picture pixel. */
export type Viewport = { scale: number; x: number; y: number }
export type Extent = { width: number; height: number }

const MOST_SCALE = 8

/** The whole picture, centred, with a little air around it; never enlarged. */
export function fit(stage: Extent, picture: Extent): Viewport {
  const air = 12
  const scale = Math.min((stage.width - 2 * air) / picture.width, (stage.height - 2 * air) / picture.height, 1)
  return { scale, x: (stage.width - picture.width * scale) / 2, y: (stage.height - picture.height * scale) / 2 }
}

/** Zooms so that the point under the pointer stays where it is. */
export function zoomAt(view: Viewport, factor: number, x: number, y: number, least: number): Viewport {
  const scale = Math.min(MOST_SCALE, Math.max(least, view.scale * factor))
  const ratio = scale / view.scale
  return { scale, x: x - (x - view.x) * ratio, y: y - (y - view.y) * ratio }
}

/** Keeps at least a corner of the picture in the stage. */
export function contained(view: Viewport, stage: Extent, picture: Extent): Viewport {
  const keep = 60
  const width = picture.width * view.scale
  const height = picture.height * view.scale
  return {
    scale: view.scale,
    x: Math.min(stage.width - keep, Math.max(keep - width, view.x)),
    y: Math.min(stage.height - keep, Math.max(keep - height, view.y)),
  }
}

/** The part of the picture that can be seen, in shares of its width and height. */
export function visible(
  view: Viewport,
  stage: Extent,
  picture: Extent,
): { x: number; y: number; width: number; height: number } {
  const from = toShares(view, picture, 0, 0)
  const to = toShares(view, picture, stage.width, stage.height)
  const x = Math.min(1, Math.max(0, from.x))
  const y = Math.min(1, Math.max(0, from.y))
  return { x, y, width: Math.min(1, Math.max(0, to.x)) - x, height: Math.min(1, Math.max(0, to.y)) - y }
}

/** Stage pixels to shares of the picture's width and height. */
export function toShares(view: Viewport, picture: Extent, x: number, y: number): { x: number; y: number } {
  return { x: (x - view.x) / view.scale / picture.width, y: (y - view.y) / view.scale / picture.height }
}
