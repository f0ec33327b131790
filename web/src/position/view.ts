import { defineStore } from 'pinia'
import { ref, shallowRef } from 'vue'
import type { BallEntry } from '../api/client'

/** The steps of the work at the table, in the order in which players think. */
export const steps = ['read', 'shot', 'break', 'safety'] as const
export type Step = (typeof steps)[number]
/** Of the shot: how it is set up, what comes of other settings, where the white should go, one's own strokes compared, guessing first, and what is kept. */
export const shotViews = ['set-up', 'what-if', 'there', 'compare', 'guess', 'kept'] as const
export type ShotView = (typeof shotViews)[number]

/** What of the work is open, and what the plan shows instead of the table as it is. The address says the same. */
export const useView = defineStore('view', () => {
  const step = ref<Step>('shot')
  const shotView = ref<ShotView>('set-up')
  /** The balls of a later shot of a plan, looked at instead of those on the table. */
  const ahead = shallowRef<BallEntry[] | null>(null)
  /** What is drawn is another stroke than the one that is set up. */
  const isShotHidden = ref(false)
  /** What the stroke does is not shown before it has been guessed. */
  const isCovered = ref(false)

  function go(to: Step, of?: ShotView) {
    step.value = to
    if (of) shotView.value = of
  }

  function lookAhead(balls: BallEntry[] | null, hidesShot: boolean) {
    ahead.value = balls
    isShotHidden.value = hidesShot
  }

  return { step, shotView, ahead, isShotHidden, isCovered, go, lookAhead }
})
