import { defineStore } from 'pinia'
import { ref } from 'vue'
import { ask, client, Problem, type Schemas } from '../api/client'
import { useNotices } from '../lib/notices'
import { detailOf, titleOf } from '../lib/problemWords'

export type Player = Required<Schemas['PlayerEntry']>
type Stored = Schemas['StoredPlayer']

/** Who plays: hand, height, skill, and the habit with side. Kept in the database. */
export const usePlayer = defineStore('player', () => {
  const notices = useNotices()
  const player = ref<Player>({ hand: 'right', height: 1.75, skill: 'county', own: null, sideHabit: 'plain', naturalElevation: 3 })

  /** As it was read, or saved last: a save over somebody else's newer one is noticed by it. */
  let version = 0
  /** One save after the other: each knows the version that the one before has made. */
  let saved: Promise<void> = Promise.resolve()

  function take({ version: newest, ...figures }: Stored) {
    version = newest
    return figures as Player
  }

  async function load() {
    player.value = take(await ask(client.GET('/api/player')))
  }

  /** Changes a figure at once and keeps it; says so if it could not be kept. */
  function set(change: Partial<Player>) {
    const before = player.value
    player.value = { ...player.value, ...change }
    const wanted = player.value
    return (saved = saved.then(() => save(wanted, before)))
  }

  async function save(wanted: Player, before: Player) {
    try {
      version = (await ask(client.PUT('/api/player', { body: { ...wanted, version } }))).version
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      if (e.code === 'conflict' && e.current) {
        player.value = take(e.current)
        notices.show({ kind: 'error', text: 'The player was changed elsewhere. These are the newer figures; change them once more.' })
        return
      }
      // Away: the page goes on with it. Refused: back to what was there.
      if (!e.isAway) player.value = before
      notices.show({ kind: 'error', text: `The player is not saved: ${titleOf(e)}`, detail: detailOf(e) })
    }
  }

  return { player, load, set }
})
