import { createPinia, setActivePinia } from 'pinia'
import { beforeEach, describe, expect, it, vi } from 'vitest'
import type { Shot, ShotEvent } from '../api/client'
import { useEvents } from './events'

class Source extends EventTarget {
  static latest: Source
  constructor(readonly path: string) {
    super()
    Source.latest = this
  }
  close(): void {}
  tell(event: ShotEvent): void {
    this.dispatchEvent(new MessageEvent('shot', { data: JSON.stringify(event) }))
  }
}

const event = (revision: number, state: Shot['state']): ShotEvent => ({
  id: 'a',
  shootId: 's',
  revision,
  state,
  progress: revision / 10,
  problem: '',
})
const shot = (revision: number): Shot => ({ ...event(revision, 'waiting'), name: 'engine.jpg' }) as Shot

describe('events', () => {
  beforeEach(() => {
    setActivePinia(createPinia())
    vi.stubGlobal('EventSource', Source)
  })

  it('bring a shot that was loaded before them up to date', () => {
    const events = useEvents()
    events.open()
    Source.latest.tell(event(4, 'ready'))
    expect(events.newest(shot(2))).toMatchObject({ state: 'ready', revision: 4, name: 'engine.jpg' })
  })

  it('never bring a shot back to what it was', () => {
    const events = useEvents()
    events.open()
    Source.latest.tell(event(4, 'ready'))
    expect(events.newest(shot(5)).state).toBe('waiting')
    expect(events.newest({ ...shot(1), id: 'b' }).state).toBe('waiting')
  })

  it('are told to who listens, until it no longer does', () => {
    const events = useEvents()
    events.open()
    const heard: string[] = []
    const stop = events.listen({ shot: (each) => heard.push(each.state) })
    Source.latest.tell(event(1, 'estimating'))
    stop()
    Source.latest.tell(event(2, 'ready'))
    expect(heard).toEqual(['estimating'])
  })
})
