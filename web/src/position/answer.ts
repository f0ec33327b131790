import { defineStore } from 'pinia'
import { computed, shallowRef, toRaw, watch } from 'vue'
import { ask, client, Problem, type Content, type Schemas, type Shot, type Table } from '../api/client'
import { copy } from '../domain/strokes'
import { useLatest } from '../lib/useLatest'
import { useDraft } from './draft'
import { usePlayer } from './player'

/** The answer with every cushion at its event. */
function shotOf({ cushions = [], ...answer }: Schemas['ShotResult']): Shot {
  const events = (answer.simulation?.events ?? []).map((e, i) => ({ ...e, cushion: cushions[i] ?? null }))
  return { ...answer, simulation: { ...answer.simulation, events } }
}

/** What the core says of the stroke that is set up, and of the table it is played on. */
export const useAnswer = defineStore('answer', () => {
  const position = useDraft()
  const players = usePlayer()
  const table = shallowRef<Table | null>(null)
  const shot = shallowRef<Shot | null>(null)

  const refresh = useLatest(async () => {
    try {
      const body = { content: copy<Content>(toRaw(position.content)), player: copy(toRaw(players.player)) }
      shot.value = shotOf(await ask(client.POST('/api/shot', { body })))
      position.refuse(null)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      position.refuse(e)
    }
  })

  const refreshTable = useLatest(async () => {
    try {
      const drawn = await ask(client.POST('/api/table', { body: { conditions: position.content.conditions } }))
      table.value = drawn
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      position.refuse(e)
    }
  })

  watch([() => position.content, () => players.player], () => position.content.balls.length && void refresh(), {
    deep: true,
    immediate: true,
  })
  watch(
    () => JSON.stringify(position.content.conditions),
    () => void refreshTable(),
    { immediate: true },
  )

  /** The aim as it is drawn and struck: a pot's follows from the pot. */
  const aim = computed(() =>
    position.stroke.pot && !position.stroke.free ? (shot.value?.strike.aim ?? position.stroke.aim) : position.stroke.aim,
  )

  return { table, shot, aim, refresh }
})
