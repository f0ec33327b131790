import { useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, watch } from 'vue'
import type { Schemas } from '../api/client'
import { useShot } from './shot'
import { useDraft } from './draft'

type Entry = Schemas['GoalEntry']
export type GoalKind = 'stop' | 'cannon' | 'gap' | 'past' | 'angle' | 'cushion' | 'frees' | 'drift'
/** One thing that the white is to do. Which fields count depends on the kind. */
export type Goal = {
  kind: GoalKind
  /** Where the white is to stop, m; null until it is pointed at. */
  place: { x: number; y: number } | null
  radius: number
  ball: string
  fullness: 'any' | 'fine' | 'half' | 'full'
  speed: 'any' | 'gentle' | 'firm'
  /** The other side of a gap. */
  other: string
  pocket: string
  /** Of a ball that is passed: at most so far, m. */
  past: number
  /** Of the angle on the next ball, degrees. */
  least: number
  most: number
  /** A place of a cushion, pointed at. */
  cushion: { name: string; at: number } | null
  within: number
  /** From the contact, m. */
  by: number
}
const oneGoal = (): Goal => ({
  kind: 'stop',
  place: null,
  radius: 0.15,
  ball: '',
  fullness: 'any',
  speed: 'any',
  other: '',
  pocket: 'green-top',
  past: 0.15,
  least: 10,
  most: 35,
  cushion: null,
  within: 0.1,
  by: 0.5,
})
type Goals = Goal & {
  /** Another thing, and whether both are wanted or one is enough. */
  second: Goal | null
  join: 'and' | 'or'
  noCushion: boolean
}

const fullnesses = { any: null, fine: 0.2, half: 0.5, full: 0.9 }
/** m/s of the white as it meets the ball. */
const speeds = { any: {}, gentle: { fastest: 0.7 }, firm: { slowest: 1.2 } }

/** One goal as the core takes it; null while it is not complete. */
function entryOf(g: Goal): Entry | null {
  switch (g.kind) {
    case 'stop':
      return g.place && { ...g.place, radius: g.radius }
    case 'cannon':
      return g.ball ? { ball: g.ball, fullness: fullnesses[g.fullness], ...speeds[g.speed] } : null
    case 'gap':
      return g.ball && g.other && g.ball !== g.other ? { kind: 'gap', ball: g.ball, other: g.other } : null
    case 'past':
      return g.ball ? { kind: 'past', ball: g.ball, least: 0, most: g.past } : null
    case 'angle':
      return g.ball ? { kind: 'angle', ball: g.ball, pocket: g.pocket, least: g.least, most: g.most } : null
    case 'cushion':
      return g.cushion && { kind: 'cushion', cushion: g.cushion.name, at: g.cushion.at, within: g.within }
    case 'frees':
      return g.ball ? { kind: 'frees', ball: g.ball, pocket: g.pocket } : null
    default:
      return { kind: 'drift', by: g.by, within: g.within }
  }
}

/** What the white is to do: kept for this tab. */
export const useGoal = defineStore('goal', () => {
  const goal = useSessionStorage<Goals>(
    'deep-baize-goal',
    { ...oneGoal(), second: null, join: 'and', noCushion: false },
    { mergeDefaults: true },
  )

  /** As the core takes it; null while it is not complete. */
  const entry = computed<Entry | null>(() => {
    const g = goal.value
    const first = entryOf(g)
    if (!first) return null
    const second = g.second && entryOf(g.second)
    if (second && g.join === 'or') return { ...first, any: [second] }
    const all: Entry[] = [...(second ? [second] : []), ...(g.noCushion ? [{ kind: 'noCushion' as const }] : [])]
    return all.length ? { ...first, all } : first
  })
  const addSecond = () => (goal.value.second = oneGoal())
  const dropSecond = () => (goal.value.second = null)
  const goals = computed(() => [goal.value as Goal, ...(goal.value.second ? [goal.value.second] : [])])
  /** The one that a touch of the plan is for: one that still waits for a place, or else the first that has one. */
  const pointed = computed(() => {
    const byPlace = goals.value.filter((g) => g.kind === 'stop' || g.kind === 'cushion')
    return byPlace.find((g) => !entryOf(g)) ?? byPlace[0] ?? null
  })

  /** What to know of the shot that is set up, without the contact that is asked for. */
  const answer = useShot()
  const position = useDraft()
  const warnings = computed(() =>
    (answer.shot?.warnings ?? []).filter(
      (w) => !(w.kind === 'kiss' && goals.value.some((g) => (g.kind === 'cannon' || g.kind === 'frees') && w.ball === g.ball)),
    ),
  )
  // Another position asks anew.
  watch(
    () => position.origin?.id,
    (_, before) => before && Object.assign(goal.value, { place: null, ball: '', other: '', cushion: null, second: null }),
  )

  return { goal, goals, entry, pointed, warnings, addSecond, dropSecond }
})
