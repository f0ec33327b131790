import { tryOnScopeDispose } from '@vueuse/core'
import { onBack } from '../api/connection'

/** Time limit of a request that answers at once, and of the silence of a search, ms. */
export const patience = 10_000

const soonest = 1000
const latest = 15_000

/** Tries again by itself after growing pauses, and at once when the server is back. */
export function useRetries(again: () => void) {
  let pause = soonest
  let timer: ReturnType<typeof setTimeout> | undefined
  function run() {
    if (timer === undefined) return
    clear()
    again()
  }
  function clear() {
    clearTimeout(timer)
    timer = undefined
  }
  /** Nothing more is tried, and the next pause is short again. */
  function reset() {
    clear()
    pause = soonest
  }
  function later() {
    clear()
    timer = setTimeout(run, pause)
    pause = Math.min(latest, pause * 1.7)
  }
  const { off } = onBack(run)
  tryOnScopeDispose(() => {
    off()
    clear()
  })
  return { later, reset }
}
