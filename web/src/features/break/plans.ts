import { defineStore } from 'pinia'
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, fetchFile, Problem, type Content, type Schemas } from '../../api/client'
import { nameOf } from '../../domain/balls'
import { advised, contentOf, copy, isSameStroke, strokeOf } from '../../domain/strokes'
import { arrivalWords, fullnessWords, potWords, reachNeedWords, warningWords } from '../../domain/words'
import { degreeWords, sentence } from '../../lib/formats'
import { shareWords } from '../../lib/estimates'
import { usePlayOn, type Missed } from '../../position/playOn'
import { useView } from '../../position/view'
import { usePlayer } from '../../position/player'
import { usePractise } from '../../position/practise'
import { useKeeping } from '../../position/keeping'
import { useAttempt } from '../../lib/useAttempt'
import { useAnswer } from '../../lib/useAnswer'
import { useLatest } from '../../lib/useLatest'
import { useNotices } from '../../lib/notices'
import { useSearch } from '../../lib/useSearch'
import { useStandingOrder } from '../../lib/useStandingOrder'
import { useDraft } from '../../position/draft'
import { coverWords, planStrokeWords, reasonWords, tagsOf, type PlanShot } from './words'

export type Plan = Schemas['PlanResult']
export type Preferences = Required<Schemas['PreferencesEntry']>
type Answer = Schemas['PlansProgress']
type SavedItem = Schemas['SavedPlanItem']
export type NextBall = Schemas['NextBallResult']

/** Plans that were kept before they had names are named by their first shot's pot. */
const idOf = (plan: Plan) => plan.id || potWords(plan.shots[0].choice)

