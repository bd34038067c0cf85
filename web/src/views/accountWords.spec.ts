import { describe, expect, it } from 'vitest'
import { allowanceText, browserName, nearlyFull, passwordFault } from './accountWords'

describe('a new password', () => {
  it('is taken when it is long enough and typed twice', () => {
    expect(passwordFault('', '')).toBe('')
    expect(passwordFault('short', '')).toContain('10 characters')
    expect(passwordFault('long enough now', '')).toContain('second time')
    expect(passwordFault('long enough now', 'long enough mow')).toContain('differ')
    expect(passwordFault('long enough now', 'long enough now')).toBe('')
  })
})

describe('what an account has', () => {
  it('is told with what it may have', () => {
    const most = { mostBytes: 500e9, mostShots: 50000, work: 0, mostWork: 5000, clipSeconds: 0, mostClipSeconds: 36000 }
    expect(allowanceText({ bytes: 1.26e9, shots: 1, ...most })).toBe(
      '1 photo or clip of at most 50\u202f000; with their deliveries 1.3 GB of 500 GB. Up to 5000 things may wait to be made at once.',
    )
    expect(allowanceText({ bytes: 8.4e6, shots: 5, ...most })).toContain('8.4 MB of 500 GB')
    expect(allowanceText({ bytes: 12.6e9, shots: 320, ...most })).toContain('320 photos and clips of at most')
    const busy = allowanceText({ bytes: 0, shots: 2, ...most, work: 7, clipSeconds: 600 })
    expect(busy).toContain('Clips: 10 min of 600 min. 7 of at most 5000 things wait to be made.')
  })

  it('is told before it is full', () => {
    const used = {
      bytes: 1e9,
      mostBytes: 10e9,
      shots: 79,
      mostShots: 100,
      work: 0,
      mostWork: 5,
      clipSeconds: 0,
      mostClipSeconds: 90,
    }
    expect(nearlyFull(used)).toBe('')
    expect(nearlyFull({ ...used, shots: 80, bytes: 9e9 })).toBe(
      'This account has used 80 of 100 photos and clips, 9 GB of 10 GB.',
    )
  })
})

describe('the name of a browser', () => {
  it('is the program and its system', () => {
    const linux = 'Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko)'
    expect(browserName(`${linux} Chrome/140.0.0.0 Safari/537.36`)).toBe('Chromium on Linux')
    expect(browserName('Mozilla/5.0 (Windows NT 10.0; rv:140.0) Gecko/20100101 Firefox/140.0')).toBe(
      'Firefox on Windows',
    )
    expect(browserName('curl/8.5.0')).toBe('curl')
    expect(browserName('')).toBe('another program')
  })
})
