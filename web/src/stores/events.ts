import { defineStore } from 'pinia'
import { ref } from 'vue'
import type { ShotEvent } from '../api/client'

type Listener = { shot?: (event: ShotEvent) => void; deliveries?: () => void; reconnected?: () => void }

/** The server's events; the browser reconnects by itself. */
export const useEvents = defineStore('events', () => {
  const connected = ref(false)
  const listeners = new Set<Listener>()
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
      listeners.forEach((listener) => listener.shot?.(shot))
    })
    source.addEventListener('deliveries', () => listeners.forEach((listener) => listener.deliveries?.()))
  }

  function close(): void {
    source?.close()
    source = undefined
    wasOpen = false
    connected.value = false
  }

  /** Returns how to stop listening. */
  function listen(listener: Listener): () => void {
    listeners.add(listener)
    return () => listeners.delete(listener)
  }

  return { connected, open, close, listen }
})
