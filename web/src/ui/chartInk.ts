import { useDark } from '@vueuse/core'
import { computed } from 'vue'

/** Colours of charts, by theme: what a series is of, and what it is drawn on. */
export function useChartInk() {
  const dark = useDark({ initialValue: 'dark', disableTransition: false })
  return computed(() =>
    dark.value
      ? { text: '#b3c1bb', edge: '#2e4547', main: '#e2b85a', second: '#9fd8d0', missed: '#ff8f78', doubt: '#7f9a93' }
      : { text: '#4c5a56', edge: '#cdc6b0', main: '#8a5f0c', second: '#1f7d73', missed: '#c4553d', doubt: '#93a49d' },
  )
}
