import { shallowRef, watch } from 'vue'
import { ask, client, Problem, type Table } from '../api/client'
import { kept } from '../lib/device'
import { useClub } from './club'

/** The shape of the table in hand, for drawing it; kept on the device, nothing until it is known. */
export function useClubTable() {
  const club = useClub()
  const table = shallowRef<Table | null>(null)
  watch(
    () => club.table?.conditions ?? {},
    async (conditions) => {
      table.value = await kept(
        'table',
        () => ask(client.POST('/api/table', { body: { conditions } })),
        (e) => e instanceof Problem,
      ).catch(() => null)
    },
    { immediate: true },
  )
  return table
}
