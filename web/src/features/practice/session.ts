import { useDebounceFn, useEventListener, useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ask, client, Problem, type Schemas } from '../../api/client'
import { timeNow } from '../../lib/clock'
import { deviceName, newId, onDevice } from '../../lib/device'
import { useNotices } from '../../lib/notices'
import { useClub } from '../../position/club'
import { useOutbox, type Waiting } from '../../lib/outbox'
import { onSide } from '../../domain/mirror'
import { useDraft } from '../../position/draft'
import { counts } from './judging'
import { useRoutines } from './routines'
import './sending'
import type { State } from './sending'

export type Session = Schemas['SessionResult']
export type Attempt = Schemas['AttemptResult']
export type AttemptEntry = Schemas['AttemptEntry']
export type Task = Schemas['TaskNow']
export type Place = { x: number; y: number }

/** What somebody says of an attempt. */
export type Said = Pick<AttemptEntry, 'said' | 'reasons' | 'body' | 'white' | 'ball' | 'score' | 'kinds'>

/**
 * A session at the table. What is done is on the screen at once and on this device soon after; the server hears of it when it can, and
 * what it answers, or others do, comes in beside it.
 */
export const useSession = defineStore('session', () => {
  const outbox = useOutbox()
  const routines = useRoutines()
  const notices = useNotices()
  const club = useClub()
  const position = useDraft()

  const session = shallowRef<Session | null>(null)
  const byId = ref(new Map<string, Attempt>())
  /** Which revision of an attempt the server is known to have. */
  const known = new Map<string, number>()
  /** In the order in which they were made, those that were taken back left out. */
  const attempts = computed(() =>
    [...byId.value.values()].filter((a) => !a.withdrawn).sort((a, b) => (a.at === b.at ? (a.id < b.id ? -1 : 1) : a.at < b.at ? -1 : 1)),
  )
  const unsent = computed(() => outbox.toSend.filter((w) => w.session === session.value?.id).length)
  const waitingIds = computed(() => new Set(outbox.waiting.filter((w) => w.kind === 'attempt').map((w) => (w.body as AttemptEntry).id)))
  /** The last words of the body that were used: the user's own list. */
  const isLive = ref(false)

  // ---- What comes in -------------------------------------------------------------------------------------------

  function take(state: State) {
    if (session.value?.id === state.session.id && state.session.changes >= session.value.changes) {
      // What was chosen here and is not sent yet stays.
      const pending = outbox.toSend.filter((w) => w.session === state.session.id && w.kind === 'task')
      session.value = { ...state.session, now: pending.length ? (pending[pending.length - 1].body as Task) : state.session.now }
    }
    const conflicts = state.conflicts ?? []
    for (const id of conflicts)
      tellConflict(
        byId.value.get(id),
        state.attempts.find((a) => a.id === id),
      )
    for (const a of state.attempts) {
      known.set(a.id, a.revision)
      judgedWhenSent.value.delete(a.id)
      const mine = conflicts.includes(a.id) ? undefined : byId.value.get(a.id)
      // A correction made here since is newer, but for the coach's word.
      byId.value.set(a.id, mine && mine.revision > a.revision ? { ...mine, note: a.note } : a)
    }
    keepSoon()
  }
  /** Corrected on two devices: the first correction stands, unless this one is wanted after all. */
  function tellConflict(mine: Attempt | undefined, theirs: Attempt | undefined) {
    if (!mine || !theirs) return
    notices.show(
      {
        kind: 'info',
        text: 'This attempt was corrected on another device too. That correction was kept.',
        action: { label: 'Use mine', run: () => correct(mine.id, entryOf(mine)) },
      },
      20,
    )
  }
  outbox.listen((id, answer) => {
    const state = answer as State | null
    if (!state || id !== session.value?.id) return
    take(state)
    // Only now the server knows of it.
    if (!stream) listen()
  })

  const soon = useDebounceFn(keep, 150)
  const keepSoon = () => void soon()
  function keep() {
    if (!session.value) return
    const state = { session: { ...session.value }, attempts: [...byId.value.values()].map((a) => ({ ...a })) }
    void onDevice((db) => db.put('sessions', JSON.parse(JSON.stringify(state)), state.session.id)).catch(() => {})
  }
  useEventListener(window, 'pagehide', keep)

  // ---- Live ----------------------------------------------------------------------------------------------------

  let stream: EventSource | null = null
  function listen() {
    stream?.close()
    isLive.value = false
    const id = session.value?.id
    // Before the server knows of it there is nothing to listen to.
    if (!id || !session.value!.version || typeof EventSource === 'undefined') return
    stream = new EventSource(`/api/practice/sessions/${id}/live?since=${session.value!.changes}`)
    stream.addEventListener('session', (e) => {
      isLive.value = true
      take(JSON.parse((e as MessageEvent<string>).data) as State)
    })
    stream.addEventListener('open', () => {
      isLive.value = true
      void outbox.flush()
    })
    stream.addEventListener('error', () => {
      isLive.value = false
      // A browser does not ask again where it was refused, as before the session is with the server.
      if (stream?.readyState === EventSource.CLOSED) setTimeout(() => session.value?.id === id && listen(), 3000)
    })
  }
  function leave() {
    stream?.close()
    stream = null
    isLive.value = false
  }

  // ---- Beginning and opening -----------------------------------------------------------------------------------

  function begin(now: Task | null, plan: Schemas['PlannedRoutine'][] = []): string {
    const id = newId()
    const startedAt = new Date(timeNow()).toISOString()
    const { players, tables, cues } = club.ids
    const played = { playerId: players || null, tableId: tables || null, cueId: cues || null }
    session.value = { id, with: played, startedAt, endedAt: null, plan, now, note: '', changes: 0, version: 0 }
    byId.value = new Map()
    lastId.value = id
    keep()
    leave()
    void outbox.put({ kind: 'begin', session: id, body: plain({ id, with: played, startedAt, plan, now }) })
    return id
  }

  /** Which session was at hand last on this device: a phone falls asleep between two strokes. */
  const lastId = useLocalStorage('deep-baize-session', '')

  /** Goes on with the session that is at hand, if it is not over and is this player's. */
  async function resume(): Promise<boolean> {
    if (!session.value && lastId.value) await open(lastId.value).catch(() => false)
    return !!session.value && !session.value.endedAt && session.value.with.playerId === club.ids.players
  }

  /** @returns Whether there is such a session. */
  async function open(id: string): Promise<boolean> {
    lastId.value = id
    if (session.value?.id === id) {
      listen()
      return true
    }
    // What this device knows is there at once.
    const known = (await onDevice((db) => db.get('sessions', id)).catch(() => undefined)) as State | undefined
    if (known) {
      session.value = known.session
      byId.value = new Map(known.attempts.map((a) => [a.id, a]))
    }
    try {
      const state = await ask(client.GET('/api/practice/sessions/{id}', { params: { path: { id } } }))
      if (!known) {
        session.value = state.session
        byId.value = new Map()
      }
      take(state)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      if (!known && !e.isAway) return false
      if (!known) throw e
    }
    listen()
    return true
  }

  // ---- What is done here ---------------------------------------------------------------------------------------

  const plain = <T>(value: T): T => JSON.parse(JSON.stringify(value)) as T

  /** Attempts that only the server can judge: their routine is not on this device. */
  const judgedWhenSent = ref(new Set<string>())

  /** By the rule of what was laid then, or of the routine as it is; null where that is not known here. */
  function judge(entry: AttemptEntry): boolean | null {
    const routine = routines.whole.get(entry.routine)
    const step = routine?.routine.steps[entry.step ?? 0]
    const sizes = position.reference
    // A routine of one's own may have been changed since the attempt was made; by which of the two it is judged the server knows.
    const mayDiffer = !!byId.value.get(entry.id)?.laid && !!routine?.isOwn
    if (!step || !sizes || mayDiffer) return null
    return counts(onSide(step, entry.mirrored, sizes), entry, sizes)
  }

  function show(entry: AttemptEntry) {
    const before = byId.value.get(entry.id)
    const done = judge(entry)
    if (done === null) judgedWhenSent.value.add(entry.id)
    byId.value.set(entry.id, {
      ...(entry as Required<AttemptEntry>),
      // Until the rule has judged it, what was said stands.
      done: done ?? entry.said ?? false,
      note: before?.note ?? '',
      laid: before?.laid ?? null,
      changedIn: before?.changedIn ?? 0,
    })
    keepSoon()
  }

  const send = (kind: Waiting['kind'], body: unknown) => outbox.put({ kind, session: session.value!.id, body: plain(body) })

  /** Now, and later than the last one: attempts are told apart, and put in order, by their time. */
  let lastTime = 0
  const nextTime = () => new Date((lastTime = Math.max(timeNow(), lastTime + 1))).toISOString()

  /** Counts an attempt at what is played now. */
  function count(said: Said): string {
    const now = session.value!.now!
    const entry: AttemptEntry = {
      id: newId(),
      revision: 1,
      device: deviceName(),
      base: 0,
      at: nextTime(),
      routine: now.routine,
      step: now.step ?? 0,
      mirrored: now.mirrored ?? false,
      reasons: [],
      body: [],
      kinds: {},
      white: null,
      ball: null,
      score: null,
      stroke: now.stroke ?? null,
      group: now.group ?? '',
      withdrawn: false,
      ...said,
    }
    show(entry)
    void send('attempt', entry)
    return entry.id
  }

  const entryOf = (a: Attempt): AttemptEntry => ({
    id: a.id,
    revision: a.revision,
    at: a.at,
    routine: a.routine,
    step: a.step,
    mirrored: a.mirrored,
    said: a.said,
    reasons: a.reasons,
    body: a.body,
    white: a.white,
    ball: a.ball,
    score: a.score,
    kinds: a.kinds,
    stroke: a.stroke,
    group: a.group,
    withdrawn: a.withdrawn,
  })

  /** Corrects an attempt: another revision of it. */
  function correct(id: string, change: Partial<AttemptEntry>) {
    const before = byId.value.get(id)
    if (!before) return
    // What the server adds to an attempt is not sent back to it.
    const base = known.get(id) ?? null
    const next: AttemptEntry = { ...entryOf(before), ...change, revision: before.revision + 1, device: deviceName(), base }
    show(next)
    void send('attempt', next)
  }

  /** Takes an attempt back, the last one if none is named; what it says then can bring it back. */
  function undo(id?: string) {
    const end = attempts.value[attempts.value.length - 1]
    const last = attempts.value.find((a) => a.id === id) ?? end
    if (!last) return
    correct(last.id, { withdrawn: true })
    notices.show({
      kind: 'info',
      text: last === end ? 'Undid the last attempt.' : 'Undid the attempt.',
      action: { label: 'Redo', run: () => correct(last.id, { withdrawn: false }) },
    })
  }

  function setTask(now: Task) {
    session.value = { ...session.value!, now: plain(now) }
    keepSoon()
    void send('task', now)
    void routines.get(now.routine).catch(() => {})
  }

  function note(attempt: string, text: string) {
    const before = byId.value.get(attempt)
    if (!before) return
    byId.value.set(attempt, { ...before, note: text })
    void send('note', { attempt, note: text })
  }

  function change(what: Partial<Pick<Session, 'note' | 'endedAt' | 'plan'>>) {
    session.value = { ...session.value!, ...plain(what) }
    keepSoon()
    void send('save', what)
  }

  /**
   * What the server did not take of a session that is not there any more goes into a new one: it begins when the first of it was made, and
   * every attempt is another, so that nothing of the old session is touched.
   */
  async function moveToNew(items: readonly Waiting[]): Promise<string> {
    const id = newId()
    const names = new Map<string, string>()
    const attemptsOf = items.filter((w) => w.kind === 'attempt').map((w) => w.body as AttemptEntry)
    const begun = items.find((w) => w.kind === 'begin')?.body as Schemas['SessionEntry'] | undefined
    const first = attemptsOf[0]
    const { players, tables, cues } = club.ids
    const entry: Schemas['SessionEntry'] = {
      with: { playerId: players || null, tableId: tables || null, cueId: cues || null },
      startedAt: first?.at ?? new Date(timeNow()).toISOString(),
      plan: [],
      now: first ? { routine: first.routine, step: first.step ?? 0, mirrored: first.mirrored ?? false, stroke: null, group: '' } : null,
      ...begun,
      id,
    }
    await outbox.put({ kind: 'begin', session: id, body: plain(entry) })
    for (const attempt of attemptsOf) {
      const name = names.get(attempt.id) ?? newId()
      names.set(attempt.id, name)
      await outbox.put({ kind: 'attempt', session: id, body: plain({ ...attempt, id: name }) })
    }
    await outbox.drop([...items])
    await outbox.flush()
    return id
  }

  const end = () => change({ endedAt: new Date(timeNow()).toISOString() })
  const goOn = () => change({ endedAt: null })

  return {
    session,
    attempts,
    unsent,
    waitingIds,
    judgedWhenSent,
    isLive,
    begin,
    resume,
    open,
    leave,
    count,
    correct,
    undo,
    setTask,
    note,
    change,
    moveToNew,
    end,
    goOn,
  }
})
