import { useLocalStorage } from '@vueuse/core'
import { defineStore } from 'pinia'
import { computed, ref, watch } from 'vue'
import { onSide } from '../../domain/mirror'
import { useDraft } from '../../position/draft'
import { seen } from '../../position/seen'
import { useRoutines, type RoutineResult } from './routines'
import { repeatsOf } from './words'
import { useSession, type Attempt, type Place, type Task } from './session'
import { bodyWords } from './words'

/** Balls that lie within this are where the step has them, m. */
const sameHere = 0.002

/** What is played now at a session, and how an attempt at it is counted. */
export const useCounting = defineStore('counting', () => {
  const sessions = useSession()
  const routines = useRoutines()
  const position = useDraft()

  const now = computed(() => sessions.session?.now ?? null)
  const routine = ref<RoutineResult | null>(null)
  /** Why the routine is not there, if it is not. */
  const isMissing = ref(false)
  watch(
    () => now.value?.routine,
    async (id) => {
      isMissing.value = false
      if (!id) return (routine.value = null)
      if (routine.value?.id === id) return
      const found = await routines.get(id).catch(() => null)
      if (now.value?.routine !== id) return
      routine.value = found
      isMissing.value = !found
    },
    { immediate: true },
  )
  const stepNumber = computed(() => Math.min(now.value?.step ?? 0, (routine.value?.routine.steps.length ?? 1) - 1))
  /** As it lies on the side that is played; while the place of an attempt is corrected, as it lay for that. */
  const step = computed(() => {
    const played = placed.value ?? now.value
    const as = routine.value?.routine.steps[placed.value?.step ?? stepNumber.value]
    if (!as || !played) return null
    const changed = played.stroke ? { ...as, stroke: played.stroke } : as
    return onSide(changed, played.mirrored, position.reference)
  })
  const isRun = computed(() => step.value?.demands.some((d) => d.kind === 'score') ?? false)

  /** Attempts at the step that is played, on this side. */
  const ofStep = computed(() =>
    sessions.attempts.filter(
      (a) => a.routine === now.value?.routine && a.step === stepNumber.value && (a.mirrored ?? false) === (now.value?.mirrored ?? false),
    ),
  )
  const ofRoutine = computed(() => sessions.attempts.filter((a) => a.routine === now.value?.routine))
  /** Those that are listed, numbered from one. */
  const listed = computed(() => (routine.value?.routine.order === 'steps' ? ofStep.value : ofRoutine.value))

  // ---- One attempt ---------------------------------------------------------------------------------------------

  /** Where the white stopped, and the struck ball: pointed at before the attempt is counted. */
  const white = ref<Place | null>(null)
  const ball = ref<Place | null>(null)
  const pointsAt = ref<'white' | 'ball'>('white')
  /** The attempt that is asked about and can be corrected: the last one, or one that was chosen in the list, until another is counted. */
  const last = ref<string | null>(null)
  const lastAttempt = computed<Attempt | null>(() => sessions.attempts.find((a) => a.id === last.value) ?? null)
  /** Whether the next touch says where that one stopped. */
  const isPlacing = ref(false)
  const placed = computed(() => (isPlacing.value ? lastAttempt.value : null))
  /** A run's points and strokes so far. */
  const run = ref<{ score: number; balls: number; kinds: Record<string, number> }>({ score: 0, balls: 0, kinds: {} })

  const wantsBall = computed(() => step.value?.demands.some((d) => d.kind === 'ballIn' || d.kind === 'ballOnCushion') ?? false)
  const wantsWhite = computed(() => step.value?.demands.some((d) => d.kind === 'whiteIn' || d.kind === 'whiteOnCushion') ?? false)

  function clear() {
    white.value = ball.value = null
    pointsAt.value = 'white'
    isPlacing.value = false
    run.value = { score: 0, balls: 0, kinds: {} }
  }
  watch([stepNumber, () => now.value?.mirrored, () => now.value?.routine], () => {
    clear()
    last.value = null
  })

  /** The thumb points at a place: of what is to be counted, or of the attempt whose place is corrected. */
  function point(at: Place, isLifted: boolean) {
    const what = pointsAt.value === 'white' ? white : ball
    what.value = at
    if (!placed.value || !isLifted) return
    sessions.correct(placed.value.id, { [pointsAt.value]: at })
    clear()
  }

  /** How an attempt was meant: as it was changed, or as its step says. */
  const meantOf = (a: Attempt) => a.stroke ?? routine.value?.routine.steps[a.step]?.stroke ?? null

  /** Another attempt is asked about. */
  function pick(id: string) {
    clear()
    last.value = id
  }
  function startPlacing() {
    clear()
    isPlacing.value = true
    // As it was marked: where the touch moves it from.
    white.value = lastAttempt.value?.white ?? null
    ball.value = lastAttempt.value?.ball ?? null
  }
  /** What was said of it was a slip of the thumb. */
  const sayOtherwise = () => lastAttempt.value && sessions.correct(lastAttempt.value.id, { said: !lastAttempt.value.said })

  function say(done: boolean) {
    if (isPlacing.value) clear()
    if (!sessions.session?.now || sessions.session.endedAt || !step.value) return
    const score = isRun.value ? run.value.score : null
    last.value = sessions.count({
      said: isRun.value ? null : done,
      white: white.value,
      ball: ball.value,
      score,
      kinds: isRun.value ? { ...run.value.kinds } : {},
    })
    clear()
    if (!isRun.value) goOn(done)
  }

  /** Where a stroke on the desk was seen to end counts here, if it was played from this step; said again, it corrects that attempt. */
  const fromDesk = new Map<string, string>()
  seen.on(({ id, balls, white: at, ball: other, counted }) => {
    const here = step.value
    if (!here || isRun.value || !sessions.session?.now || sessions.session.endedAt) return
    const isHere =
      here.balls.length === balls.length &&
      here.balls.every((b) => balls.some((o) => o.id === b.id && Math.hypot(o.x - b.x, o.y - b.y) < sameHere))
    if (!isHere) return
    const before = fromDesk.get(id)
    if (before && sessions.attempts.some((a) => a.id === before)) sessions.correct(before, { white: at, ball: other, said: !other })
    else {
      const made = sessions.count({ said: !other, white: at, ball: other, score: null, kinds: {} })
      if (!made) return
      fromDesk.set(id, made)
      last.value = made
    }
    counted()
  })

  /** What comes next: as the routine's order says. */
  function goOn(done: boolean) {
    const r = routine.value!.routine
    if (r.order === 'ladder') {
      const to = Math.max(0, Math.min(r.steps.length - 1, stepNumber.value + (done ? 1 : -1)))
      if (to !== stepNumber.value) move({ step: to })
    } else if (r.order === 'rounds' && r.steps.length > 1) move({ step: (stepNumber.value + 1) % r.steps.length })
  }

  /** Another step or side, with the last attempt still open to its reasons. */
  function move(change: Partial<Task>) {
    const keptLast = last.value
    sessions.setTask({ ...now.value!, ...change })
    void Promise.resolve().then(() => (last.value = keptLast))
  }

  function reason(name: string) {
    const attempt = lastAttempt.value
    if (!attempt) return
    const reasons = attempt.reasons.includes(name) ? attempt.reasons.filter((r) => r !== name) : [...attempt.reasons, name]
    sessions.correct(attempt.id, { reasons })
  }

  // ---- The body, in one's own words ----------------------------------------------------------------------------

  const words = useLocalStorage<string[]>('deep-baize-body-words', bodyWords)
  function addWord(word: string) {
    const text = word.trim().slice(0, 40)
    if (text && !words.value.includes(text)) words.value = [...words.value, text]
    return text
  }
  const removeWord = (word: string) => (words.value = words.value.filter((w) => w !== word))
  function body(word: string) {
    const attempt = lastAttempt.value
    if (!attempt) return
    sessions.correct(attempt.id, { body: attempt.body.includes(word) ? attempt.body.filter((b) => b !== word) : [...attempt.body, word] })
  }

  /** Takes the attempt back that is asked about, or else the last one. */
  function undo() {
    sessions.undo(lastAttempt.value?.id)
    clear()
    last.value = sessions.attempts[sessions.attempts.length - 1]?.id ?? null
  }

  function goStep(by: number) {
    const steps = routine.value?.routine.steps.length ?? 0
    if (!steps) return
    sessions.setTask({ ...now.value!, step: (stepNumber.value + by + steps) % steps })
  }
  const turn = () => routine.value?.routine.bothSides && sessions.setTask({ ...now.value!, mirrored: !now.value!.mirrored })

  // ---- A run ---------------------------------------------------------------------------------------------------

  function pot(points: number) {
    run.value = { ...run.value, score: Math.min(999, run.value.score + points), balls: run.value.balls + 1 }
  }
  function kind(name: string) {
    run.value = { ...run.value, kinds: { ...run.value.kinds, [name]: (run.value.kinds[name] ?? 0) + 1 } }
  }

  /** The shot was put back and played again: the run goes on with what it has. */
  const again = (isDone: boolean) => kind(isDone ? 'againDone' : 'againNot')
  const repeats = computed(() => repeatsOf(run.value.kinds))
  const clearRepeats = () => {
    const kinds = Object.fromEntries(Object.entries(run.value.kinds).filter(([name]) => !name.startsWith('again')))
    run.value = { ...run.value, kinds }
  }

  return {
    again,
    repeats,
    clearRepeats,
    now,
    routine,
    isMissing,
    step,
    stepNumber,
    isRun,
    ofStep,
    ofRoutine,
    listed,
    white,
    ball,
    pointsAt,
    wantsBall,
    wantsWhite,
    last,
    lastAttempt,
    isPlacing,
    meantOf,
    run,
    point,
    pick,
    startPlacing,
    sayOtherwise,
    say,
    reason,
    words,
    addWord,
    removeWord,
    body,
    undo,
    goStep,
    turn,
    pot,
    kind,
    clear,
  }
})
