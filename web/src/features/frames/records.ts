import { useDebounceFn, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, askList, client, exchange, fileAt, type Schemas } from '../../api/client'
import { timeNow } from '../../lib/clock'
import { kept, newId } from '../../lib/device'
import { useOutbox } from '../../lib/outbox'
import { played } from '../../position/played'
import { useKeeping } from '../../position/keeping'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { useLatest } from '../../lib/useLatest'
import { useParts } from '../../lib/useParts'
import { after, type FrameStep, type NewShot, type Record_ } from './sending'

export type Item = Schemas['FrameItem']
export type { NewShot, Record_, RecordedShot } from './sending'

/** Of a frame of which nothing is known but its players. */
const blankStory: Schemas['FrameStoryResult'] = {
  shots: [],
  breaks: [],
  players: [],
  fault: null,
  state: {
    on: 'red',
    mayPot: ['red'],
    reds: 15,
    first: 0,
    second: 0,
    turn: 0,
    break: 0,
    freeBall: false,
    inHand: true,
    pointsLeft: 147,
    ahead: 0,
    toWin: 74,
    snookersRequired: 0,
    missMayBeCalled: true,
    misses: 0,
    isWarned: false,
    awaitsLot: false,
    penalties: [4, 5, 6, 7],
    isOver: false,
    winner: -1,
  },
}

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
    notices.show({ kind: 'error', text: `“${current.title}” was changed elsewhere. This is how it stands now. Check it and try again.` })
    return true
  })
  /** The frame that was open last, so that a phone that went to sleep goes on with it. */
  const last = useLocalStorage<string>('deep-baize-frame', '')

  const outbox = useOutbox()
  /** What was entered here and is not with the server yet: the score stands as it was before it. */
  const pending = computed(() =>
    outbox.toSend.filter((w) => w.kind === 'frame' && w.session === record.value?.id).map((w) => w.body as FrameStep),
  )
  /** The last shot, sent or not. */
  const lastShot = computed<NewShot | null>(() => (record.value ? (after(record.value, pending.value).at(-1) ?? null) : null))
  outbox.listen((id, answer) => {
    if (id === record.value?.id && answer && typeof answer === 'object' && 'story' in answer) record.value = answer as Record_
  })
  // Whoever has just entered it is told at once why it cannot be; nothing of it waits.
  watch(
    () => outbox.refused.filter((w) => w.kind === 'frame' && w.session === record.value?.id),
    (refused) => {
      if (!refused.length) return
      notices.show({ kind: 'error', text: `The shot was not recorded: ${refused[0].refused}` })
      void outbox.drop(refused)
    },
  )

  /** The words that are searched for in titles and names. */
  const search = ref('')
  const parts = useParts(() => list())

  const read = useLatest(async () => {
    const query = (range: object) => ({ params: { query: { search: search.value.trim(), ...range } } })
    const found = await kept(`frames ${search.value.trim()}`, () =>
      askList((range) => client.GET('/api/frames', query(range)), parts.shown.value),
    )
    items.value = found.items
    parts.total.value = found.total
  })
  const list = () => attempt(read, 'Could not load the frames')
  watch(
    search,
    useDebounceFn(() => {
      parts.fromStart()
      void list()
    }, 150),
  )

  const open = (id: string) =>
    attempt(async () => {
      record.value = await kept(`frame ${id}`, () => ask(client.GET('/api/frames/{id}', { params: { path: { id } } })))
      last.value = id
    }, 'Could not open the frame')

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

  /** Begins a frame; without a connection too: it gets its score once it is sent. */
  async function start(title: string, first: string, second: string) {
    const id = newId()
    const body: Schemas['NewFrame'] = { id, title, first, second, shots: [] }
    void outbox.put({ kind: 'frame begun', session: id, body })
    await outbox.flush()
    if (outbox.toSend.some((w) => w.session === id)) {
      notices.show({ kind: 'info', text: 'No connection. The frame starts on this device and is sent once there is one.' })
      record.value = unsent(body)
    } else await open(id)
    last.value = record.value?.id ?? ''
    void list()
  }

  /** A frame that the server does not know yet. */
  const unsent = ({ id, title, first, second }: Schemas['NewFrame']): Record_ => ({
    id: id!,
    title,
    first: first || 'First',
    second: second || 'Second',
    createdAt: new Date(timeNow()).toISOString(),
    updatedAt: new Date(timeNow()).toISOString(),
    version: 0,
    with: { playerId: null, tableId: null, cueId: null },
    story: blankStory,
  })

  const enterStep = (step: FrameStep) => outbox.put({ kind: 'frame', session: record.value!.id, body: step })

  const enter = (shot: NewShot) => enterStep({ add: shot })

  /** Takes the last shot back; of a story that cannot be told to its end, all that is not told. */
  const undo = () => enterStep({ undo: true })

  /** Says more of the last shot. */
  const amend = (change: Partial<NewShot>) => enterStep({ amend: change })

  /** A planned shot that was played, if a frame is open to write it into. */
  function write(shot: NewShot) {
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
    }, 'Could not delete it')

  const bringIn = (json: string) =>
    attempt(async () => {
      record.value = JSON.parse(await exchange('/api/frames/import', json)) as Record_
      last.value = record.value.id
      await list()
    }, 'Could not import it')

  const exportAs = (kind: 'json' | 'csv') =>
    attempt(async () => {
      keeping.download(await fileAt(`/api/frames/${record.value!.id}/export/${kind}`), kind, record.value!.title)
    }, 'Could not export it')

  return {
    items,
    search,
    total: parts.total,
    more: parts.more,
    record,
    last,
    busy,
    pending,
    lastShot,
    list,
    show,
    start,
    enter,
    undo,
    amend,
    write,
    remove,
    bringIn,
    exportAs,
  }
})
