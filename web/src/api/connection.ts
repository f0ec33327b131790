import { createEventHook } from '@vueuse/core'
import { ref } from 'vue'

/** Whether the server has failed to answer the last request that reached for it. */
export const isAway = ref(false)

const back = createEventHook<void>()

/** Runs when the server answers again after it did not. */
export const onBack = back.on

/** Every request says what became of it. */
export function answered() {
  if (!isAway.value) return
  isAway.value = false
  void back.trigger()
}
export function notAnswered() {
  isAway.value = true
}
if (typeof window !== 'undefined') window.addEventListener('online', () => void back.trigger())
