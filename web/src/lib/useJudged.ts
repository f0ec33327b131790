import { ref } from 'vue'
import { isAbort, Problem } from '../api/client'
import { problemWords } from './problemWords'
import { useLatest } from './useLatest'

/**
 * A question asked again and again while what it is about changes: keeps what was there while something refused is being mended, and says
 * why there is nothing newer.
 */
export function useJudged<T>(job: () => Promise<T>, put: (value: T) => void) {
  /** Why it was refused; empty once it is answered. */
  const refusal = ref('')
  const ask = useLatest(async () => {
    try {
      put(await job())
      refusal.value = ''
    } catch (e) {
      if (isAbort(e)) return
      if (!(e instanceof Problem)) throw e
      refusal.value = problemWords(e)
    }
  })
  return { refusal, ask }
}
