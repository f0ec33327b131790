import { tryOnScopeDispose } from '@vueuse/core'

/**
 * Runs an asynchronous job for the newest request only: while one is under way, later requests wait as one, and only the
 * last of them is run. So a dragged control never queues up work, and results arrive in order.
 */
export function useLatest<A extends unknown[]>(job: (...args: A) => Promise<void>) {
  let running: Promise<void> | null = null
  let waiting: A | null = null
  // What has started it is gone: the job under way is the last.
  let isOver = false
  tryOnScopeDispose(() => (isOver = true))

  return function run(...args: A): Promise<void> {
    waiting = args
    running ??= (async () => {
      try {
        while (waiting && !isOver) {
          const next: A = waiting
          waiting = null
          await job(...next)
        }
      } finally {
        running = null
      }
    })()
    return running
  }
}
