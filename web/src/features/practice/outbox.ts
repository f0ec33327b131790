import { useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ask, client, Problem, type Schemas } from '../../api/client'
import { device, type Waiting } from '../../lib/device'
import { problemWords } from '../../lib/problemWords'

type Attempt = Schemas['AttemptEntry']
export type State = Schemas['SessionState']

/** So many attempts go at once. */
const mostAtOnce = 200
const soonest = 2000
const latest = 30_000

/** What was counted here and is not with the server yet: kept on the device, sent in order, each thing until it is answered. */
export const useOutbox = defineStore('outbox', () => {
  const waiting = shallowRef<Waiting[]>([])
  const toSend = computed(() => waiting.value.filter((w) => !w.refused))
  const refused = computed(() => waiting.value.filter((w) => w.refused))
  const isAway = ref(false)
  /** Told of what the server answers. */
  const listeners = new Set<(session: string, answer: State | null) => void>()

  let sending: Promise<void> | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let pause = soonest

  async function read() {
    waiting.value = await (await device()).getAll('outbox')
  }

  /** Keeps it on the device, and sends it when that is possible. */
  async function put(item: Waiting) {
    // Seen at once as not sent; the device gives it its place.
    waiting.value = [...waiting.value, item]
    try {
      await (await device()).add('outbox', item)
      await read()
    } catch {
      // Nothing can be kept here (a private window, a full disk): it is sent from memory, or lost with the tab.
    }
    void flush()
  }

  function flush(): Promise<void> {
    return (sending ??= send().finally(() => (sending = null)))
  }

  async function send() {
    clearTimeout(timer)
    try {
      // Another tab of this device may be sending: one at a time, and the order is kept.
      await (navigator.locks ? navigator.locks.request('deep-baize-outbox', sendAll) : sendAll())
      isAway.value = false
      pause = soonest
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      isAway.value = true
      timer = setTimeout(() => void flush(), pause)
      pause = Math.min(latest, pause * 1.7)
    }
  }

  async function sendAll() {
    for (;;) {
      const db = await device().catch(() => null)
      const items = db ? (await db.getAll('outbox')).filter((w) => !w.refused) : toSend.value
      if (!items.length) break
      const [first] = items
      // Attempts at one session that follow one another go together.
      const end = items.findIndex((w) => w.kind !== 'attempt' || w.session !== first.session)
      const together = first.kind === 'attempt' ? items.slice(0, Math.min(mostAtOnce, end < 0 ? items.length : end)) : [first]
      try {
        const answer = await sendOne(first, together)
        await remove(db, together)
        for (const tell of listeners) tell(first.session, answer)
      } catch (e) {
        if (!(e instanceof Problem) || e.isAway || e.status === 429) throw e
        // One of several is at fault: alone it is seen which.
        if (together.length > 1) for (const one of together) await alone(db, one)
        else await refuse(db, first, e)
      }
    }
    await read().catch(() => {})
  }

  async function alone(db: Awaited<ReturnType<typeof device>> | null, one: Waiting) {
    try {
      const answer = await sendOne(one, [one])
      await remove(db, [one])
      for (const tell of listeners) tell(one.session, answer)
    } catch (e) {
      if (!(e instanceof Problem) || e.isAway || e.status === 429) throw e
      await refuse(db, one, e)
    }
  }

  async function refuse(db: Awaited<ReturnType<typeof device>> | null, one: Waiting, why: Problem) {
    one.refused = problemWords(why)
    if (db) await db.put('outbox', one)
    else waiting.value = [...waiting.value]
  }

  async function remove(db: Awaited<ReturnType<typeof device>> | null, sent: Waiting[]) {
    if (db) {
      const transaction = db.transaction('outbox', 'readwrite')
      await Promise.all([...sent.map((w) => transaction.store.delete(w.seq!)), transaction.done])
      await read()
    } else waiting.value = waiting.value.filter((w) => !sent.includes(w))
  }

  async function sendOne(first: Waiting, together: Waiting[]): Promise<State | null> {
    const params = { path: { id: first.session } }
    switch (first.kind) {
      case 'begin': {
        const session = await ask(client.POST('/api/practice/sessions', { body: first.body as Schemas['SessionEntry'] }))
        return { session, attempts: [], conflicts: [] }
      }
      case 'attempt': {
        const attempts = together.map((w) => w.body as Attempt)
        return ask(client.POST('/api/practice/sessions/{id}/attempts', { params, body: { attempts } }))
      }
      case 'task': {
        const now = first.body as Schemas['TaskNow']
        return { session: await ask(client.PUT('/api/practice/sessions/{id}/now', { params, body: { now } })), attempts: [], conflicts: [] }
      }
      case 'note': {
        const { attempt, note } = first.body as { attempt: string; note: string }
        const path = { id: first.session, attempt }
        await ask(client.PUT('/api/practice/sessions/{id}/attempts/{attempt}/note', { params: { path }, body: { note } }))
        return null
      }
      case 'save': {
        // What is written here is laid over whatever the session is by now.
        const change = first.body as Partial<Schemas['SessionSave']>
        for (let tries = 0; ; tries++) {
          const { session } = await ask(client.GET('/api/practice/sessions/{id}', { params }))
          const { note, endedAt, plan, version } = session
          try {
            const body = { note, endedAt, plan, ...change, version }
            return { session: await ask(client.PUT('/api/practice/sessions/{id}', { params, body })), attempts: [], conflicts: [] }
          } catch (e) {
            if (!(e instanceof Problem) || e.code !== 'conflict' || tries > 4) throw e
          }
        }
      }
    }
  }

  /** What the server refused is thrown away. */
  async function drop(item: Waiting) {
    await remove(await device().catch(() => null), [item])
  }

  function listen(to: (session: string, answer: State | null) => void) {
    listeners.add(to)
    return () => listeners.delete(to)
  }

  useEventListener(window, 'online', () => void flush())
  void read()
    .then(flush)
    .catch(() => {})

  return { waiting, toSend, refused, isAway, put, flush, drop, listen }
})
