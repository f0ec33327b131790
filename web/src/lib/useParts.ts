import { ref } from 'vue'

/** How much is shown of a list that may be long: some at first, and some more each time it is wanted. */
export function useParts(load: () => unknown, step = 50) {
  const shown = ref(step)
  /** So many there are in all. */
  const total = ref(0)

  /** Of another list. */
  function fromStart() {
    shown.value = step
  }

  function more() {
    shown.value = Math.min(total.value, shown.value + step)
    void load()
  }

  return { shown, total, fromStart, more }
}
