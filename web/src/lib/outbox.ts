import { tryOnScopeDispose, useEventListener } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { Problem } from '../api/client'
import { onBack } from '../api/connection'
import { clockOffset, setClock } from './clock'
import { newId, onDevice } from './device'
import { problemWords } from './problemWords'

/** Something that was done here and is not with the server yet. */
export type Waiting = {
  /** Its own name; what was kept by an earlier version has none. */
  id?: string
  /** Its place in the device's store; none while, or where, that keeps nothing. */
  seq?: number
  kind: string
  /** What it belongs to, a session or a frame: of one such thing all goes in order. */
  session: string
  /** What is sent. */
  body: unknown
  /** When it was done, by the device's clock, ms. */
  at?: number
  /** What was known then of how far that clock is off, ms. */
  offset?: number
  /** Why it was refused for good, if it was: it waits for somebody to look at it, and holds up nothing. */
  refused?: string
}

/** How things of one kind are sent. */
export type Sender = {
  /** Sends some that follow one another, rejected with a Problem if they are not taken. The answer is told to whoever listens. */
  send: (items: Waiting[], signal: AbortSignal) => Promise<unknown>
  /** Number of them that go at once; 1 if not said. */
  atOnce?: number
  /** The body with its times moved, where the device's clock was wrong when it was made. */
  moved?: (body: unknown, by: number) => unknown
}

const soonest = 2000
const latest = 30_000
/** Time limit of one request, ms. */
const patience = 20_000
/** A clock that is off by less is right, ms. */
const matters = 60_000

const senders = new Map<string, Sender>()
/** Says how a kind is sent: once, by the feature that makes it. */
export const sendBy = (kind: string, sender: Sender) => void senders.set(kind, sender)

/** Nothing is sent while the server, or the way to it, is away; otherwise only what belongs to the same thing waits. */
const stopsAll = (why: Problem) => [0, 429, 502, 503, 504].includes(why.status)

/**
 * What was done here and is not with the server yet: kept on the device, or in memory where that cannot keep it, and sent in order, each
 * thing until it is answered. What may be taken later is tried again by itself; what is refused for good is said.
 */
