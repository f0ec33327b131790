import { useDebounceFn, useEventListener, useLocalStorage, useManualRefHistory, useSessionStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef, toRaw, watch } from 'vue'
import {
  ask,
  client,
  Problem,
  type Content,
  type Draft,
  type Pot,
  type Reference,
  type SavedPosition,
  type Shot,
  type Stroke,
  type Table,
} from '../api/client'
import { usePlayer } from '../players/player'
import { useNotices } from './notices'
import { useLatest } from './useLatest'

export const plainStroke: Stroke = { aim: 0, side: 0, height: 0, pace: 4, elevation: 0, pot: null, free: false }

/** A pot straight into the middle of a pocket. */
export const plainPot = (ball: string, pocket: string): Pot => ({ ball, pocket, part: 0, through: null, off: null })

export function copy<T>(value: T): T {
  return JSON.parse(JSON.stringify(value)) as T
}

export function draftOf(p: { name: string; about: string; content: SavedPosition['content'] }): Draft {
  return {
    name: p.name,
    about: p.about,
    content: {
      balls: copy(p.content.balls),
      stroke: { ...plainStroke, ...copy(p.content.stroke ?? {}), pot: p.content.stroke?.pot ? { ...plainPot('', ''), ...copy(p.content.stroke.pot) } : null },
      conditions: copy(p.content.conditions ?? {}),
      ...(p.content.frame ? { frame: copy(p.content.frame) } : {}),
    },
  }
}

/** Which saved position the draft came from, as it was read. */
type Origin = { id: string; version: number; draft: Draft } | null

