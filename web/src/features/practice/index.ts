import type { Feature } from '../../position/feature'
import { useCounting } from './counting'
import { reasons } from './words'

/** Routines and counted attempts: what the keyboard does at a session. */
export function usePracticeFeature(): Feature {
  const counting = useCounting()
  const here = { place: 'session', endsItself: true }
  return {
    commands: [
      { id: 'count-done', name: 'at a session: count an attempt as done', key: 'd', ...here, run: () => counting.say(true) },
      { id: 'count-not', name: 'at a session: count an attempt as not done', key: 'n', ...here, run: () => counting.say(false) },
      ...reasons.map((reason, i) => ({
        id: `count-${reason}`,
        name: `at a session: why the last one was not done: ${reason}`,
        key: String((i + 1) % 10),
        ...here,
        run: () => counting.reason(reason),
      })),
      { id: 'count-undo', name: 'at a session: undo the last attempt', key: 'ctrl+z', ...here, run: () => counting.undo() },
      { id: 'count-next', name: 'at a session: the next step', key: 'arrowright', ...here, run: () => counting.goStep(1) },
      { id: 'count-previous', name: 'at a session: the step before', key: 'arrowleft', ...here, run: () => counting.goStep(-1) },
      { id: 'count-side', name: 'at a session: from the other side of the table', key: 'm', ...here, run: () => counting.turn() },
    ],
  }
}
