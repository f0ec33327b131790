import { defineAsyncComponent } from 'vue'
import { nearestCushion } from '../../domain/cushions'
import type { Feature } from '../../position/feature'
import type { At, LayerGrip, Point } from '../../table/layer'
import { lengthWords } from '../../lib/formats'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useView, type ShotView } from '../../position/view'
import { useGoal, type Goal } from '../../position/goal'
import { useJudgedDrawing } from './judgedDrawing'
import { useJudgements } from './judgements'
import { useGuess } from './guess'
import { useShotDrawing } from './shotDrawing'
import ShotLayer from './ShotLayer.vue'
import { useTrials } from './trials'
import { useTrialsDrawing } from './trialsDrawing'
import { useWays } from './ways'

export { useJudgements, type FanKind } from './judgements'

/** What is beside the shot itself is loaded once the shot is drawn. */
const JudgedLayer = defineAsyncComponent(() => import('./JudgedLayer.vue'))
const TrialsLayer = defineAsyncComponent(() => import('./TrialsLayer.vue'))

const toMillimetre = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 1000) / 1000

/** How the shot that is set up is played, and what if. */
export function useShotFeature(): Feature {
  const position = useDraft()
  const answer = useShot()
  const view = useView()
  const goals = useGoal()
  const ways = useWays()
  const judgements = useJudgements()
  const shot = useShotDrawing()
  const judged = useJudgedDrawing()
  const trials = useTrials()
  const left = useTrialsDrawing()
  const guess = useGuess()

  /** The place of the cushion that is nearest to where is pointed. */
  function atCushion(at: At, goal: Goal): (to: Point) => void {
    const { length, width } = position.reference!
    const put = (p: Point) => {
      const name = nearestCushion(p, { length, width })
      const isShort = name === 'baulk' || name === 'top'
      goal.cushion = { name, at: isShort ? toMillimetre(p.y, width) : toMillimetre(p.x, length) }
    }
    put(at)
    return put
  }

  /** The place where the white should stop: its rim makes it larger or smaller; elsewhere on the bed it comes under the hand. */
  function grip(at: At): ((to: Point) => void) | null {
    const goal = goals.pointed
    if (!ways.isOpen || !goal) return null
    if (goal.kind === 'cushion') return atCushion(at, goal)
    const place = goal.place
    const far = place && Math.hypot(place.x - at.x, place.y - at.y)
    if (place && far !== null && Math.abs(far - goal.radius) < at.reach * 0.7)
      return (to) => (goal.radius = Math.round(Math.min(1, Math.max(0.03, Math.hypot(to.x - place.x, to.y - place.y))) * 200) / 200)
    const { length, width } = position.reference!
    if (at.x <= 0 || at.x >= length || at.y <= 0 || at.y >= width) return null
    const [dx, dy] = place && far! < goal.radius ? [place.x - at.x, place.y - at.y] : [0, 0]
    return (to) => (goal.place = { x: toMillimetre(to.x + dx, length), y: toMillimetre(to.y + dy, width) })
  }

  /** Where a ball really stopped: its ring is dragged there, or the place is touched after *It stopped here*. A guess is marked by a touch too. */
  function gripOfEnds(at: At): ((to: Point) => void) | LayerGrip | null {
    if (guess.isCovered) return guess.mark(at, at.reach)
    if (view.step !== 'shot' || view.ahead || ways.isOpen) return null
    const asked = trials.asks
    const ring = shot.finals.value
      .filter((f) => f.id === 'white' || f.id === position.stroke.pot?.ball)
      .map((f) => ({ f, d: Math.hypot(f.x - at.x, f.y - at.y) }))
      .filter((r) => r.d < Math.max(position.reference!.ballRadius, at.reach))
      .sort((a, b) => a.d - b.d)[0]?.f
    const what = asked ?? (ring ? (ring.id === 'white' ? 'white' : 'ball') : null)
    if (!what) return null
    const from = ring ?? at
    let last: Point = at
    return {
      move(to) {
        last = to
        if (asked || Math.hypot(to.x - at.x, to.y - at.y) > 0.006) trials.dragged = { what, ...onBed(to) }
      },
      done() {
        const isMeant = !!trials.dragged
        trials.dragged = null
        if (isMeant) trials.seenAt(what, onBed(last))
      },
      words: (to) => `${lengthWords(Math.hypot(to.x - from.x, to.y - from.y))} from there`,
    }
  }
  function onBed(p: Point): Point {
    const { length, width, ballRadius: r } = position.reference!
    const within = (v: number, most: number) => Math.min(most - r, Math.max(r, v))
    return { x: within(p.x, length), y: within(p.y, width) }
  }

  function tip(side: number, height: number) {
    const next = { side: position.stroke.side + side, height: position.stroke.height + height }
    if (Math.hypot(next.side, next.height) > position.reference!.tipLimit) return
    position.setStroke({ side: Math.round(next.side * 100) / 100, height: Math.round(next.height * 100) / 100 })
  }
  function pace(by: number) {
    const { paceMin, paceMax } = position.reference!
    position.setStroke({ pace: Math.min(paceMax, Math.max(paceMin, Math.round((position.stroke.pace + by) * 10) / 10)) })
  }
  const turn = (by: number) => position.aimFreely(answer.aim + by)
  const show = (to: ShotView) => () => view.go('shot', view.step === 'shot' && view.shotView === to ? 'set-up' : to)

  return {
    layers: [
      {
        key: 'judged',
        component: JudgedLayer,
        namings: () => judged.namings.value,
        grip,
        lines: () => judged.lines.value,
        named: () => (ways.isOpen ? (ways.ways ?? []).flatMap((w) => w.balls) : []),
      },
      {
        key: 'trials',
        component: TrialsLayer,
        namings: () => left.namings.value,
        lines: () => left.clear.value,
      },
      {
        key: 'shot',
        component: ShotLayer,
        grip: gripOfEnds,
        asksForPlace: () => guess.isCovered || !!trials.asks,
        namings: () => [...shot.namings.value, ...shot.numbers.value],
        lines: () => shot.lines.value,
        marks: () => shot.events.value.map(({ number, x, y }) => ({ key: number, x, y })),
        named: () => shot.named.value,
      },
    ],
    commands: [
      { id: 'aim-left', name: 'turn the aim left, 0.1°', key: 'a', takesShift: true, run: (by) => turn(0.1 * by) },
      { id: 'aim-right', name: 'turn the aim right, 0.1°', key: 'd', takesShift: true, run: (by) => turn(-0.1 * by) },
      { id: 'tip-up', name: 'tip up, a twentieth of a tip', key: 'w', run: () => tip(0, 0.05) },
      { id: 'tip-down', name: 'tip down', key: 's', run: () => tip(0, -0.05) },
      { id: 'tip-left', name: 'tip left', key: 'q', run: () => tip(-0.05, 0) },
      { id: 'tip-right', name: 'tip right', key: 'e', run: () => tip(0.05, 0) },
      { id: 'softer', name: 'pace down, a tenth', key: '-', run: () => pace(-0.1) },
      { id: 'harder', name: 'pace up, a tenth', key: '+', run: () => pace(0.1) },
      { id: 'ways', name: 'put it there: where the white should stop', key: 't', run: show('there') },
      { id: 'compare', name: 'compare strokes of your own side by side', key: 'c', run: show('compare') },
      { id: 'guess', name: 'guess first where the white stops', key: 'y', run: show('guess') },
      { id: 'line', name: 'keep the line of the stroke', key: 'g', run: () => trials.leave(true) },
      { id: 'keep', name: 'keep the shot, with a line on it', key: 'k', run: show('kept') },
      { id: 'spread', name: 'show where it may stop', key: 'x', run: () => (judgements.spreadOpen = !judgements.spreadOpen) },
    ],
  }
}
