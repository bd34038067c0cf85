import type { Delivery } from '../api/client'

export const deliveryFormats: Record<string, string> = {
  jpeg: 'JPEG',
  png8: 'PNG, 8 bit',
  png16: 'PNG, 16 bit',
  tiff16: 'TIFF, 16 bit',
}

export function bytesText(bytes: number): string {
  return bytes < 1e6 ? `${Math.max(1, Math.round(bytes / 1e3))} kB` : `${(bytes / 1e6).toFixed(1)} MB`
}

export function progressText(delivery: Delivery): string {
  switch (delivery.state) {
    case 'waiting':
      return 'waiting'
    case 'rendering':
      return `${Math.round(delivery.progress * 100)} %`
    case 'done':
      return bytesText(delivery.bytes ?? 0)
    case 'failed':
      return delivery.problem ?? 'failed'
    default:
      return 'cancelled'
  }
}
