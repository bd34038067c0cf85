import { describe, expect, it } from 'vitest'
import { sourceLine, UNTRIMMED, usualSnap } from './depthWords'

const map = { source: 'estimated', origin: 'learned', hash: 'x', quality: 'best', confidence: 0.95, nearMetres: 0, farMetres: 0 }

describe('what is said of a depth map', () => {
  it('says what an estimate found', () => {
    expect(sourceLine(map, 'estimated')).toBe('learned, best, clear subject')
    expect(sourceLine({ ...map, quality: 'draft', confidence: 0.3 }, 'estimated')).toBe('learned, draft, no clear subject')
    expect(sourceLine({ ...map, origin: 'layout', confidence: null as unknown as number }, 'estimated')).toBe('layout, best')
  })

  it('gives the distances of a camera', () => {
    const camera = { ...map, source: 'camera', origin: 'depth metadata', nearMetres: 0.7, farMetres: 12 }
    expect(sourceLine(camera, 'camera')).toBe('depth metadata, 0.70 m to 12.0 m')
    expect(sourceLine({ ...camera, farMetres: 1000 }, 'camera')).toBe('depth metadata, 0.70 m to far away')
  })

  it('says why a source cannot be chosen', () => {
    expect(sourceLine(undefined, 'camera')).toBe('none stored in the photo')
    expect(sourceLine(undefined, 'file')).toBe('none brought in')
  })

  it('leaves nothing trimmed and snaps what is soft', () => {
    expect(UNTRIMMED).toEqual({ flip: false, farEnd: 0, nearEnd: 1, bend: 0, edges: 0, settle: 0 })
    expect(usualSnap.estimated).toBeGreaterThan(usualSnap.camera)
    expect(usualSnap.file).toBe(0)
  })
})
