/**
 * Newest wins: at most one request is under way; while it is, only the newest wish is remembered. While the wishes keep
 * coming drafts are asked for, and once they rest, the final one. What is under way is given up when it would keep the next one waiting: a
 * final one when things move on, a draft when they rest. Drafts wait for each other, so that a long drag shows something. Where drafts are slow,
 * as many others wait as well, what rests is drawn as a draft before the final one, which takes far longer then.
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
  /** A draft that takes longer is slow, in milliseconds; none by default. */
  slow?: number
}

export function usePreviewLoop<Wish, Result>(options: PreviewLoopOptions<Wish, Result>) {
  const rest = options.rest ?? 140
  const slow = options.slow ?? Infinity
  let wanted: { wish: Wish; quality: Quality } | undefined
  let latest: Wish | undefined
  /** What was asked for last as a draft. */
  let drafted: Wish | undefined
  let draftsAreSlow = false
  let busy: Quality | undefined
  let abort: AbortController | undefined
  let timer: ReturnType<typeof setTimeout> | undefined
  let stopped = false

  async function run(): Promise<void> {
    if (busy || !wanted || stopped) return
    const { wish } = wanted
    const quality = draftsAreSlow && drafted !== wish ? 'draft' : wanted.quality
    if (quality === wanted.quality) wanted = undefined
    if (quality === 'draft') drafted = wish
    busy = quality
    abort = new AbortController()
    const start = performance.now()
    options.state(quality === 'draft' ? 'draft' : 'refining')
    try {
      const result = await options.fetch(wish, quality, abort.signal)
      if (result !== null && !stopped && !abort.signal.aborted) {
        const milliseconds = performance.now() - start
        if (quality === 'draft') draftsAreSlow = milliseconds > slow
        options.show(result, quality, milliseconds)
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
    if (moving) giveUp('final')
    else if (!draftsAreSlow || drafted !== wish) giveUp('draft')
    void run()
  }

  function stop(): void {
    stopped = true
    clearTimeout(timer)
    abort?.abort()
  }

  return { request, stop }
}
