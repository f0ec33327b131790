/**
 * Runs an asynchronous job for the newest request only: while one is under way, later requests wait as one, and only the
 * last of them is run. So a dragged control never queues up work, and results arrive in order.
 */
export function useLatest<A extends unknown[]>(job: (...args: A) => Promise<void>) {
  let running: Promise<void> | null = null
  let waiting: A | null = null

  return function run(...args: A): Promise<void> {
    waiting = args
    running ??= (async () => {
      try {
        while (waiting) {
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
