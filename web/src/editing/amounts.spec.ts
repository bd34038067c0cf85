import { describe, expect, it } from 'vitest'
import { bytesText, countText } from './amounts'

describe('amounts', () => {
  it('have gaps between thousands once they are long', () => {
    expect([0, 9999, 10000, 50000, 1234567].map(countText)).toEqual([
      '0',
      '9999',
      '10\u202f000',
      '50\u202f000',
      '1\u202f234\u202f567',
    ])
  })

  it('of bytes are told in the unit that suits them', () => {
    expect([0, 1, 999_001, 1e6, 12.34e6, 99.96e6, 640e6, 1.26e9, 500e9, 1.5e12].map(bytesText)).toEqual([
      '0 kB',
      '1 kB',
      '1000 kB',
      '1 MB',
      '12.3 MB',
      '100 MB',
      '640 MB',
      '1.3 GB',
      '500 GB',
      '1.5 TB',
    ])
  })
})
