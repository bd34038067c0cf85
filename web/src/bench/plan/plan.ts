import { NEAREST, type Nearness } from '../../editing/nearness'

/**
 * The scene seen from above: across = the picture's width, up = farther away. Each cell has the mean colour of the
 * pixels that stand there, and is the more solid the more they are.
 *
 * @param photo the untouched photo at the map's size
 * @param range the nearness of the upper (far) and lower (near) border
 */
export function plan(
  map: Nearness,
  photo: ImageData,
  width: number,
  height: number,
  range: { far: number; near: number },
): ImageData {
  const cells = width * height
  const sums = new Float32Array(cells * 3)
  const counts = new Float32Array(cells)
  const pixels = photo.data
  for (let y = 0, i = 0; y < map.height; y++) {
    for (let x = 0; x < map.width; x++, i++) {
      const nearness = (map.samples[i] as number) / NEAREST
      const row = Math.floor(((nearness - range.far) / (range.near - range.far)) * height)
      if (row < 0 || row >= height) continue
      const cell = row * width + Math.floor((x * width) / map.width)
      counts[cell] = (counts[cell] as number) + 1
      sums[cell * 3] = (sums[cell * 3] as number) + (pixels[i * 4] as number)
      sums[cell * 3 + 1] = (sums[cell * 3 + 1] as number) + (pixels[i * 4 + 1] as number)
      sums[cell * 3 + 2] = (sums[cell * 3 + 2] as number) + (pixels[i * 4 + 2] as number)
    }
  }
  const solid = map.height * 0.06
  const out = new ImageData(width, height)
  for (let cell = 0; cell < cells; cell++) {
    const count = counts[cell] as number
    if (count === 0) continue
    out.data[cell * 4] = (sums[cell * 3] as number) / count
    out.data[cell * 4 + 1] = (sums[cell * 3 + 1] as number) / count
    out.data[cell * 4 + 2] = (sums[cell * 3 + 2] as number) / count
    out.data[cell * 4 + 3] = 255 * Math.min(1, 0.22 + (0.78 * Math.log1p(count)) / Math.log1p(solid))
  }
  return out
}
