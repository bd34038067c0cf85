import type { Box } from './overlay'
import type { Pane } from './panes'

/** The side of the split that shows the untouched photo: the upper when it is level, else the left. */
export function splitOff(box: Box, level: boolean, at: number): Box {
  return level ? { ...box, height: box.height * at } : { ...box, width: box.width * at }
}

/** What of a pane lies on the other side of the split. */
export function besideSplit(cut: Box, off: Box, level: boolean): Box {
  const x = level ? cut.x : Math.max(cut.x, off.x + off.width)
  const y = level ? Math.max(cut.y, off.y + off.height) : cut.y
  return { x, y, width: Math.max(0, cut.x + cut.width - x), height: Math.max(0, cut.y + cut.height - y) }
}

/** What two boxes have in common. */
export function meet(a: Box, b: Box): Box {
  const x = Math.max(a.x, b.x)
  const y = Math.max(a.y, b.y)
  return {
    x,
    y,
    width: Math.max(0, Math.min(a.x + a.width, b.x + b.width) - x),
    height: Math.max(0, Math.min(a.y + a.height, b.y + b.height) - y),
  }
}

/** Draws a picture where it lies, and what of it there is at full resolution over it, within `cut`. */
export function drawPicture(
  context: CanvasRenderingContext2D,
  shown: Pick<Pane, 'whole' | 'detail'>,
  box: Box,
  cut: Box,
): void {
  context.save()
  context.beginPath()
  context.rect(cut.x, cut.y, cut.width, cut.height)
  context.clip()
  if (shown.whole) context.drawImage(shown.whole, box.x, box.y, box.width, box.height)
  if (shown.detail) {
    const { bitmap, region } = shown.detail
    context.drawImage(
      bitmap,
      box.x + region.x * box.width,
      box.y + region.y * box.height,
      region.width * box.width,
      region.height * box.height,
    )
  }
  context.restore()
}
