import { useManualRefHistory } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, shallowRef } from 'vue'
import { ask, client, Problem, type BallEntry, type Draft, type Reference, type Schemas, type Stroke, type TrialEntry } from '../api/client'
import { isRed } from '../domain/balls'
import { copy, plainPot, plainStroke } from '../domain/strokes'
import { useLatest } from '../lib/useLatest'

/** Which saved position the draft came from, as it was read. */
export type Origin = { id: string; version: number; draft: Draft } | null

/** Whether a trial is one that the user would miss. */
const isMeant = (t: TrialEntry) => t.id.startsWith('k') || !!t.seenWhite || !!t.seenBall

/** The position on the table and what is done to it, with undo. */
export const useDraft = defineStore('draft', () => {
  /** What is so on every table: sizes, spots, names and limits. */
  const reference = shallowRef<Reference | null>(null)
  /** What the core refuses about the present draft. */
  const problem = shallowRef<Problem | null>(null)
  /** The ball in hand. */
  const selected = ref('white')
  const draft = ref<Required<Draft>>({
    name: '',
    about: '',
    trials: [],
    content: { balls: [], stroke: { ...plainStroke }, conditions: {} },
  })
  const origin = shallowRef<Origin>(null)
  const history = useManualRefHistory(draft, { clone: copy, capacity: 200 })
  /** The draft as it was when an advised stroke was last set up only to look at it, if nothing was unsaved then. */
  const lookedAt = ref('')
  /** Whether it differs from what is saved. */
  const hasChanged = computed(() => !origin.value || JSON.stringify(origin.value.draft) !== JSON.stringify(draft.value))
  /** Whether something would be lost: looking at an advised stroke is no change. */
  const isDirty = computed(() => hasChanged.value && (!origin.value || lookedAt.value !== withoutPlayed(draft.value)) && !isOnlyPlayed())
  /** A line that a stroke left by being played is no work of the user's; one that was kept, named or seen is. */
  const withoutPlayed = (d: Draft) => JSON.stringify({ ...d, trials: (d.trials ?? []).filter(isMeant) })
  const isOnlyPlayed = () => !!origin.value && withoutPlayed(origin.value.draft) === withoutPlayed(draft.value)

  /** Which state of the table an answer is awaited for: counted up when another is put in its place, so that a late answer is known by it. */
  let state = 0
  /** Counted up when another position is opened. */
  const opened = ref(0)

  const content = computed(() => draft.value.content)
  const stroke = computed(() => draft.value.content.stroke)
  const ball = (id: string) => content.value.balls.find((b) => b.id === id)

  /**
   * Another position in place of this one; nothing to undo.
   * @param isOnlyLookedAt It differs from what is saved by a stroke that was set up to look at it.
   */
  function reset(to: Draft, from: Origin, isOnlyLookedAt = false) {
    state++
    opened.value++
    draft.value = { ...copy(to), trials: copy(to.trials ?? []) }
    origin.value = from && { ...copy(from), draft: { ...copy(from.draft), trials: copy(from.draft.trials ?? []) } }
    lookedAt.value = isOnlyLookedAt ? withoutPlayed(draft.value) : ''
    selected.value = 'white'
    history.clear()
    history.commit()
    history.clear()
  }

  /** Another table in the same position: undo goes back. */
  function replace(content: Draft['content']) {
    state++
    draft.value.content = content
    if (!ball(selected.value)) selected.value = 'white'
    commit()
  }

  /**
   * A table from elsewhere (a routine, a photograph) begins a position of its own that is not saved yet, so that saving it never overwrites
   * the one that was open. Returns what brings that one back.
   */
  function begin(name: string, content: Draft['content'], about = ''): () => void {
    const before = { draft: copy(draft.value), origin: origin.value }
    reset({ name, about, content }, null)
    return () => reset(before.draft, before.origin)
  }

  /** Where it is kept from now on. */
  function cameFrom(from: Origin) {
    origin.value = from
  }

  function rename(name: string) {
    draft.value.name = name
  }

  function refuse(why: Problem | null) {
    problem.value = why
  }

  /** Ends a gesture: from here one step of undo goes back. */
  /** The white in hand, where a plan has it. */
  function placeWhite({ x, y }: { x: number; y: number }) {
    draft.value.content.balls = draft.value.content.balls.map((b) => (b.id === 'white' ? { ...b, x, y } : b))
  }

  /** The balls that a search is about: the white in hand is placed by the search itself. */
  const ballsAsked = computed(() =>
    content.value.frame?.inHand ? content.value.balls.filter((b) => b.id !== 'white') : content.value.balls,
  )

  /** The table that a search is about; the stroke that is set up is no part of the question, so that trying one keeps the answer. */
  const tableAsked = computed(() => ({ balls: ballsAsked.value, conditions: content.value.conditions, frame: content.value.frame }))

  /** The balls are those of an exercise, not of a frame: any of them on, unless said otherwise. */
  function makeExercise(exercise: Schemas['ExerciseEntry'] = { order: 'any' }) {
    draft.value.content.frame = { exercise }
    commit()
  }

  function commit() {
    const last = history.last.value.snapshot
    if (JSON.stringify(last) !== JSON.stringify(draft.value)) history.commit()
  }

  /** Moves a ball, or brings a new one on, to the nearest place where it can rest. Says where that was, or what is in the way. */
  async function place(id: string, x: number, y: number, inD = false): Promise<{ x: number; y: number }> {
    const about = state
    const at = await ask(
      client.POST('/api/place', { body: { balls: content.value.balls, conditions: content.value.conditions, ball: id, x, y, inD } }),
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
      refuse(e)
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

  /** Takes a ball off by the keys or a button; the white stays, for nothing can be played without it. */
  function remove(id: string) {
    if (id !== 'white') takeOff([id])
  }

  /**
   * Takes balls off the table. Outside a frame the reds that stay are numbered as they were laid, and not by what is left of fifteen; within
   * one they keep their numbers, for what is written down speaks of them.
   */
  function takeOff(ids: readonly string[]) {
    state++
    let balls = content.value.balls.filter((b) => !ids.includes(b.id))
    let { pot } = stroke.value
    if (pot && (ids.includes(pot.ball) || (pot.through && ids.includes(pot.through)))) pot = null
    if (!content.value.frame || content.value.frame.exercise) {
      const reds = balls.filter((b) => isRed(b.id)).map((b) => b.id)
      const newName = new Map(reds.map((id, i) => [id, `red-${i + 1}`]))
      const named = (id: string) => newName.get(id) ?? id
      balls = balls.map((b) => ({ ...b, id: named(b.id) }))
      if (pot) pot = { ...pot, ball: named(pot.ball), through: pot.through && named(pot.through) }
      const exercise = content.value.frame?.exercise
      if (exercise?.balls) exercise.balls = exercise.balls.filter((id) => !ids.includes(id)).map(named)
      selected.value = named(selected.value)
    }
    content.value.balls = balls
    stroke.value.pot = pot
    if (!ball(selected.value)) selected.value = 'white'
    commit()
  }

  /** Several balls at once, where the core has found room for them. */
  function moveTo(places: readonly BallEntry[]) {
    state++
    const at = new Map(places.map((p) => [p.id, p]))
    content.value.balls = content.value.balls.map((b) => ({ ...b, ...at.get(b.id) }))
    commit()
  }

  function setStroke(change: Partial<Stroke>) {
    Object.assign(stroke.value, change)
  }

  /**
   * Sets a stroke of a list up, to look at it: one step to undo, and no change of what is saved.
   * @param white Where the white in hand is placed for it.
   */
  function look(change: Partial<Stroke>, white?: { x: number; y: number } | null) {
    commit()
    const wasClean = !isDirty.value
    if (white) placeWhite(white)
    setStroke(change)
    if (wasClean) lookedAt.value = withoutPlayed(draft.value)
    commit()
  }

  /** Aims by hand from here on. */
  function aimFreely(degrees: number) {
    setStroke({ aim: Math.round(((((degrees % 360) + 540) % 360) - 180) * 1000) / 1000, free: true })
  }

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

  return {
    reference,
    problem,
    selected,
    draft,
    origin,
    isDirty,
    hasChanged,
    opened,
    content,
    stroke,
    canUndo: history.canUndo,
    canRedo: history.canRedo,
    ball,
    reset,
    replace,
    begin,
    cameFrom,
    rename,
    refuse,
    commit,
    makeExercise,
    placeWhite,
    tableAsked,
    put,
    addRed,
    drag,
    nudge,
    remove,
    takeOff,
    moveTo,
    potInto,
    setStroke,
    look,
    aimFreely,
    undo,
    redo,
  }
})
