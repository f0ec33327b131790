import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed } from 'vue'
import type { Schemas, Stroke } from '../../api/client'
import { advised, copy } from '../../domain/strokes'
import { useSearch } from '../../lib/useSearch'
import { useChoices } from '../../position/choices'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useView } from '../../position/view'

export type Column = Schemas['CompareColumnResult']

/** My own strokes beside one another, and the advice's best. */
export const useCompare = defineStore('compare', () => {
  const position = useDraft()
  const players = usePlayer()
  const view = useView()
  const rival = useLocalStorage('deep-baize-rival', 'county')

  const mine = useChoices()
  const choices = computed(() => mine.choices)
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
    isOpen,
    columns,
    nameOf,
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
