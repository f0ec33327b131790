import { ask, client, type Schemas } from '../../api/client'
import { kept } from '../../lib/device'
import { useAnswer } from '../../lib/useAnswer'

export type Statistics = Schemas['StatisticsResult']
export type Filter = { routine: string; player: string; table: string; cue: string; weeks: number }

/** What has been counted, as the filter asks; asked anew when that changes, and kept on the device for when there is no network. */
export function useProgress(filter: () => Filter) {
  const { answer, problem, isBusy, isStale, again } = useAnswer<Filter, Statistics>({
    question: filter,
    ask: (asked, signal) => {
      const { routine, player, table, cue, weeks } = asked
      const from = weeks ? new Date(Date.now() - weeks * 7 * 86_400_000).toISOString() : undefined
      const query = { routine: routine || undefined, player: player || undefined, table: table || undefined, cue: cue || undefined, from }
      return kept(`statistics ${JSON.stringify(asked)}`, () => ask(client.GET('/api/practice/statistics', { params: { query }, signal })))
    },
  })
  return { answer, problem, isLoading: isBusy, isStale, load: again }
}
