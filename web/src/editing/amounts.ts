const NARROW = '\u202f'
const UNITS: [number, string][] = [
  [1e12, 'TB'],
  [1e9, 'GB'],
  [1e6, 'MB'],
]

/** A count with gaps between thousands, from five digits on. */
export function countText(count: number): string {
  return count < 10000 ? `${count}` : `${count}`.replace(/\B(?=(\d{3})+$)/g, NARROW)
}

/** A size of files, to a tenth where that says something. */
export function bytesText(bytes: number): string {
  const [unit, name] = UNITS.find(([least]) => bytes >= least) ?? [1e3, 'kB']
  const amount = bytes / unit
  if (name === 'kB') return `${Math.ceil(amount)} kB`
  return `${amount.toFixed(amount < 99.95 ? 1 : 0).replace(/\.0$/, '')} ${name}`
}
