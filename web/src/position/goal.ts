import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import type { Schemas } from '../api/client'
import { useShot } from './shot'
import { useDraft } from './draft'

export type Goal = {
  kind: 'stop' | 'cannon'
  /** Where the white is to stop, m; null until it is pointed at. */
  place: { x: number; y: number } | null
  radius: number
  ball: string
  fullness: 'any' | 'fine' | 'half' | 'full'
  speed: 'any' | 'gentle' | 'firm'
}

const fullnesses = { any: null, fine: 0.2, half: 0.5, full: 0.9 }
/** m/s of the white as it meets the ball. */
const speeds = { any: {}, gentle: { fastest: 0.7 }, firm: { slowest: 1.2 } }

/** What the white is to do: kept for this tab. */
export const useGoal = defineStore('goal', () => {
  const goal = useSessionStorage<Goal>(
    'deep-baize-goal',
    { kind: 'stop', place: null, radius: 0.15, ball: '', fullness: 'any', speed: 'any' },
    { mergeDefaults: true },
  )

  /** As the core takes it; null while it is not complete. */
  const entry = computed<Schemas['GoalEntry'] | null>(() => {
    const g = goal.value
    if (g.kind === 'stop') return g.place && { ...g.place, radius: g.radius }
    return g.ball ? { ball: g.ball, fullness: fullnesses[g.fullness], ...speeds[g.speed] } : null
  })

  /** What to know of the shot that is set up, without the contact that is asked for. */
  const answer = useShot()
  const position = useDraft()
  const warnings = computed(() =>
    (answer.shot?.warnings ?? []).filter((w) => !(w.kind === 'kiss' && goal.value.kind === 'cannon' && w.ball === goal.value.ball)),
  )
  // Another position asks anew.
  watch(
    () => position.origin?.id,
    (_, before) => before && Object.assign(goal.value, { place: null, ball: '' }),
  )

  return { goal, entry, warnings }
})
