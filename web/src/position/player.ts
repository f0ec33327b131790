import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import type { Schemas } from '../api/client'
import { useClub } from './club'

export type Player = Required<Schemas['PlayerEntry']>

/** What reach and chances are judged for until the player in hand is known. */
const anybody: Player = { hand: 'right', height: 1.75, skill: 'county', own: null, sideHabit: 'plain', naturalElevation: 3 }

/** The player in hand, as the core is asked about him: hand, height, skill, how the cue lies, and the habit with side. */
export const usePlayer = defineStore('player', () => {
  const club = useClub()
  /** Whose plan is looked at: judged as he is until somebody is taken in hand or changed. */
  const lent = shallowRef<Player | null>(null)
  watch(
    () => club.ids.players,
    () => (lent.value = null),
  )
  const player = computed<Player>(() => {
    if (lent.value) return lent.value
    if (!club.player) return anybody
    const { hand, height, skill, own, sideHabit, naturalElevation } = club.player
    return { hand, height, skill, own, sideHabit, naturalElevation }
  })

  /** Changes a figure at once and keeps it. */
  function set(change: Partial<Player>) {
    const as = { ...lent.value, ...change }
    lent.value = null
    return club.change('players', club.ids.players, as)
  }

  /** Judged as somebody who is not in hand. */
  const playAs = (somebody: Player) => (lent.value = somebody)

  return { player, set, playAs }
})
