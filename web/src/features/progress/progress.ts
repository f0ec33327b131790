import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Schemas } from '../../api/client'
import { useLatest } from '../../lib/useLatest'

export type Statistics = Schemas['StatisticsResult']
export type Filter = { routine: string; player: string; table: string; cue: string; weeks: number }

/** What has been counted, as the filter asks; asked anew when that changes. */
export function useProgress(filter: () => Filter) {
  const answer = shallowRef<Statistics | null>(null)
  const problem = shallowRef<Problem | null>(null)
  const isLoading = ref(false)
  const load = useLatest(async () => {
    const { routine, player, table, cue, weeks } = filter()
    isLoading.value = true
    try {
      const from = weeks ? new Date(Date.now() - weeks * 7 * 86_400_000).toISOString() : undefined
      const query = {
        routine: routine || undefined,
        player: player || undefined,
        table: table || undefined,
        cue: cue || undefined,
        from: from,
      }
      answer.value = await ask(client.GET('/api/practice/statistics', { params: { query } }))
      problem.value = null
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      problem.value = e
    } finally {
      isLoading.value = false
    }
  })
  watch(
    () => JSON.stringify(filter()),
    () => void load(),
    { immediate: true },
  )
  return { answer: computed(() => answer.value), problem, isLoading, load }
}
