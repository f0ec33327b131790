import { tryOnScopeDispose } from '@vueuse/core'
import { computed, ref, shallowRef, watch } from 'vue'
import { isAbort, Problem } from '../api/client'
import { keepAnswer, keptAnswer } from './keptAnswers'
import { patience, useRetries } from './retries'

export type AnswerOptions<B, T> = {
  /** What is asked; null while there is nothing to ask. */
  question: () => B | null
  ask: (body: B, signal: AbortSignal) => Promise<T>
  /** Whether anybody looks: otherwise nothing is asked. Always, if not said. */
  isWanted?: () => boolean
  /** How long the question has to rest before it is asked, ms. At once, if not said: then one request at a time and always the newest. */
  rest?: number
  /** Keeps answers by their question, under this name. */
  keepAs?: string
}

/**
 * The answer to a question that changes. It belongs to its question: once another is asked it is stale until that one is answered, and a
 * late answer to an older question never replaces a newer one. A request has a time limit; without an answer it says so, tries again, and
 * mends itself when the server is back.
 */
export function useAnswer<B extends object, T>({ question, ask, isWanted = () => true, rest, keepAs }: AnswerOptions<B, T>) {
  const answer = shallowRef<T | null>(null)
  /** The question that the answer is to. */
  const asked = shallowRef<B | null>(null)
  const problem = shallowRef<Problem | null>(null)
  const isBusy = ref(false)
  const key = computed(() => {
    const body = question()
    return body && JSON.stringify(body)
  })
  const answeredKey = ref<string | null>(null)
  const isStale = computed(() => answer.value !== null && answeredKey.value !== key.value)
  /** The answer, if it is to the present question. */
  const present = computed(() => (isStale.value ? null : answer.value))
  /** No answer has come in time; it is tried again. */
  const isTrying = computed(() => !!problem.value?.isForLater)

  let running: AbortController | null = null
  let waiting: ReturnType<typeof setTimeout> | undefined
  let isOver = false
  const { later, reset } = useRetries(() => void run())

  function put(value: T, of: string) {
    answer.value = value
    asked.value = JSON.parse(of) as B
    answeredKey.value = of
    problem.value = null
    reset()
  }

  function drop() {
    running?.abort()
    running = null
    isBusy.value = false
    clearTimeout(waiting)
  }

  async function run() {
    // While one is under way the newest question waits for it; dropped are those that are costly.
    if (running && rest === undefined) return
    drop()
    reset()
    const of = key.value
    if (of === null || isOver || !isWanted()) return
    const mine = (running = new AbortController())
    const { signal } = mine
    isBusy.value = true
    let isLate = false
    const limit = setTimeout(() => {
      isLate = true
      mine.abort()
    }, patience)
    try {
      const value = await ask(JSON.parse(of) as B, signal)
      if (running !== mine) return
      put(value, of)
      if (keepAs) keepAnswer(keepAs, of, value, true)
    } catch (e) {
      if (running !== mine || (isAbort(e) && !isLate)) return
      const why = isLate ? new Problem(0, 'No answer yet.', '', [], null, 'slow') : e
      if (!(why instanceof Problem)) throw why
      if (of === key.value) problem.value = why
      if (why.isForLater && of === key.value) later()
    } finally {
      clearTimeout(limit)
      if (running === mine) {
        running = null
        isBusy.value = false
        // What was asked meanwhile.
        if (rest === undefined && key.value !== of && !isOver) void run()
      }
    }
  }

  function look() {
    const of = key.value
    clearTimeout(waiting)
    if (of === null || !isWanted()) {
      if (rest !== undefined) drop()
      reset()
      return
    }
    if (of === answeredKey.value && !problem.value) return
    const kept = keepAs ? keptAnswer<T>(keepAs, of) : null
    if (kept) {
      drop()
      return put(kept.value, of)
    }
    if (rest === undefined) return void run()
    // At once frees the cores of what nobody asks any more.
    drop()
    isBusy.value = true
    waiting = setTimeout(() => void run(), rest)
  }
  watch([key, () => isWanted()], look, { immediate: true })

  /** Asks again, though nothing has changed: what the answer stands on has, or the user wants it. */
  function again() {
    answeredKey.value = null
    running?.abort()
    running = null
    return run()
  }

  tryOnScopeDispose(() => {
    isOver = true
    drop()
  })

  return { answer, asked, present, isStale, isBusy, isTrying, problem, again }
}