export const useOutbox = defineStore('outbox', () => {
  const waiting = shallowRef<Waiting[]>([])
  const toSend = computed(() => waiting.value.filter((w) => !w.refused))
  const refused = computed(() => waiting.value.filter((w) => w.refused))
  /** Why nothing, or not all, is sent at the moment; null while nothing is in the way. */
  const trouble = shallowRef<Problem | null>(null)
  const isAway = computed(() => !!trouble.value && stopsAll(trouble.value))
  /** The device has kept nothing of what was last given to it: it is lost if the tab is closed before it is sent. */
  const cannotKeep = ref(false)
  /** Told of what the server answers. */
  const listeners = new Set<(session: string, answer: unknown) => void>()

  /** Places of what has been sent and could not be taken out of the device's store: it is not sent again. */
  const gone = new Set<number>()
  /** What is being written into the device's store. */
  const storing = new Map<Waiting, Promise<void>>()
  /** Tabs of this device tell one another what has been sent. */
  const tabs = typeof BroadcastChannel === 'undefined' ? null : new BroadcastChannel('deep-baize-outbox')
  if (tabs)
    tabs.onmessage = ({ data }: MessageEvent<{ ids: string[] }>) =>
      (waiting.value = waiting.value.filter((w) => !w.id || !data.ids.includes(w.id)))
  tryOnScopeDispose(() => tabs?.close())

  let sending: Promise<void> | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let pause = soonest
  let isOver = false

  const isOnDevice = (w: Waiting) => w.seq !== undefined
  const inOrder = (a: Waiting, b: Waiting) => (a.at ?? 0) - (b.at ?? 0) || (a.seq ?? Infinity) - (b.seq ?? Infinity)

  /**
   * What the device has, with what is in memory. What has gone from the device may have been cleared: it stays here until it has been sent.
   */
  async function read() {
    await Promise.all(storing.values())
    const kept = ((await onDevice((db) => db.getAll('outbox'))) as Waiting[]).filter((w) => !gone.has(w.seq!))
    // One that is the same stays the same object: whoever sends it marks it. It may have been stored without this tab knowing it yet.
    const nameOf = (w: Waiting) => w.id ?? w.seq
    const here = new Map(waiting.value.map((w) => [nameOf(w), w]))
    for (const { seq, refused, ...w } of kept) {
      const same = here.get(nameOf({ ...w, seq }))
      if (same) Object.assign(same, { seq, refused })
    }
    waiting.value = [...waiting.value, ...kept.filter((w) => !here.has(nameOf(w)))].sort(inOrder)
  }

  /** Keeps it on the device, or in memory, and sends it when that is possible. */
  async function put(item: Pick<Waiting, 'kind' | 'session' | 'body'>) {
    const one: Waiting = { ...item, id: newId(), at: Date.now(), offset: clockOffset() }
    // Seen at once as not sent.
    waiting.value = [...waiting.value, one]
    const stored = onDevice((db) => db.add('outbox', { ...one }))
      .then((seq) => {
        one.seq = seq
        cannotKeep.value = false
      })
      .catch(() => {
        cannotKeep.value = true
      })
      .finally(() => storing.delete(one))
    storing.set(one, stored)
    await stored
    void flush()
  }

  /** Something was given to it while it was sending, perhaps just before it ended. */
  let isAskedAgain = false
  function flush(): Promise<void> {
    isAskedAgain = true
    return (sending ??= sendUntilDone().finally(() => (sending = null)))
  }
  async function sendUntilDone() {
    // Where something is in the way it is tried again after a pause.
    do {
      isAskedAgain = false
      await send()
    } while (isAskedAgain && !trouble.value && !isOver)
  }

  async function send() {
    clearTimeout(timer)
    try {
      // Another tab of this device may be sending: one at a time, and the order is kept.
      await (navigator.locks ? navigator.locks.request('deep-baize-outbox', sendAll) : sendAll())
      trouble.value = null
      pause = soonest
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      trouble.value = e
      if (isOver) return
      timer = setTimeout(() => void flush(), pause)
      pause = Math.min(latest, pause * 1.7)
    }
  }

  async function sendAll() {
    const [blocked, alone] = [new Set<string>(), new Set<Waiting>()]
    let later: Problem | null = null
    while (!isOver) {
      await read().catch(() => {})
      const items = toSend.value.filter((w) => !blocked.has(w.session) && senders.has(w.kind))
      if (!items.length) break
      const together = batch(items, alone)
      const [first] = together
      try {
        const answer = await sendOff(together)
        await remove(together)
        for (const tell of listeners) tell(first.session, answer)
      } catch (e) {
        if (!(e instanceof Problem)) throw e
        if (e.isForLater) {
          if (stopsAll(e)) throw e
          later = e
          blocked.add(first.session)
        } else if (together.length > 1) for (const one of together) alone.add(one)
        else await refuse(first, problemWords(e))
      }
    }
    if (later) throw later
  }

  /** Those that go together: of one kind and one session, following one another. One that is under suspicion goes alone. */
  function batch(items: Waiting[], alone: Set<Waiting>): Waiting[] {
    const [first] = items
    if (alone.has(first)) return [first]
    const end = items.findIndex((w) => w.kind !== first.kind || w.session !== first.session || alone.has(w))
    return items.slice(0, Math.min(senders.get(first.kind)!.atOnce ?? 1, end < 0 ? items.length : end))
  }

  async function sendOff(items: Waiting[]): Promise<unknown> {
    const limit = AbortSignal.timeout(patience)
    try {
      await setClock(limit)
      await setRight(items)
      return await senders.get(items[0].kind)!.send(items, limit)
    } catch (e) {
      // Too late, or no way to the server.
      if (limit.aborted || e instanceof TypeError) throw new Problem(0, 'No answer.', '', [], null, limit.aborted ? 'slow' : 'away')
      throw e
    }
  }

  /** Times that were taken from a clock that is known by now to have been wrong. */
  async function setRight(items: Waiting[]) {
    const moved = senders.get(items[0].kind)!.moved
    for (const one of items) {
      const by = clockOffset() - (one.offset ?? 0)
      if (!moved || Math.abs(by) < matters) continue
      one.body = moved(one.body, by)
      one.offset = clockOffset()
      await store(one)
    }
  }

  /** Writes a change of what is kept. */
  async function store(one: Waiting) {
    if (isOnDevice(one)) await onDevice((db) => db.put('outbox', { ...one })).catch(() => {})
    waiting.value = [...waiting.value]
  }

  async function refuse(one: Waiting, why: string) {
    one.refused = why
    await store(one)
  }

  async function remove(sent: Waiting[]) {
    waiting.value = waiting.value.filter((w) => !sent.includes(w))
    if (!isOver) tabs?.postMessage({ ids: sent.map((w) => w.id).filter(Boolean) })
    const keys = sent.filter(isOnDevice).map((w) => w.seq!)
    if (!keys.length) return
    for (const seq of keys) gone.add(seq)
    await onDevice(async (db) => {
      const transaction = db.transaction('outbox', 'readwrite')
      await Promise.all([...keys.map((seq) => transaction.store.delete(seq)), transaction.done])
    }).catch(() => {})
  }

  /** Tries again what was refused. */
  async function retry(items: Waiting[]) {
    for (const one of items) {
      delete one.refused
      await store(one)
    }
    await flush()
  }

  function listen(to: (session: string, answer: unknown) => void) {
    listeners.add(to)
    return () => listeners.delete(to)
  }

  useEventListener(window, 'online', () => void flush())
  const { off } = onBack(() => toSend.value.length && void flush())
  tryOnScopeDispose(() => {
    off()
    clearTimeout(timer)
    isOver = true
  })
  void read()
    .catch(() => {})
    .then(flush)

  return { waiting, toSend, refused, trouble, isAway, cannotKeep, put, flush, drop: remove, retry, listen }
})
