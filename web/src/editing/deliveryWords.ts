import { bytesText } from './amounts'
import type { Delivery } from '../api/client'

export const photoFormats: Record<string, string> = {
  jpeg: 'JPEG',
  png8: 'PNG, 8 bit',
  png16: 'PNG, 16 bit',
  tiff8: 'TIFF, 8 bit',
  tiff16: 'TIFF, 16 bit',
  webp: 'WebP',
  avif: 'AVIF',
  'jpeg-depth': 'JPEG with its depth',
}

export const layerFormats: Record<string, string> = {
  openraster: 'OpenRaster, layers',
  'tiff-pages': 'TIFF, layers as pages',
}

export const depthFormats: Record<string, string> = {
  'depth-png16': 'Depth, PNG (16 bit)',
  'depth-tiff32': 'Depth, TIFF (32 bit)',
  'depth-exr32': 'Depth, EXR (32 bit)',
}

export const clipFormats: Record<string, string> = {
  mp4: 'MP4, H.264',
  vp9: 'WebM, VP9',
  av1: 'WebM, AV1',
  ffv1: 'MKV, FFV1 (no loss)',
  'png-frames': 'PNG pictures, zip',
  'tiff-frames': 'TIFF pictures, zip',
  'depth-ffv1': 'Depth, MKV (16 bit)',
  'depth-mp4': 'Depth, MP4 (8 bit)',
  'depth-frames': 'Depth, PNG pictures, zip',
}

export const deliveryFormats: Record<string, string> = {
  ...photoFormats,
  ...layerFormats,
  ...depthFormats,
  ...clipFormats,
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
