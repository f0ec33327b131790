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
  /** Whether an answer is on its way. */
  const isBusy = ref(false)
  const ask = useLatest(async () => {
    isBusy.value = true
    try {
      put(await job())
      refusal.value = ''
    } catch (e) {
      if (isAbort(e)) return
      if (!(e instanceof Problem)) throw e
      refusal.value = problemWords(e)
    } finally {
      isBusy.value = false
    }
  })
  return { refusal, isBusy, ask }
}
