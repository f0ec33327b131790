import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type SavedPosition, type Schemas } from '../../api/client'
import { problemWords } from '../../lib/problemWords'
import { useLatest } from '../../lib/useLatest'

export type Shelf = 'positions' | 'shots' | 'plans' | 'bin'
export const shelves: { value: Shelf; label: string; testId: string }[] = [
  { value: 'positions', label: 'Positions', testId: 'shelf-positions' },
  { value: 'shots', label: 'Kept shots', testId: 'shelf-shots' },
  { value: 'plans', label: 'Kept plans', testId: 'shelf-plans' },
  { value: 'bin', label: 'Bin', testId: 'shelf-bin' },
]

/** What is kept, as the words that are typed find it: positions, the shots and plans kept with them, and the bin. */
export const useLibrary = defineStore('library', () => {
  const search = ref('')
  const shelf = ref<Shelf>('positions')
  const positions = shallowRef<SavedPosition[] | null>(null)
  const kept = shallowRef<Schemas['KeptItem'][] | null>(null)
  const trouble = ref('')
  /** How many each shelf has of what is searched for; none while nothing is. */
  const counts = shallowRef<Record<Shelf, number> | null>(null)

  /** In the order they were asked: the answer to an older word never replaces that to a newer. */
  const load = useLatest(async () => {
    const [words, of] = [search.value.trim(), shelf.value]
    const query = { params: { query: { search: words } } }
    const positionsOf = (deleted: boolean) => ask(client.GET('/api/positions', { params: { query: { search: words, deleted } } }))
    try {
      // What is searched for may stand on another shelf.
      const wants = (s: Shelf) => !!words || s === of
      const [saved, shots, plans, bin] = await Promise.all([
        wants('positions') ? positionsOf(false) : [],
        wants('shots') ? ask(client.GET('/api/library/shots', query)) : [],
        wants('plans') ? ask(client.GET('/api/library/plans', query)) : [],
        wants('bin') ? positionsOf(true) : [],
      ])
      const found = { positions: saved, shots, plans, bin }
      if (of === 'shots' || of === 'plans') kept.value = found[of]
      else positions.value = found[of]
      counts.value = words
        ? { positions: found.positions.length, shots: found.shots.length, plans: found.plans.length, bin: found.bin.length }
        : null
      trouble.value = ''
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      trouble.value = problemWords(e)
    }
  })
  watch(
    search,
    useDebounceFn(() => void load(), 150),
  )
  watch(shelf, () => {
    positions.value = kept.value = null
    void load()
  })

  return { search, shelf, positions, kept, trouble, counts, load }
})
