/** Server and page agree on it. */
const LEAST_PASSWORD = 10

/** What keeps a new password from being taken; empty when nothing does, or nothing was typed yet. */
export function passwordFault(password: string, again: string): string {
  if (password && password.length < LEAST_PASSWORD) return `At least ${LEAST_PASSWORD} characters.`
  if (again && again !== password) return 'The two new passwords differ.'
  return password && !again ? 'Type the new password a second time.' : ''
}

/** A browser and its system in short, from what it says of itself. Some say they are others, too: those come later. */
export function browserName(told: string): string {
  const programs: [RegExp, string][] = [
    [/Firefox\//, 'Firefox'],
    [/Edg\//, 'Edge'],
    [/OPR\//, 'Opera'],
    [/Chrom(e|ium)\//, 'Chromium'],
    [/Safari\//, 'Safari'],
    [/curl\//, 'curl'],
  ]
  const systems: [RegExp, string][] = [
    [/Android/, 'Android'],
    [/iPhone|iPad/, 'iOS'],
    [/Windows/, 'Windows'],
    [/Mac OS X/, 'macOS'],
    [/Linux/, 'Linux'],
  ]
  const found = [programs, systems].map((kinds) => kinds.find(([sign]) => sign.test(told))?.[1])
  return found[0] ? found.filter(Boolean).join(' on ') : 'another program'
}
