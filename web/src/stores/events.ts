import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { Shot, ShotEvent } from '../api/client'

type Listener = { shot?: (event: ShotEvent) => void; deliveries?: () => void; reconnected?: () => void }

/** The server's events; the browser reconnects by itself. */
export const useEvents = defineStore('events', () => {
  const connected = ref(false)
  const listeners = new Set<Listener>()
  /** The last event of each shot, for whoever loads one that has moved on meanwhile. */
  const last = new Map<string, ShotEvent>()
  let source: EventSource | undefined
  let wasOpen = false

  function open(): void {
    close()
    source = new EventSource('/api/events')
    source.addEventListener('open', () => {
      connected.value = true
      if (wasOpen) listeners.forEach((listener) => listener.reconnected?.())
      wasOpen = true
    })
    source.addEventListener('error', () => (connected.value = false))
    source.addEventListener('shot', (event) => {
      const shot = JSON.parse((event as MessageEvent<string>).data) as ShotEvent
      last.set(shot.id, shot)
      listeners.forEach((listener) => listener.shot?.(shot))
    })
    source.addEventListener('deliveries', () => listeners.forEach((listener) => listener.deliveries?.()))
  }

  function close(): void {
    source?.close()
    source = undefined
    wasOpen = false
    last.clear()
    connected.value = false
  }

  /** A shot as it was loaded, or as a newer event tells. */
  function newest(shot: Shot): Shot {
    const event = last.get(shot.id)
    return event && event.revision > shot.revision ? { ...shot, ...event } : shot
  }

  /** Returns how to stop listening. */
  function listen(listener: Listener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }

  return { connected, open, close, listen, newest }
})
