import { computed, ref } from 'vue'
import { Problem } from '../api/client'
import { useNotices } from './notices'
import { detailOf, titleOf } from './problemWords'

/**
 * Runs what may fail and says so in a notice, with a way to try again if the application was away.
 * @param isHandled Told of a problem first; true: it has been seen to, and nothing more is said.
 */
export function useAttempt(isHandled: (problem: Problem) => boolean = () => false) {
  const notices = useNotices()
  const running = ref(0)

  async function attempt(what: () => Promise<void>, failed: string) {
    running.value++
    try {
      await what()
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      if (isHandled(e)) return
      notices.show({
        kind: 'error',
        text: `${failed}: ${titleOf(e)}`,
        detail: detailOf(e),
        action: e.isAway ? { label: 'Try again', run: () => void attempt(what, failed) } : undefined,
      })
    } finally {
      running.value--
    }
  }

  return { busy: computed(() => running.value > 0), attempt }
}
