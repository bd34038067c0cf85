import type { Allowance } from '../api/client'
import { bytesText, countText } from '../editing/amounts'

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

/** How much of the server an account has, and may have. */
export function allowanceText(used: Allowance): string {
  const shots = used.shots === 1 ? '1 photo or clip' : `${countText(used.shots)} photos and clips`
  return `${shots} of at most ${countText(used.mostShots)}; with their deliveries ${bytesText(used.bytes)} of ${bytesText(used.mostBytes)}. ${clips(used)}${work(used)}`
}

/** How full something is from which on people are told before they are turned away. */
const NEARLY = 0.8

function clips(used: Allowance): string {
  if (!used.clipSeconds) return ''
  return `Clips: ${minutes(used.clipSeconds)} of ${minutes(used.mostClipSeconds)}. `
}

function work(used: Allowance): string {
  if (used.work) return `${countText(used.work)} of at most ${countText(used.mostWork)} things wait to be made.`
  return `Up to ${countText(used.mostWork)} things may wait to be made at once.`
}

const minutes = (seconds: number): string => (seconds < 120 ? `${seconds} s` : `${Math.round(seconds / 60)} min`)

/** What will be full soon, for the page on which more is brought in; empty while there is room. */
export function nearlyFull(used: Allowance): string {
  const parts: [number, number, string][] = [
    [used.shots, used.mostShots, `${countText(used.shots)} of ${countText(used.mostShots)} photos and clips`],
    [used.bytes, used.mostBytes, `${bytesText(used.bytes)} of ${bytesText(used.mostBytes)}`],
    [
      used.clipSeconds,
      used.mostClipSeconds,
      `${minutes(used.clipSeconds)} of ${minutes(used.mostClipSeconds)} of clips`,
    ],
    [used.work, used.mostWork, `${countText(used.work)} of ${countText(used.mostWork)} things that may wait`],
  ]
  const full = parts.filter(([has, most]) => has >= NEARLY * most).map(([, , text]) => text)
  return full.length ? `This account has used ${full.join(', ')}.` : ''
}