/** The break planner: what is asked, what has been found so far, which plan and shot are looked at, and playing on. */
export const usePlans = defineStore('plans', () => {
  const position = useDraft()
  const players = usePlayer()
  const practise = usePractise()
  const view = useView()
  const keeping = useKeeping()
  const notices = useNotices()
  const { attempt } = useAttempt()
  const playStroke = usePlayOn()

  const preferences = ref<Preferences>({
    target: 'frame',
    score: 50,
    risk: 'balanced',
    plainOnly: false,
    avoidCannons: false,
    next: null,
    later: [],
    keepOff: [],
    noCushion: false,
    softOnly: false,
    followFirst: false,
  })
  const frame = shallowRef<Schemas['FrameResult'] | null>(null)
  /** Which shot of the plan is looked at. */
  const shot = ref(0)
  const saved = ref<SavedItem[]>([])

  const isOpen = computed(() => view.step === 'break')

  /** The wishes that can be had on this table: of balls that have gone nothing is wished any more. */
  const wishes = computed<Preferences>(() => {
    const { next, later, keepOff, ...others } = preferences.value
    const isThere = (id: string) => !!position.ball(id)
    const mayFollow = next !== null && isThere(next) && (!frame.value || frame.value.mayFollow.includes(next))
    return { ...others, next: mayFollow ? next : null, later: later.filter(isThere), keepOff: keepOff.filter(isThere) }
  })

  const {
    found: answer,
    wait,
    status,
    since,
    isSearching,
    wasStopped,
    problem,
    drop,
    stop,
    search,
    take,
  } = useSearch<Answer>('/api/plan', {
    question: () =>
      position.content.balls.length ? { content: position.tableAsked, player: players.player, preferences: wishes.value } : null,
    body: () => ({ content: position.content, player: players.player, preferences: wishes.value }),
    isWanted: () => isOpen.value,
    rest: 250,
    hasFound: (told) => told.plans.length > 0,
  })

  /** The plans, the best first; a plan that is looked at stays where it is, and what it is, while better ones come in. */
  const {
    lines: plans,
    better,
    chosen: chosenId,
    choose,
    settle: release,
  } = useStandingOrder<Plan>(
    () => answer.value?.plans ?? [],
    idOf,
    (p) => p.shots[0].choice.stroke,
  )
  const chosen = computed<Plan | null>(() => plans.value.find((p) => idOf(p) === chosenId.value) ?? plans.value[0] ?? null)
  /** Place of the plan that is looked at, as the list stands. */
  const plan = computed(() => (chosen.value ? plans.value.indexOf(chosen.value) : 0))
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

  /** What the score and the balls say; nothing while the frame cannot be: the plan says what is wrong with it. */
  const tellFrame = useLatest(async () => {
    try {
      frame.value = await ask(client.POST('/api/frame', { body: { content: copy<Content>(position.content) } }))
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      frame.value = null
    }
  })

  watch([isOpen, () => JSON.stringify(position.tableAsked)], ([open]) => open && position.content.balls.length && void tellFrame(), {
    immediate: true,
  })
  // Another question: nothing of the old answer is looked at.
  watch(
    () => JSON.stringify([position.tableAsked, players.player, wishes.value]),
    () => {
      shot.value = 0
      release()
    },
  )

  // ---- Which ball to play for ------------------------------------------------------------------------------------

  /** Whether it is asked which ball to play for. */
  const nextAsked = ref(false)
  const nextBalls = useAnswer({
    question: () =>
      isOpen.value && nextAsked.value && position.content.balls.length
        ? { content: position.tableAsked, player: players.player, preferences: { ...wishes.value, next: null } }
        : null,
    ask: (body, signal) => ask(client.POST('/api/next-balls', { body, signal })),
    rest: 200,
    keepAs: 'next balls',
  })
  /** The ball of that list that is pointed at, or whose stroke is set up. */
  const pointedNext = ref<string | null>(null)
  const shownNext = computed<NextBall | null>(
    () => (nextAsked.value && nextBalls.present.value?.balls.find((b: NextBall) => b.ball === pointedNext.value)) || null,
  )

  /** Sets the desk up with the stroke that leaves a ball on. */
  function setUpNext(ball: NextBall) {
    pointedNext.value = ball.ball
    position.look(advised(ball.stroke, players.player.naturalElevation))
  }

  /** Plans for a ball to be next; the same ball again: for any. */
  const playFor = (ball: string) => (preferences.value.next = preferences.value.next === ball ? null : ball)

  /** Wishes for a ball, or no longer: left for later, or kept off. */
  function wish(what: 'later' | 'keepOff', ball: string) {
    const list = preferences.value[what]
    preferences.value[what] = list.includes(ball) ? list.filter((b) => b !== ball) : [...list, ball]
    if (what === 'later' && preferences.value.next === ball) preferences.value.next = null
  }

  function look(at: number, which = plan.value) {
    const is = plans.value[which]
    if (is) choose(idOf(is))
    shot.value = at
    if (at === 0) setUp()
  }

  /** Shows the better plan that has been found since one was looked at. */
  function showBetter() {
    shot.value = 0
    release()
  }

  /** What an address names, once it has been found. */
  let wanted: { id: string; shot: number } | null = null
  function lookOnce(id: string, at: number) {
    if ((!id || id === chosenId.value) && shot.value === at) return
    wanted = { id, shot: at }
    lookAtWanted()
  }
  function lookAtWanted() {
    const which = wanted?.id ? plans.value.findIndex((p) => idOf(p) === wanted!.id) : 0
    if (!wanted || !plans.value[which]?.shots[wanted.shot]) return
    look(wanted.shot, which)
    wanted = null
  }
  watch(plans, lookAtWanted)

  /** Sets the desk's stroke up as in the first shot of the plan. */
  function setUp() {
    const first = chosen.value?.shots[0]
    if (!first || shot.value > 0) return
    const white = first.content.balls.find((b) => b.id === 'white')
    position.look(advised(first.content.stroke!, players.player.naturalElevation), position.content.frame?.inHand ? white : null)
  }

  /** Makes the shot that is looked at a routine. */
  const practiseShot = () =>
    attempt(async () => {
      const { content, choice } = chosen.value!.shots[shot.value]
      await practise.askFor(sentence(potWords(choice)), { ...position.content, frame: undefined, ...contentOf(content) })
    }, 'Could not make it a routine')

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
    }, 'Could not record the draw')
  }

  /** The first shot of the plan has been played: potted, or missed on one side. The plan goes on from where the balls then are. */
  async function playOn(missed: Missed | null = null) {
    const first = chosen.value?.shots[0]
    if (!first) return
    drop()
    await attempt(async () => {
      await playStroke({ ...copy(position.content), stroke: strokeOf(first.content.stroke) }, missed, tagsOf(first))
      shot.value = 0
    }, 'Could not play it')
  }

  // ---- Kept plans ----------------------------------------------------------------------------------------------

  // Read by itself, perhaps at a place where nobody sees it: without a network it waits without a word.
  const { attempt: quietly } = useAttempt((problem) => problem.isAway)
  const loadSaved = () =>
    quietly(async () => {
      const positionId = position.origin?.id
      saved.value = positionId ? await ask(client.GET('/api/positions/{positionId}/plans', { params: { path: { positionId } } })) : []
    }, 'Could not load the kept plans')
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
        body: { player: copy(players.player), preferences: copy(wishes.value), answer: answer.value },
      }
      await ask(client.POST('/api/positions/{positionId}/plans', { params: { path: { positionId } }, body }))
      await loadSaved()
      notices.show({ kind: 'info', text: 'The plan is kept with the position.' })
    }, 'Could not keep the plan')

  const open = (id: string) =>
    attempt(async () => {
      const plan_ = await ask(
        client.GET('/api/positions/{positionId}/plans/{id}', { params: { path: { positionId: position.origin!.id, id } } }),
      )
      drop()
      position.replace({ ...position.content, frame: undefined, ...contentOf(plan_.content) })
      preferences.value = { ...preferences.value, ...plan_.body.preferences }
      players.playAs({ ...players.player, ...plan_.body.player })
      await tellFrame()
      shot.value = 0
      release()
      take(plan_.body.answer)
    }, 'Could not open the plan')

  const remove = ({ id, version }: SavedItem) =>
    attempt(async () => {
      const where = { path: { positionId: position.origin!.id, id }, query: { version } }
      await ask(client.DELETE('/api/positions/{positionId}/plans/{id}', { params: where }))
      await loadSaved()
    }, 'Could not delete the plan')

  // ---- On paper ------------------------------------------------------------------------------------------------

  function cardOf(s: PlanShot, number: number) {
    const c = s.choice
    const lines = [
      `${sentence(planStrokeWords(c, s.arrival))}.`,
      ...(s.reasons.length ? [`Why: ${s.reasons.slice(0, 4).map(reasonWords).join('; ')}.`] : []),
      `Long: ${coverWords(s.long)}. Short: ${coverWords(s.short)}.`,
    ]
    if (s.warnings.length) lines.push(`Watch for: ${s.warnings.slice(0, 3).map(warningWords).join('; ')}.`)
    const rows = [
      { label: 'Cut', value: `${degreeWords(Math.abs(c.cutDegrees))}, ${fullnessWords[c.fullnessWord]}` },
      { label: 'Pace', value: (c.stroke.pace ?? 0).toFixed(1) },
      { label: 'Chance', value: shareWords(c.chance) },
      { label: 'Reaches this shot', value: shareWords(s.alive) },
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
    }, 'Could not make the cards')

  return {
    preferences,
    answer,
    wait,
    status,
    since,
    better,
    frame,
    isSearching,
    wasStopped,
    problem,
    plan,
    chosenId,
    shot,
    saved,
    isOpen,
    plans,
    chosen,
    shown,
    ahead,
    isSetUp,
    unit,
    wishes,
    nextAsked,
    nextBalls: nextBalls.present,
    nextProblem: nextBalls.problem,
    nextAgain: nextBalls.again,
    pointedNext,
    shownNext,
    setUpNext,
    playFor,
    wish,
    search,
    stop,
    look,
    lookOnce,
    showBetter,
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
