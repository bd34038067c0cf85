import { describe, expect, it } from 'vitest'
import type { Shot } from '../api/client'
import { usualDepth } from '../api/generated/settings'
import { sourceLine, trims } from './depthWords'

const map: Shot['depths'][number] = {
  source: 'estimated',
  origin: 'learned',
  hash: 'x',
  quality: 'best',
  confidence: 0.95,
  nearMetres: null,
  farMetres: null,
}

describe('what is said of a depth map', () => {
  it('says what an estimate found', () => {
    expect(sourceLine(map, 'estimated')).toBe('learned, best, clear subject')
    expect(sourceLine({ ...map, quality: 'draft', confidence: 0.3 }, 'estimated')).toBe(
      'learned, draft, no clear subject',
    )
    expect(sourceLine({ ...map, origin: 'layout', confidence: null }, 'estimated')).toBe('layout, best')
  })

  it('gives the distances of a camera', () => {
    const camera: typeof map = { ...map, source: 'camera', origin: 'depth metadata', nearMetres: 0.7, farMetres: 12 }
    expect(sourceLine(camera, 'camera')).toBe('depth metadata, 0.70 m to 12.0 m')
    expect(sourceLine({ ...camera, farMetres: 1000 }, 'camera')).toBe('depth metadata, 0.70 m to far away')
  })

  it('says why a source cannot be chosen', () => {
    expect(sourceLine(undefined, 'camera')).toBe('none stored in the photo')
    expect(sourceLine(undefined, 'file')).toBe('none brought in')
  })

  it('knows the corrections of a map from its source', () => {
    expect(Object.keys(trims(usualDepth)).sort()).toEqual(['bend', 'edges', 'farEnd', 'flip', 'nearEnd', 'settle'])
  })
})
