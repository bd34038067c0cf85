import { Problem, type Recipe, type Version } from '../api/client'

/** One edit on its way to the server. */
export type PendingEdit = { step: string; recipe: Recipe }
export type SavingState = 'saved' | 'saving' | 'offline' | 'conflict' | 'refused'

export type SavingOptions = {
  send: (edit: PendingEdit, lock: number) => Promise<Version>
  saved: (version: Version, more: boolean) => void
  state: (state: SavingState, message: string) => void
  /** Where unsent edits outlive a reload. */
  storage: { load: () => PendingEdit[]; save: (edits: PendingEdit[]) => void }
  /** Milliseconds between tries while there is no connection; default 2500. */
  retry?: number
}

/**
 * Sends edits one after the other. While the server or its database is away they are kept, also over a reload, and sent
 * when it is back; when another tab was faster, nothing more is sent and the person decides.
 */
export function useSaving(options: SavingOptions) {
  let queue: PendingEdit[] = options.storage.load()
  let lock = 0
  let busy = false
  let halted = false
  let timer: ReturnType<typeof setTimeout> | undefined
  let waiting: ReturnType<typeof setTimeout> | undefined
  let listeners: ((sent: boolean) => void)[] = []

  function tell(sent: boolean): void {
    const told = listeners
    listeners = []
    told.forEach((listener) => listener(sent))
  }

  function keep(): void {
    options.storage.save(queue)
  }

  async function run(): Promise<void> {
    clearTimeout(waiting)
    waiting = undefined
    const edit = queue[0]
    if (busy || halted || !edit) return
    busy = true
    options.state('saving', '')
    try {
      const version = await options.send(edit, lock)
      lock = version.lock
      queue.shift()
      keep()
      // Who has moved on meanwhile shows another version.
      if (halted) return
      options.saved(version, queue.length > 0)
      if (queue.length === 0) options.state('saved', '')
    } catch (fault) {
      handle(fault as Problem)
      tell(false)
    } finally {
      busy = false
      if (queue.length === 0) tell(true)
      if (timer === undefined) void run()
    }
  }

  function handle(fault: Problem): void {
    if (fault.passing) {
      options.state('offline', 'The server cannot be reached. Your edit is kept and will be sent when it is back.')
      timer = setTimeout(() => {
        timer = undefined
        void run()
      }, options.retry ?? 2500)
    } else if (fault.status === 409) {
      halted = true
      options.state('conflict', fault.message)
    } else {
      // An edit that the server will never take must not block those after it.
      queue.shift()
      keep()
      options.state('refused', fault.message)
    }
  }

  return {
    /** Starts from this lock number; sends what an earlier page left behind. */
    begin(version: Version): void {
      lock = version.lock
      halted = false
      void run()
    },
    /** Sends an edit; `wait` milliseconds later where something else should come first. */
    push(edit: PendingEdit, wait = 0): void {
      queue.push(edit)
      keep()
      if (!wait) return void run()
      if (!halted && timer === undefined) options.state('saving', '')
      waiting ??= setTimeout(() => void run(), wait)
    },
    /** The newest recipe that is not on the server yet. */
    newest: (): Recipe | undefined => queue.at(-1)?.recipe,
    /** Settles when nothing is left to send, with false when something could not be sent for now. */
    whenSent: (): Promise<boolean> => {
      if (queue.length === 0 || halted) return Promise.resolve(queue.length === 0)
      if (timer === undefined) void run()
      return new Promise((resolve) => listeners.push(resolve))
    },
    lock: (): number => lock,
    /** Gives up what is not sent. */
    discard(): void {
      queue = []
      keep()
    },
    /** What waits is sent all the same. */
    stop(): void {
      if (waiting !== undefined) void run()
      halted = true
      tell(false)
      clearTimeout(timer)
    },
  }
}
