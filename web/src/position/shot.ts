import { defineStore } from 'pinia'
import { computed, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Content, type Schemas, type Shot, type Table } from '../api/client'
import { useAnswer } from '../lib/useAnswer'
import { useLatest } from '../lib/useLatest'
import { useDraft } from './draft'
import { usePlayer } from './player'

/** The answer with every cushion at its event. */
function shotOf({ cushions = [], ...answer }: Schemas['ShotResult']): Shot {
  const events = (answer.simulation?.events ?? []).map((e, i) => ({ ...e, cushion: cushions[i] ?? null }))
  return { ...answer, simulation: { ...answer.simulation, events } }
}

/** What the core says of the stroke that is set up, and of the table it is played on. */
export const useShot = defineStore('shot', () => {
  const position = useDraft()
  const players = usePlayer()
  const table = shallowRef<Table | null>(null)

  const { answer, asked, isStale, problem, again } = useAnswer<{ content: Content; player: Schemas['PlayerEntry'] }, Shot>({
    question: () => (position.ball('white') ? { content: position.content, player: players.player } : null),
    ask: async (body, signal) => shotOf(await ask(client.POST('/api/shot', { body, signal }))),
  })
  // What no control has refused since is refused no more.
  watch(answer, () => position.refuse(null))
  watch(problem, (why) => why && position.refuse(why))

  const refreshTable = useLatest(async () => {
    try {
      const drawn = await ask(client.POST('/api/table', { body: { conditions: position.content.conditions } }))
      table.value = drawn
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      position.refuse(e)
    }
  })
  watch(
    () => JSON.stringify(position.content.conditions),
    () => void refreshTable(),
    { immediate: true },
  )
  // Where the server was away when the table was asked for.
  watch(answer, () => !table.value && void refreshTable())

  /** The aim as it is drawn and struck: a pot's follows from the pot. */
  const aim = computed(() =>
    position.stroke.pot && !position.stroke.free ? (answer.value?.strike.aim ?? position.stroke.aim) : position.stroke.aim,
  )

  /**
   * The content that other questions are asked about: the present one once the shot itself has been answered, so that the path under the
   * finger always comes first.
   */
  const settled = computed<Content>(() => (isStale.value && !position.problem ? asked.value!.content : position.content))

  return { table, shot: answer, asked, isStale, aim, settled, refresh: again }
})
