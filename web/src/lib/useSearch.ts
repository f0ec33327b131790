import { tryOnScopeDispose } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { follow, isAbort, Problem, type Schemas } from '../api/client'
import type { paths } from '../api/schema'
import { keepAnswer, keptAnswer } from './keptAnswers'
import { patience, useRetries } from './retries'

/** What every search tells on its way. */
export type Progress = { share: number; wait?: Schemas['SearchWait'] | null; status?: Schemas['SearchStatus'] | null }

export type SearchOptions<T> = {
  /** What the answer depends on; null while there is nothing to ask. */
  question: () => object | null
  /** What is sent, if that is more than the question. */
  body?: () => object
  /** Whether anybody looks: then the search begins. One that is under way goes on when nobody does. */
  isWanted: () => boolean
  /** How long the question has to rest before it is asked, ms. */
  rest: number
  /** Whether it is begun by a press and not by itself. */
  isAsked?: boolean
  /** Whether something told is an answer already, not only that the search has begun. */
  hasFound: (told: T) => boolean
}

/**
 * A long search that the server tells as a stream. What it has found belongs to its question: it is kept by it, shown again at once when
 * the same is asked, and gone as soon as something else is. A search that breaks off, or falls silent, keeps what it has found and begins
 * anew by itself; what it tells then is shown once it is as far as before.
 */
export function useSearch<T extends Progress>(
  path: keyof paths,
  { question, body, isWanted, rest, isAsked = false, hasFound }: SearchOptions<T>,
) {
  const found = shallowRef<T | null>(null)
  const wait = shallowRef<Schemas['SearchWait'] | null>(null)
  const status = shallowRef<Schemas['SearchStatus'] | null>(null)
  const isSearching = ref(false)
  const wasStopped = ref(false)
  const problem = shallowRef<Problem | null>(null)
  const key = computed(() => {
    const asked = question()
    return asked && JSON.stringify(asked)
  })
  /** When the search that is under way began, ms. */
  const since = ref(0)

  let running = new AbortController()
  let waiting: ReturnType<typeof setTimeout> | undefined
  let shownKey: string | null = null
  const { later, reset } = useRetries(() => void search())

  /** At once frees the cores of what nobody asks any more. */
  function drop() {
    running.abort()
    clearTimeout(waiting)
    reset()
    isSearching.value = false
  }

  /** The user's own wish. */
  function stop() {
    const was = isSearching.value
    drop()
    problem.value = null
    wasStopped.value = was
  }

  /** Shows what is known of the present question. */
  function show(of: string | null) {
    if (of === shownKey) return
    shownKey = of
    const kept = of === null ? null : keptAnswer<T>(path, of)
    found.value = kept?.value ?? null
    status.value = kept?.value.status ?? null
    wait.value = null
    problem.value = null
    wasStopped.value = false
  }

  /** Takes an answer that was found elsewhere (a kept plan) as that to the present question. */
  function take(value: T) {
    drop()
    shownKey = key.value
    found.value = value
    status.value = value.status ?? null
    problem.value = null
    wasStopped.value = false
    if (shownKey !== null) keepAnswer(path, shownKey, value, true)
  }

  function tell(event: T, of: string) {
    wait.value = event.wait ?? null
    status.value = event.status ?? null
    // Begun anew: what was found stays until there is as much again.
    if (hasFound(event) && event.share >= (found.value?.share ?? 0)) {
      found.value = event
      keepAnswer(path, of, event, event.share >= 1)
    } else if (!found.value || !hasFound(found.value)) found.value = event
  }

  async function search() {
    drop()
    const of = key.value
    show(of)
    wasStopped.value = false
    if (of === null) return
    const mine = (running = new AbortController())
    const { signal } = mine
    isSearching.value = true
    since.value = Date.now()
    let isSilent = false
    let silence: ReturnType<typeof setTimeout> | undefined
    const listen = () => {
      clearTimeout(silence)
      silence = setTimeout(() => {
        isSilent = true
        mine.abort()
      }, patience)
    }
    listen()
    try {
      await follow<T>(path, body?.() ?? question()!, signal, (event) => {
        if (signal.aborted) return
        listen()
        problem.value = null
        tell(event, of)
      })
      if (!signal.aborted) problem.value = null
    } catch (e) {
      if (signal.aborted && !isSilent) return
      const why =
        isSilent || isAbort(e)
          ? new Problem(0, 'No answer yet.', '', [], null, 'slow')
          : // A connection that breaks off in the stream.
            e instanceof TypeError
            ? new Problem(0, 'The connection was lost.', '', [], null, 'away')
            : e
      if (!(why instanceof Problem)) throw why
      problem.value = why
      if (why.isForLater) later()
    } finally {
      clearTimeout(silence)
      if (running === mine) isSearching.value = false
    }
  }

  /** Whether the present question has its whole answer, or was stopped, or refused. */
  const isSettled = () => wasStopped.value || isSearching.value || (found.value?.share ?? 0) >= 1 || !!status.value?.isCut

  watch(
    [key, () => isWanted()],
    ([of, wanted]) => {
      if (of !== shownKey) {
        drop()
        show(of)
      }
      clearTimeout(waiting)
      if (of === null || !wanted || isAsked || isSettled()) return
      waiting = setTimeout(() => void search(), rest)
    },
    { immediate: true },
  )

  tryOnScopeDispose(drop)

  return { found, wait, status, since, isSearching, wasStopped, problem, drop, stop, search, take }
}
