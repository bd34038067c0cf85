import type { Things } from '../../api/client'

/** The label of every pixel, as the server sends them in base 64. */
export function unpacked(things: Things): Uint8Array {
  return Uint8Array.from(atob(things.labels as unknown as string), (each) => each.charCodeAt(0))
}

/** The borders of one thing as an SVG path along the pixels' edges. */
export function outline(labels: Uint8Array, width: number, height: number, number: number): string {
  const is = (x: number, y: number): boolean =>
    x >= 0 && y >= 0 && x < width && y < height && labels[y * width + x] === number
  let path = ''
  for (let y = 0; y <= height; y++) {
    for (let x = 0, from = -1; x <= width; x++) {
      const border = x < width && is(x, y) !== is(x, y - 1)
      if (border && from < 0) from = x
      if (!border && from >= 0) {
        path += `M${from},${y}H${x}`
        from = -1
      }
    }
  }
  for (let x = 0; x <= width; x++) {
    for (let y = 0, from = -1; y <= height; y++) {
      const border = y < height && is(x, y) !== is(x - 1, y)
      if (border && from < 0) from = y
      if (!border && from >= 0) {
        path += `M${x},${from}V${y}`
        from = -1
      }
    }
  }
  return path
}
