import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ask, client, Problem, type Schemas } from '../api/client'
import { useNotices } from '../lib/notices'
import { detailOf, titleOf } from '../lib/problemWords'

export type Player = Required<Schemas['PlayerEntry']>

/** Who plays: hand, height, skill, and the habit with side. Kept in the database. */
export const usePlayer = defineStore('player', () => {
  const notices = useNotices()
  const player = ref<Player>({ hand: 'right', height: 1.75, skill: 'county', own: null, sideHabit: 'plain', naturalElevation: 3 })

  async function load() {
    player.value = (await ask(client.GET('/api/player'))) as Player
  }

  /** Changes a figure at once and keeps it; says so if it could not be kept. */
  async function set(change: Partial<Player>) {
    const before = player.value
    player.value = { ...player.value, ...change }
    try {
      await ask(client.PUT('/api/player', { body: player.value }))
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      // Away: the page goes on with it. Refused: back to what was there.
      if (!e.isAway) player.value = before
      notices.show({ kind: 'error', text: `The player is not saved: ${titleOf(e)}`, detail: detailOf(e) })
    }
  }

  return { player, load, set }
})
