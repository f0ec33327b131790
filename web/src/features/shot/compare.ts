import { useLocalStorage, useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { Schemas, Stroke } from '../../api/client'
import { advised, copy, isSameStroke } from '../../domain/strokes'
import { useSearch } from '../../lib/useSearch'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'

export type Column = Schemas['CompareColumnResult']

/** Most strokes that are compared at once. */
export const mostChoices = 4

/** My own strokes beside one another: they stay with the table that they were set up on. */
export const useCompare = defineStore('compare', () => {
  const position = useDraft()
  const players = usePlayer()
  const shot = useShot()
  const view = useView()
  const rival = useLocalStorage('deep-baize-rival', 'county')

  const table = computed(() => JSON.stringify(position.tableAsked))
  const kept = useSessionStorage<{ table: string; strokes: Stroke[] }>('deep-baize-choices', { table: '', strokes: [] })
  // On another table they are other strokes; undo brings the table back, and them with it.
  const choices = computed(() => (kept.value.table === table.value ? kept.value.strokes : []))
  const keep = (strokes: Stroke[]) => (kept.value = { table: table.value, strokes })

  /** The stroke that is set up; one that is aimed freely keeps its aim. */
  const present = (): Stroke => ({ ...copy(position.stroke), aim: shot.aim })
  const isLaid = computed(() => choices.value.some((s) => isSameStroke(s, present())))
  const isFull = computed(() => choices.value.length >= mostChoices)

  function lay() {
    if (!isFull.value && !isLaid.value) keep([...choices.value, present()])
  }
  const remove = (which: number) => keep(choices.value.filter((_, i) => i !== which))
  const clear = () => keep([])
  const setUp = (stroke: Stroke) => position.look(copy(stroke))
  /** The advice's stroke may be played from another place in the D. */
  const setUpColumn = (column: Column) =>
    position.look(advised(column.stroke, players.player.naturalElevation), position.content.frame?.inHand ? column.white : null)

  const isOpen = computed(() => view.step === 'shot' && view.shotView === 'compare')
  const search = useSearch<Schemas['CompareProgress']>('/api/compare', {
    question: () =>
      choices.value.length >= 2
        ? { content: position.tableAsked, choices: choices.value, player: players.player, rival: rival.value }
        : null,
    body: () => ({ content: position.content, choices: choices.value, player: players.player, rival: rival.value }),
    isWanted: () => isOpen.value,
    rest: 150,
    hasFound: (told) => told.columns.length > 0,
  })

  /** The columns with their letters; the advice's own stroke has a word instead. */
  const columns = computed(() =>
    (search.found.value?.columns ?? []).map((column) => ({
      column,
      name: column.id === 'advice' ? 'Advice' : String.fromCharCode(64 + Number(column.id.slice('choice-'.length))),
    })),
  )
  const nameOf = (id: string) => columns.value.find((c) => c.column.id === id)?.name ?? id

  return {
    choices,
    isLaid,
    isFull,
    isOpen,
    columns,
    nameOf,
    lay,
    remove,
    clear,
    setUp,
    setUpColumn,
    found: search.found,
    wait: search.wait,
    status: search.status,
    since: search.since,
    isSearching: search.isSearching,
    wasStopped: search.wasStopped,
    problem: search.problem,
    stop: search.stop,
    search: search.search,
  }
})
