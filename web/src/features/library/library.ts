import { useDebounceFn } from '@vueuse/core'
import { defineStore } from 'pinia'
import { ref, shallowRef, watch } from 'vue'
import { askList, client, Problem, type PositionItem, type Schemas } from '../../api/client'
import { kept as keptOnDevice } from '../../lib/device'
import { keepAnswer, keptAnswer } from '../../lib/keptAnswers'
import { problemWords } from '../../lib/problemWords'
import { useLatest } from '../../lib/useLatest'
import { useParts } from '../../lib/useParts'

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
  const positions = shallowRef<PositionItem[] | null>(null)
  const kept = shallowRef<Schemas['KeptItem'][] | null>(null)
  const trouble = ref('')
  /** How many each shelf has of what is searched for; none while nothing is. */
  const counts = shallowRef<Record<Shelf, number> | null>(null)

  const parts = useParts(() => load())
  type Found = { items: PositionItem[] | Schemas['KeptItem'][]; total: number }
  function show(of: Shelf, found: Found) {
    if (of === 'shots' || of === 'plans') kept.value = found.items as Schemas['KeptItem'][]
    else positions.value = found.items as PositionItem[]
    parts.total.value = found.total
  }

  /** In the order they were asked: the answer to an older word never replaces that to a newer. */
  const load = useLatest(async () => {
    const [words, of] = [search.value.trim(), shelf.value]
    const none = { items: [], total: 0 }
    // What the shelf held last is there at once.
    const before = keptAnswer<Found>('library', `${of} ${words}`)
    if (before) show(of, before.value)
    /** Of another shelf than this it is asked only how many there are. */
    const wanted = (s: Shelf) => (s === of ? parts.shown.value : 1)
    const listed = <T>(s: Shelf, part: Parameters<typeof askList<T>>[0]) =>
      keptOnDevice(`library ${s} ${words}`, () => askList(part, wanted(s)))
    const positionsOf = (s: Shelf, deleted: boolean) =>
      listed(s, (range) => client.GET('/api/positions', { params: { query: { search: words, deleted, ...range } } }))
    const keptOf = (s: 'shots' | 'plans') =>
      listed(s, (range) => client.GET(`/api/library/${s}`, { params: { query: { search: words, ...range } } }))
    try {
      // What is searched for may stand on another shelf.
      const wants = (s: Shelf) => !!words || s === of
      const [saved, shots, plans, bin] = await Promise.all([
        wants('positions') ? positionsOf('positions', false) : none,
        wants('shots') ? keptOf('shots') : none,
        wants('plans') ? keptOf('plans') : none,
        wants('bin') ? positionsOf('bin', true) : none,
      ])
      const found = { positions: saved, shots, plans, bin }
      show(of, found[of])
      keepAnswer('library', `${of} ${words}`, found[of], true)
      counts.value = words ? { positions: saved.total, shots: shots.total, plans: plans.total, bin: bin.total } : null
      trouble.value = ''
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      trouble.value = problemWords(e)
    }
  })
  watch(
    search,
    useDebounceFn(() => {
      parts.fromStart()
      void load()
    }, 150),
  )
  watch(shelf, () => {
    positions.value = kept.value = null
    parts.fromStart()
    void load()
  })

  return { search, shelf, positions, kept, trouble, counts, total: parts.total, load, more: parts.more }
})
