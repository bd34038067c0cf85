// The tone curve of IEC 61966-2-1: people think of brightness as it is shown, recipes count light.

export function encoded(light: number): number {
  return light <= 0.0031308 ? 12.92 * light : 1.055 * light ** (1 / 2.4) - 0.055
}

export function linear(shown: number): number {
  return shown <= 0.04045 ? shown / 12.92 : ((shown + 0.055) / 1.055) ** 2.4
}
