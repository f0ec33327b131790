import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, fetchFile, Problem, type Content, type Schemas } from '../../api/client'
import { kindOf, nameOf } from '../../domain/balls'
import { advised, contentOf, copy, isSameStroke, strokeOf } from '../../domain/strokes'
import { arrivalWords, fullnessWords, potWords, reachNeedWords, warningWords } from '../../domain/words'
import { countWords, degreeWords, sentence } from '../../lib/formats'
import { shareWords } from '../../lib/estimates'
import { played } from '../../position/played'
import { useView } from '../../position/view'
import { usePlayer } from '../../position/player'
import { usePractise } from '../../position/practise'
import { useKeeping } from '../../position/keeping'
import { useAttempt } from '../../lib/useAttempt'
import { useLatest } from '../../lib/useLatest'
import { useNotices } from '../../lib/notices'
import { useSearch } from '../../lib/useSearch'
import { useDraft } from '../../position/draft'
import { coverWords, planStrokeWords, reasonWords, tagsOf, type PlanShot } from './words'

export type Plan = Schemas['PlanResult']
export type Preferences = Required<Schemas['PreferencesEntry']>
type Answer = Schemas['PlansProgress']
type SavedItem = Schemas['SavedPlanItem']

/** The break planner: what is asked, what has been found so far, which plan and shot are looked at, and playing on. */
export const usePlans = defineStore('plans', () => {
  const position = useDraft()
  const players = usePlayer()
  const practise = usePractise()
  const view = useView()
  const keeping = useKeeping()
  const notices = useNotices()
  const { attempt } = useAttempt()

  const preferences = ref<Preferences>({ target: 'frame', score: 50, risk: 'balanced', plainOnly: false, avoidCannons: false })
  const answer = shallowRef<Answer | null>(null)
  const frame = shallowRef<Schemas['FrameResult'] | null>(null)
  /** Which plan, and which of its shots, is looked at. */
  const plan = ref(0)
  const shot = ref(0)
  const saved = ref<SavedItem[]>([])

  const isOpen = computed(() => view.step === 'break')
  const plans = computed(() => answer.value?.plans ?? [])
  const chosen = computed<Plan | null>(() => plans.value[Math.min(plan.value, plans.value.length - 1)] ?? null)
  const shown = computed<PlanShot | null>(() =>
    isOpen.value ? (chosen.value?.shots[Math.min(shot.value, chosen.value.shots.length - 1)] ?? null) : null,
  )
  /** The table of a later shot of the plan, instead of the one that is there. */
  const ahead = computed(() => (shown.value && shot.value > 0 ? shown.value : null))
  /** The first shot is the stroke that is set up: then the desk draws it already, with all that happens. */
  const isSetUp = computed(() => !!shown.value && !ahead.value && isSameStroke(strokeOf(shown.value.content.stroke), position.stroke))
  // What the plan shows is another table or another stroke than those on the desk.
  watch([ahead, shown, isSetUp], () => view.lookAhead(ahead.value ? ahead.value.content.balls : null, !!shown.value && !isSetUp.value), {
    immediate: true,
  })
  /** The measure of its figures: win, points or target. */
  const unit = computed(() => answer.value?.unit ?? 'win')

  const { isSearching, wasStopped, problem, drop, stop, search, follows } = useSearch<Answer>(
    '/api/plan',
    'The plan',
    () => {
      if (!isOpen.value || !position.content.balls.length) return null
      plan.value = shot.value = 0
      answer.value = null
      void tellFrame()
      return { content: copy(position.content), player: copy(players.player), preferences: copy(preferences.value) }
    },
    (progress) => (answer.value = progress),
  )

  /** What the score and the balls say; nothing while the frame cannot be: the plan says what is wrong with it. */
  const tellFrame = useLatest(async () => {
    try {
      frame.value = await ask(client.POST('/api/frame', { body: { content: copy<Content>(position.content) } }))
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      frame.value = null
    }
  })

  // What the answer depends on: not the stroke that is set up, so that trying a shot keeps the plan.
  const question = computed(() =>
    JSON.stringify([
      isOpen.value,
      position.ballsAsked,
      position.content.conditions,
      position.content.frame,
      players.player,
      preferences.value,
    ]),
  )
  /** The question of which the answer is there already: a kept plan that was opened. */
  let answered = ''
  follows(
    () => question.value,
    250,
    (now) => {
      const is = now === answered
      if (!is) answered = ''
      return is
    },
  )

  function look(at: number, which = plan.value) {
    plan.value = which
    shot.value = at
    if (at === 0) setUp()
  }

  /** What an address names, once it has been found. */
  let wanted: { plan: number; shot: number } | null = null
  function lookOnce(which: number, at: number) {
    if (plan.value === which && shot.value === at) return
    if (plans.value[which]?.shots[at]) look(at, which)
    else wanted = { plan: which, shot: at }
  }
  watch(plans, (found) => {
    if (!wanted || !found[wanted.plan]?.shots[wanted.shot]) return
    look(wanted.shot, wanted.plan)
    wanted = null
  })

  /** Sets the desk's stroke up as in the first shot of the plan. */
  function setUp() {
    const first = chosen.value?.shots[0]
    if (!first || shot.value > 0) return
    const white = first.content.balls.find((b) => b.id === 'white')
    if (position.content.frame?.inHand && white) position.placeWhite(white)
    position.setStroke(advised(first.content.stroke!, players.player.naturalElevation))
    position.commit()
  }

  /** Makes the shot that is looked at a routine. */
  const practiseShot = () =>
    attempt(async () => {
      const { content, choice } = chosen.value!.shots[shot.value]
      await practise.askFor(sentence(potWords(choice)), { ...position.content, frame: undefined, ...contentOf(content) })
    }, 'Not made a routine')

  /** The table of a later shot of the plan, in earnest. */
  function goThere() {
    if (!ahead.value) return
    const { content } = ahead.value
    shot.value = 0
    position.replace({ ...position.content, ...contentOf(content) })
  }

  /** A foul is answered, or it is drawn by lot who plays first at a black that was spotted again: the rules say what the table is then. */
  async function settle(how: { answer: 'playAgain' | 'putBack' } | { firstPlayer: 0 | 1 }) {
    drop()
    await attempt(async () => {
      const result = await ask(client.POST('/api/play-on', { body: { content: copy<Content>(position.content), ...how } }))
      position.replace({ ...position.content, ...contentOf(result.content) })
    }, 'Not settled')
  }

  /** The first shot of the plan has been played: potted, or missed on one side. The plan goes on from where the balls then are. */
  async function playOn(missed: 'thick' | 'thin' | null = null) {
    const first = chosen.value?.shots[0]
    if (!first) return
    drop()
    await attempt(async () => {
      const content = { ...copy(position.content), stroke: strokeOf(first.content.stroke) }
      const result = await ask(client.POST('/api/play-on', { body: { content, missed } }))
      void played.trigger(
        result.points > 0
          ? { kind: 'pot', potted: result.potted.map(kindOf), tags: tagsOf(first), white: whiteOf(result.content.balls) }
          : result.fouls.length
            ? {
                kind: 'foul',
                penalty: result.penalty,
                inOff: result.potted.includes('white'),
                redsLost: result.potted.filter((b) => kindOf(b) === 'red').length,
                tags: tagsOf(first),
                white: whiteOf(result.content.balls),
              }
            : { kind: 'miss', tags: tagsOf(first), why: missed, white: whiteOf(result.content.balls) },
      )
      shot.value = 0
      position.replace({ ...position.content, ...contentOf(result.content) })
      position.selected = 'white'
      const potted = result.potted.filter((b) => b !== 'white').map(nameOf)
      notices.show(
        {
          kind: 'info',
          text: result.frame.isOver
            ? result.frame.exercise
              ? 'That was the last ball of the exercise.'
              : 'That was the frame.'
            : result.points > 0
              ? `${potted.join(' and ')}: ${countWords(result.points, 'point')}, break ${result.frame.break}. Drag the white to where it really stopped.`
              : result.fouls.length
                ? `Foul, ${result.penalty} away. Drag the balls to where they really stopped.`
                : 'Missed: the other player is at the table. Drag the balls to where they really stopped.',
          action: { label: 'Undo', run: () => position.undo() },
        },
        8,
      )
    }, 'Not played')
  }

  const whiteOf = (balls: readonly { id: string; x: number; y: number }[]) => {
    const white = balls.find((b) => b.id === 'white')
    return white ? { x: white.x, y: white.y } : null
  }

  // ---- Kept plans ----------------------------------------------------------------------------------------------

  // Read by itself, perhaps at a place where nobody sees it: without a network it waits without a word.
  const { attempt: quietly } = useAttempt((problem) => problem.isAway)
  const loadSaved = () =>
    quietly(async () => {
      const positionId = position.origin?.id
      saved.value = positionId ? await ask(client.GET('/api/positions/{positionId}/plans', { params: { path: { positionId } } })) : []
    }, 'The kept plans are not read')
  watch([isOpen, () => position.origin?.id], () => isOpen.value && void loadSaved())

  const keep = () =>
    attempt(async () => {
      if (!position.origin) await keeping.saveAs()
      const positionId = position.origin?.id
      if (!positionId || !answer.value || !chosen.value) return
      const first = chosen.value.shots[0].choice
      const name = `${potWords(first)}, ${chosen.value.shots.length} shots`
      const body = {
        name,
        content: copy<Content>(position.content),
        body: { player: copy(players.player), preferences: copy(preferences.value), answer: answer.value },
      }
      await ask(client.POST('/api/positions/{positionId}/plans', { params: { path: { positionId } }, body }))
      await loadSaved()
      notices.show({ kind: 'info', text: 'The plan is kept with the position.' })
    }, 'The plan is not kept')

  const open = (id: string) =>
    attempt(async () => {
      const plan_ = await ask(
        client.GET('/api/positions/{positionId}/plans/{id}', { params: { path: { positionId: position.origin!.id, id } } }),
      )
      drop()
      wasStopped.value = false
      position.replace({ ...position.content, frame: undefined, ...contentOf(plan_.content) })
      preferences.value = { ...preferences.value, ...plan_.body.preferences }
      players.playAs({ ...players.player, ...plan_.body.player })
      answered = question.value
      await tellFrame()
      answer.value = plan_.body.answer
      plan.value = shot.value = 0
      problem.value = null
    }, 'The plan is not opened')

  const remove = ({ id, version }: SavedItem) =>
    attempt(async () => {
      const where = { path: { positionId: position.origin!.id, id }, query: { version } }
      await ask(client.DELETE('/api/positions/{positionId}/plans/{id}', { params: where }))
      await loadSaved()
    }, 'The plan is not deleted')

  // ---- On paper ------------------------------------------------------------------------------------------------

  function cardOf(s: PlanShot, number: number) {
    const c = s.choice
    const lines = [
      `${sentence(planStrokeWords(c, s.arrival))}.`,
      ...(s.reasons.length ? [`Why: ${s.reasons.slice(0, 4).map(reasonWords).join('; ')}.`] : []),
      `Long: ${coverWords(s.long)}. Short: ${coverWords(s.short)}.`,
    ]
    if (s.warnings.length) lines.push(`Mind: ${s.warnings.slice(0, 3).map(warningWords).join('; ')}.`)
    const rows = [
      { label: 'Cut', value: `${degreeWords(Math.abs(c.cutDegrees))}, ${fullnessWords[c.fullnessWord]}` },
      { label: 'Pace', value: (c.stroke.pace ?? 0).toFixed(1) },
      { label: 'Chance', value: shareWords(c.chance) },
      { label: 'Gets so far', value: shareWords(s.alive) },
      { label: 'Break after it', value: String(s.points) },
      ...(c.next.ball ? [{ label: 'Next', value: nameOf(c.next.ball) }] : []),
    ]
    if (s.arrival) rows.push({ label: 'Arrives', value: arrivalWords(s.arrival) })
    if (reachNeedWords(c.reach)) lines[0] += ` ${sentence(reachNeedWords(c.reach))}.`
    return { name: `${number}. ${potWords(c)}`, content: s.content, rows, lines: lines.map((l) => l.slice(0, 390)), note: '', goal: null }
  }

  const print = () =>
    attempt(async () => {
      if (!chosen.value) return
      const body = { name: `${position.draft.name}: plan`, cards: chosen.value.shots.map((s, i) => cardOf(s, i + 1)) }
      keeping.download(await fetchFile('/api/card/sheet/pdf', body), 'plan.pdf')
    }, 'No cards were made')

  return {
    preferences,
    answer,
    frame,
    isSearching,
    wasStopped,
    problem,
    plan,
    shot,
    saved,
    isOpen,
    plans,
    chosen,
    shown,
    ahead,
    isSetUp,
    unit,
    search,
    stop,
    look,
    lookOnce,
    setUp,
    practiseShot,
    goThere,
    playOn,
    settle,
    keep,
    open,
    remove,
    print,
  }
})