/** The position on the table, what is done to it, and what the core says of it. */
export const useWorkspace = defineStore('workspace', () => {
  const reference = shallowRef<Reference | null>(null)
  const table = shallowRef<Table | null>(null)
  const shot = shallowRef<Shot | null>(null)
  /** What the core refuses about the present draft. */
  const problem = shallowRef<Problem | null>(null)
  const selected = ref<string>('white')
  const players = usePlayer()
  const notices = useNotices()

  // Kept for this tab, so that a reload loses nothing that was not saved.
  const kept = useSessionStorage<{ draft: Draft; origin: Origin } | null>('deep-baize-draft', null, {
    shallow: true,
    flush: 'sync',
    serializer: { read: (text) => (text ? JSON.parse(text) : null), write: (value) => JSON.stringify(value) },
  })
  /** What is not saved, for when the tab is closed. */
  const unsaved = useLocalStorage<{ draft: Draft; origin: Origin } | null>('deep-baize-unsaved', null, {
    shallow: true,
    flush: 'sync',
    serializer: { read: (text) => (text ? JSON.parse(text) : null), write: (value) => JSON.stringify(value) },
  })
  const lastOpened = useLocalStorage<string>('deep-baize-last', '')

  const draft = ref<Draft>({ name: '', about: '', content: { balls: [], stroke: { ...plainStroke }, conditions: {} } })
  const origin = shallowRef<Origin>(null)
  const history = useManualRefHistory(draft, { clone: copy, capacity: 200 })
  const isDirty = computed(() => !origin.value || JSON.stringify(origin.value.draft) !== JSON.stringify(draft.value))

  /** Which state of the table an answer is awaited for: counted up when another is put in its place, so that a late answer is known by it. */
  let state = 0
  /** Counted up when another position is opened. */
  let opened = 0

  const content = computed(() => draft.value.content)
  const stroke = computed(() => draft.value.content.stroke)
  const ball = (id: string) => content.value.balls.find((b) => b.id === id)

  // ---- Loading -------------------------------------------------------------------------------------------------

  /** Nothing has been opened here before. */
  const isFirstVisit = !kept.value && !lastOpened.value

  /** @param id The position that the address names, if it names one. */
  async function start(id?: string) {
    const left = kept.value?.draft?.content?.balls.length && (!id || kept.value.origin?.id === id) ? kept.value : null
    const [known, , position] = await Promise.all([ask(client.GET('/api/reference')), players.load(), left ? null : first(id)])
    reference.value = known
    if (left) {
      reset(left.draft, left.origin)
      return
    }
    if (position) open(position)
    else startNew()
    if (unsaved.value && !id) bringBack(unsaved.value)
  }

  /** What is opened first: what the address names, what was open last, or, on a first visit, a break under way. */
  async function first(id?: string): Promise<SavedPosition | null> {
    for (const known of [id, lastOpened.value].filter(Boolean) as string[]) {
      try {
        return await ask(client.GET('/api/positions/{id}', { params: { path: { id: known } } }))
      } catch (e) {
        if (!(e instanceof Problem) || e.isAway) throw e
        if (known === id) notices.show({ kind: 'error', text: 'The position of this address is not there.', detail: 'It may have been deleted. This is another.' })
      }
    }
    const positions = await ask(client.GET('/api/positions'))
    return positions.find((p) => (p.content.frame?.break ?? 0) > 1) ?? positions[0] ?? null
  }

  /** What was not saved when the last tab was closed comes back, and can be put aside. */
  function bringBack(left: { draft: Draft; origin: Origin }) {
    const instead = { draft: copy(toRaw(draft.value)), origin: origin.value }
    reset(left.draft, left.origin)
    notices.show({
      kind: 'info',
      text: `“${left.draft.name}” was not saved; it is as you left it.`,
      action: { label: 'Leave it', run: () => reset(instead.draft, instead.origin) },
    })
  }

  function reset(to: Draft, from: Origin) {
    state++
    opened++
    draft.value = copy(to)
    origin.value = copy(from)
    selected.value = 'white'
    history.clear()
    history.commit()
    history.clear()
  }

  function open(position: SavedPosition) {
    const as = draftOf(position)
    reset(as, { id: position.id, version: position.version, draft: as })
    lastOpened.value = position.id
  }

  /** The balls as at the start of a frame, not yet saved. */
  function startNew() {
    reset(
      {
        name: 'New position',
        about: '',
        content: { balls: copy(reference.value!.openingRack), stroke: copy(plainStroke), conditions: {} },
      },
      null,
    )
  }

  // ---- What the core says --------------------------------------------------------------------------------------

  const refresh = useLatest(async () => {
    try {
      const body = { content: copy(toRaw(content.value)) as Content, player: copy(toRaw(players.player)) }
      shot.value = await ask(client.POST('/api/shot', { body }))
      problem.value = null
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      problem.value = e
    }
  })

  const refreshTable = useLatest(async () => {
    try {
      table.value = (await ask(client.POST('/api/table', { body: { conditions: content.value.conditions } }))) as Table
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      problem.value = e
    }
  })

  watch(
    content,
    () => {
      if (content.value.balls.length) void refresh()
      void keepSoon()
    },
    { deep: true },
  )
  watch(
    () => players.player,
    () => content.value.balls.length && void refresh(),
  )
  watch(
    () => JSON.stringify(content.value.conditions),
    () => void refreshTable(),
    { immediate: true },
  )
  watch([() => draft.value.name, () => draft.value.about, origin], () => void keepSoon())

  /** Not at every step of a drag: writing takes its time from drawing. */
  const keepSoon = useDebounceFn(keep, 200, { maxWait: 1000 })
  function keep() {
    if (!content.value.balls.length) return
    kept.value = { draft: copy(toRaw(draft.value)), origin: origin.value }
    // A position that was only looked at, or set up anew and not touched, is nothing to bring back.
    unsaved.value = isDirty.value && history.canUndo.value ? kept.value : null
  }
  useEventListener(window, 'pagehide', keep)

  // ---- Editing -------------------------------------------------------------------------------------------------

  /** Ends a gesture: from here one step of undo goes back. */
  function commit() {
    const last = history.last.value.snapshot
    if (JSON.stringify(last) !== JSON.stringify(draft.value)) history.commit()
  }

  /** Moves a ball, or brings a new one on, to the nearest place where it can rest. Says where that was, or what is in the way. */
  async function place(id: string, x: number, y: number, inD = false): Promise<{ x: number; y: number }> {
    const about = state
    const at = await ask(
      client.POST('/api/place', {
        body: { balls: content.value.balls, conditions: content.value.conditions, ball: id, x, y, inD },
      }),
    )
    if (about !== state) return at
    const there = ball(id)
    if (there) Object.assign(there, at)
    else content.value.balls.push({ id, ...at })
    return at
  }

  const drag = useLatest(async (id: string, x: number, y: number) => {
    try {
      await place(id, x, y)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      problem.value = e
    }
  })

  /** Where the ball in hand is to go by the keys: presses that come faster than the answers add up. */
  let going: { id: string; x: number; y: number; state: number } | null = null

  /** Moves the ball in hand by so much, m. */
  async function nudge(dx: number, dy: number) {
    const from = going?.id === selected.value && going.state === state ? going : ball(selected.value)
    if (!from) return
    const to = { id: selected.value, x: from.x + dx, y: from.y + dy, state }
    going = to
    await drag(to.id, to.x, to.y)
    if (going === to) going = null
    if (to.state === state) commit()
  }

  /** Puts a ball somewhere at once; says whether something was in the way. */
  async function put(id: string, x: number, y: number, inD = false): Promise<boolean> {
    const about = state
    const at = await place(id, x, y, inD)
    if (about === state) {
      selected.value = id
      commit()
    }
    return Math.hypot(at.x - x, at.y - y) > 0.0005
  }

  /** Brings the next red on, where there is usually room. */
  async function addRed() {
    const id = reference.value!.ballIds.find((i) => i.startsWith('red-') && !ball(i))
    if (id) await put(id, 2.2, 0.6)
  }

  /** Pots the ball in hand, or the one that was to be potted, into this pocket. */
  function potInto(pocket: string) {
    const id = selected.value !== 'white' ? selected.value : stroke.value.pot?.ball
    if (!id) return
    setStroke({ pot: plainPot(id, pocket), free: false })
    commit()
  }

  function remove(id: string) {
    if (id === 'white') return
    state++
    content.value.balls = content.value.balls.filter((b) => b.id !== id)
    if (stroke.value.pot?.ball === id || stroke.value.pot?.through === id) stroke.value.pot = null
    if (selected.value === id) selected.value = 'white'
    commit()
  }

  function setStroke(change: Partial<Stroke>) {
    Object.assign(stroke.value, change)
  }

  /** Aims by hand from here on. */
  function aimFreely(degrees: number) {
    setStroke({ aim: Math.round(((((degrees % 360) + 540) % 360) - 180) * 1000) / 1000, free: true })
  }

  const aim = computed(() => (stroke.value.pot && !stroke.value.free ? (shot.value?.strike.aim ?? stroke.value.aim) : stroke.value.aim))

  function undo() {
    state++
    commit()
    history.undo()
    if (!ball(selected.value)) selected.value = 'white'
  }

  function redo() {
    state++
    history.redo()
    if (!ball(selected.value)) selected.value = 'white'
  }

  // ---- Keeping -------------------------------------------------------------------------------------------------

  /** What was sent is what is saved: typed since, it is not; and if another position lies there by now, it is none of its business. */
  async function keepAs(sent: Draft, request: (body: Draft) => Promise<SavedPosition>, isAbout: () => boolean) {
    const saved = await request(sent)
    if (!isAbout()) return saved
    origin.value = { id: saved.id, version: saved.version, draft: sent }
    lastOpened.value = saved.id
    return saved
  }

  async function saveAs(name: string) {
    commit()
    const before = origin.value
    const about = opened
    const sent = { ...copy(toRaw(draft.value)), name }
    await keepAs(sent, (body) => ask(client.POST('/api/positions', { body })), () => opened === about && origin.value?.id === before?.id)
    if (origin.value?.draft === sent) draft.value.name = name
  }

  /** Saves over what was opened; a Problem with status 409 if somebody else has saved it since. */
  async function save(version = origin.value?.version) {
    if (!origin.value || version === undefined) return saveAs(draft.value.name)
    commit()
    const id = origin.value.id
    const about = opened
    await keepAs(
      copy(toRaw(draft.value)),
      (body) => ask(client.PUT('/api/positions/{id}', { params: { path: { id } }, body: { ...body, version } })),
      () => opened === about && origin.value?.id === id,
    )
  }

  return {
    reference, table, shot, problem, selected, draft, origin, isDirty, isFirstVisit, content, stroke, aim,
    canUndo: history.canUndo, canRedo: history.canRedo,
    ball, start, open, startNew, reset, refresh, commit, put, addRed, drag, nudge, remove, potInto, setStroke, aimFreely, undo, redo, save, saveAs,
  }
})
