/**
 * Newest wins: at most one request is under way; while it is, only the newest wish is remembered. While the wishes keep
 * coming drafts are asked for, and once they rest, the final one. What is under way is given up when it would keep the next one waiting: a
 * final one when things move on, a draft when they rest. Drafts wait for each other, so that a long drag shows something.
 */
export type Quality = 'draft' | 'final'
export type PreviewState = 'idle' | 'draft' | 'refining' | 'final' | 'failed'

export type PreviewLoopOptions<Wish, Result> = {
  /** Fetches a preview; resolves to null when the server dropped it for a newer one. */
  fetch: (wish: Wish, quality: Quality, signal: AbortSignal) => Promise<Result | null>
  show: (result: Result, quality: Quality, milliseconds: number) => void
  state: (state: PreviewState, fault?: unknown) => void
  /** How long wishes must rest before the final preview is asked for, in milliseconds; default 140. */
  rest?: number
}

export function usePreviewLoop<Wish, Result>(options: PreviewLoopOptions<Wish, Result>) {
  const rest = options.rest ?? 140
  let wanted: { wish: Wish; quality: Quality } | undefined
  let latest: Wish | undefined
  let busy: Quality | undefined
  let abort: AbortController | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let stopped = false

  async function run(): Promise<void> {
    if (busy || !wanted || stopped) return
    const { wish, quality } = wanted
    wanted = undefined
    busy = quality
    abort = new AbortController()
    const start = performance.now()
    options.state(quality === 'draft' ? 'draft' : 'refining')
    try {
      const result = await options.fetch(wish, quality, abort.signal)
      if (result !== null && !stopped && !abort.signal.aborted) {
        options.show(result, quality, performance.now() - start)
        if (!wanted) options.state(quality === 'draft' ? 'draft' : 'final')
      }
    } catch (fault) {
      if (!abort.signal.aborted && !stopped) options.state('failed', fault)
    } finally {
      busy = undefined
      void run()
    }
  }

  function giveUp(quality: Quality): void {
    if (busy === quality) abort?.abort()
  }

  /** A draft that is still under way then is shown first: where drafts take longer than a rest nothing would ever be. */
  function finish(): void {
    timer = undefined
    if (latest === undefined) return
    wanted = { wish: latest, quality: 'final' }
    void run()
  }

  /** Wishes for a preview; `moving` says that more will follow at once. */
  function request(wish: Wish, moving: boolean): void {
    latest = wish
    clearTimeout(timer)
    wanted = { wish, quality: moving ? 'draft' : 'final' }
    if (moving) timer = setTimeout(finish, rest)
    giveUp(moving ? 'final' : 'draft')
    void run()
  }

  function stop(): void {
    stopped = true
    clearTimeout(timer)
    abort?.abort()
  }

  return { request, stop }
}
