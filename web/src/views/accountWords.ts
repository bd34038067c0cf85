import type { Allowance } from '../api/client'
import { bytesText } from '../editing/deliveryWords'

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

const gigabytes = (bytes: number): string => `${(bytes / 1e9).toFixed(bytes < 9.95e9 ? 1 : 0)} GB`

/** How much of the server an account has, and may have. */
export function allowanceText(used: Allowance): string {
  const shots = used.shots === 1 ? '1 photo or clip' : `${used.shots} photos and clips`
  return `${shots} of at most ${used.mostShots}; with their deliveries ${used.bytes < 1e8 ? bytesText(used.bytes) : gigabytes(used.bytes)} of ${gigabytes(used.mostBytes)}.`
}
