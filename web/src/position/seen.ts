import { createEventHook } from '@vueuse/core'
import type { BallEntry, Stroke } from '../api/client'

type Place = { x: number; y: number }
/** A stroke that was played at the table, and where its balls were seen to stop. */
export type SeenStroke = {
  /** Of the trial: said again, it is a correction. */
  id: string
  balls: BallEntry[]
  stroke: Stroke
  white: Place
  ball: Place | null
}

/** Where a stroke really ended has been said on the plan: told to whoever counts attempts, who answers by `counted`. */
export const seen = createEventHook<SeenStroke & { counted: () => void }>()
