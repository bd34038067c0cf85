/** Shows frames of the small film of a clip: of several that are wanted shortly after each other the newest. */
export function useFilm(url: string, show: (bitmap: ImageBitmap) => void) {
  const video = document.createElement('video')
  video.muted = true
  video.preload = 'auto'
  video.playsInline = true
  video.src = url
  let wanted: number | undefined
  let busy = false
  let closed = false

  async function run(): Promise<void> {
    if (busy || wanted === undefined || closed) return
    busy = true
    const seconds = wanted
    wanted = undefined
    try {
      await seek(seconds)
      const bitmap = await createImageBitmap(video)
      if (closed) bitmap.close()
      else show(bitmap)
    } catch {
      // The film is not there any more, or cannot be played: the server's pictures follow.
    } finally {
      busy = false
      void run()
    }
  }

  function seek(seconds: number): Promise<void> {
    return new Promise((resolve, reject) => {
      if (Math.abs(video.currentTime - seconds) < 1e-4 && video.readyState >= 2 && !video.seeking) return resolve()
      video.addEventListener('seeked', () => resolve(), { once: true })
      video.addEventListener('error', () => reject(new Error('the film cannot be played')), { once: true })
      video.currentTime = seconds
    })
  }

  return {
    /** @param seconds a time within the frame */
    at(seconds: number): void {
      wanted = seconds
      void run()
    },
    close(): void {
      closed = true
      video.removeAttribute('src')
      video.load()
    },
  }
}
