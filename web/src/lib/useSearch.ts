import { tryOnScopeDispose } from '@vueuse/core'
import { ref, shallowRef, watch } from 'vue'
import { follow, Problem } from '../api/client'
import type { paths } from '../api/schema'

/**
 * A long search that the server tells as a stream: one at a time, dropped as soon as it is no longer wanted.
 * @param what Its name, for when the connection breaks.
 * @param body What is asked; null while nothing is wanted.
 * @param tell Each event.
 */
export function useSearch<T>(path: keyof paths, what: string, body: () => object | null, tell: (event: T) => void) {
  const isSearching = ref(false)
  const wasStopped = ref(false)
  const problem = shallowRef<Problem | null>(null)
  let running = new AbortController()
  let waiting: ReturnType<typeof setTimeout> | undefined

  /** At once frees the cores of what nobody asks any more. */
  function drop() {
    running.abort()
    clearTimeout(waiting)
    isSearching.value = false
  }

  /** The user's own wish. */
  function stop() {
    const was = isSearching.value
    drop()
    wasStopped.value = was
  }

  async function search() {
    drop()
    running = new AbortController()
    const { signal } = running
    wasStopped.value = false
    problem.value = null
    const asked = body()
    if (!asked) return
    isSearching.value = true
    try {
      await follow<T>(path, asked, signal, (event) => {
        if (!signal.aborted) tell(event)
      })
    } catch (e) {
      if (signal.aborted) return
      if (e instanceof Problem) problem.value = e
      // A connection that breaks off in the stream.
      else if (e instanceof TypeError) problem.value = new Problem(0, `${what} broke off.`, 'Is Deep Baize still running?')
      else throw e
    }
    if (!signal.aborted) isSearching.value = false
  }

  /** Asks anew when the question has changed and the hand rests. */
  function follows(question: () => string, rest: number, isAnswered: (question: string) => boolean = () => false) {
    watch(question, (now) => {
      if (isAnswered(now)) return
      drop()
      waiting = setTimeout(() => void search(), rest)
    })
  }

  tryOnScopeDispose(drop)

  return { isSearching, wasStopped, problem, drop, stop, search, follows }
}
