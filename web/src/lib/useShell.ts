import { useMediaQuery } from '@vueuse/core'

/** Which of the shells the window has room for. */
export const useShell = () => ({
  /** Upright, or too narrow for two; lying, or enlarged in a small window, plan and desk stay side by side. */
  isPhone: useMediaQuery('(max-width: 860px) and (orientation: portrait), (max-width: 520px)'),
  /** Tall and narrow: the table stands upright. */
  isUpright: useMediaQuery('(max-width: 599px) and (orientation: portrait)'),
  /** No room for more than what is needed. */
  isSmall: useMediaQuery('(max-width: 860px)'),
})
