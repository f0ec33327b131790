import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, askList, client, exchange, fileAt, type Schemas } from '../../api/client'
import { played } from '../../position/played'
import { useKeeping } from '../../position/keeping'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { useLatest } from '../../lib/useLatest'
import { useParts } from '../../lib/useParts'

export type Item = Schemas['FrameItem']
export type Record_ = Schemas['FrameRecordResult']
export type RecordedShot = Schemas['RecordedShot']

/** Frames written down shot by shot: the list, and the one that is open. */
export const useRecords = defineStore('records', () => {
  const notices = useNotices()
  const keeping = useKeeping()
  const items = ref<Item[] | null>(null)
  const record = shallowRef<Record_ | null>(null)
  const { busy, attempt } = useAttempt((problem) => {
    const current = problem.current as unknown as Record_ | null
    if (problem.status !== 409 || !current) return false
    // Written into elsewhere, or to be deleted from an older view: what there is now is shown.
    if (record.value?.id === current.id) record.value = current
    else void list()
    notices.show({ kind: 'error', text: `“${current.title}” was changed elsewhere. This is how it stands now: look, and do it again.` })
    return true
  })
  /** The frame that was open last, so that a phone that went to sleep goes on with it. */
  const last = useLocalStorage<string>('deep-baize-frame', '')

  const shots = computed(() => record.value?.story.shots.map((s) => s.shot) ?? [])

  /** The words that are searched for in titles and names. */
  const search = ref('')
  const parts = useParts(() => list())

  const read = useLatest(async () => {
    const query = (range: object) => ({ params: { query: { search: search.value.trim(), ...range } } })
    const found = await askList((range) => client.GET('/api/frames', query(range)), parts.shown.value)
    items.value = found.items
    parts.total.value = found.total
  })
  const list = () => attempt(read, 'The frames are not read')
  watch(
    search,
    useDebounceFn(() => {
      parts.fromStart()
      void list()
    }, 150),
  )

  const open = (id: string) =>
    attempt(async () => {
      record.value = await ask(client.GET('/api/frames/{id}', { params: { path: { id } } }))
      last.value = id
    }, 'The frame is not opened')

  /** Shows one, or the list; says whether it is there. */
  async function show(id?: string): Promise<boolean> {
    if (!id) {
      close()
      return true
    }
    if (record.value?.id !== id) {
      record.value = null
      await open(id)
    }
    const isThere = record.value?.id === id
    // It may have been deleted since.
    if (!isThere && last.value === id) last.value = ''
    return isThere
  }

  const start = (title: string, first: string, second: string) =>
    attempt(async () => {
      record.value = await ask(client.POST('/api/frames', { body: { title, first, second, shots: [] } }))
      last.value = record.value.id
      await list()
    }, 'No frame was begun')

  const save = (next: RecordedShot[], failed: string) =>
    attempt(async () => {
      const { id, title, first, second, version } = record.value!
      record.value = await ask(
        client.PUT('/api/frames/{id}', { params: { path: { id } }, body: { title, first, second, version, shots: next } }),
      )
    }, failed)

  const enter = (shot: Partial<RecordedShot> & Pick<RecordedShot, 'kind'>) => save([...shots.value, shot], 'The shot is not entered')

  /** Takes the last shot back; of a story that cannot be told to its end, all that is not told. */
  const undo = () => save(record.value!.story.fault ? shots.value : shots.value.slice(0, -1), 'Nothing is undone')

  /** A planned shot that was played, if a frame is open to write it into. */
  function write(shot: Partial<RecordedShot> & Pick<RecordedShot, 'kind'>) {
    if (record.value && !record.value.story.state.isOver) void enter(shot)
  }

  played.on(write)

  function close() {
    record.value = null
    last.value = ''
    void list()
  }

  const remove = (item: { id: string; title: string; version: number }) =>
    attempt(async () => {
      const file = await ask(client.GET('/api/frames/{id}/export/json', { params: { path: { id: item.id } } }))
      await ask(client.DELETE('/api/frames/{id}', { params: { path: { id: item.id }, query: { version: item.version } } }))
      if (record.value?.id === item.id) close()
      await list()
      notices.show({
        kind: 'info',
        text: `“${item.title}” is deleted.`,
        action: { label: 'Undo', run: () => void bringIn(JSON.stringify(file)) },
      })
    }, 'Not deleted')

  const bringIn = (json: string) =>
    attempt(async () => {
      record.value = JSON.parse(await exchange('/api/frames/import', json)) as Record_
      last.value = record.value.id
      await list()
    }, 'Not imported')

  const exportAs = (kind: 'json' | 'csv') =>
    attempt(async () => {
      keeping.download(await fileAt(`/api/frames/${record.value!.id}/export/${kind}`), kind, record.value!.title)
    }, 'Not exported')

  return {
    items,
    search,
    total: parts.total,
    more: parts.more,
    record,
    last,
    busy,
    shots,
    list,
    show,
    start,
    enter,
    undo,
    write,
    remove,
    bringIn,
    exportAs,
  }
})
