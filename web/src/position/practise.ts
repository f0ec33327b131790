import { defineStore } from 'pinia'
import { shallowRef } from 'vue'
import type { BallEntry, Stroke } from '../api/client'
import { copy } from '../domain/strokes'

export type Practised = {
  name: string
  balls: BallEntry[]
  stroke: Stroke
  /** Where the white is to stop, if that is known. */
  stop: { x: number; y: number } | null
}

/** What is to be made a routine: asked for from a position, a kept shot, a plan or a comparison; words and rule are asked for in a dialog. */
export const usePractise = defineStore('practise', () => {
  const asked = shallowRef<Practised | null>(null)
  const ask = (what: Practised) => (asked.value = copy(what))
  const leave = () => (asked.value = null)
  return { asked, ask, leave }
})
