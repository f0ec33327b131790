import type { Feature } from '../../position/feature'
import type { At, Point } from '../../table/layer'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useView, type ShotView } from '../../position/view'
import { useGoal } from '../../position/goal'
import { useJudgedDrawing } from './judgedDrawing'
import JudgedLayer from './JudgedLayer.vue'
import { useJudgements } from './judgements'
import { useShotDrawing } from './shotDrawing'
import ShotLayer from './ShotLayer.vue'
import { useWays } from './ways'

export { useJudgements, type FanKind } from './judgements'

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

  /** The place where the white should stop: its rim makes it larger or smaller; elsewhere on the bed it comes under the hand. */
  function grip(at: At): ((to: Point) => void) | null {
    if (!ways.isOpen || goals.goal.kind !== 'stop') return null
    const place = judged.place.value
    const far = place && Math.hypot(place.x - at.x, place.y - at.y)
    if (place && far !== null && Math.abs(far - goals.goal.radius) < at.reach * 0.7)
      return (to) => (goals.goal.radius = Math.round(Math.min(1, Math.max(0.03, Math.hypot(to.x - place.x, to.y - place.y))) * 200) / 200)
    const { length, width } = position.reference!
    if (at.x <= 0 || at.x >= length || at.y <= 0 || at.y >= width) return null
    const [dx, dy] = place && far! < goals.goal.radius ? [place.x - at.x, place.y - at.y] : [0, 0]
    return (to) => (goals.goal.place = { x: toMillimetre(to.x + dx, length), y: toMillimetre(to.y + dy, width) })
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
        key: 'shot',
        component: ShotLayer,
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
      { id: 'compare', name: 'compare: strokes of one’s own side by side', key: 'c', run: show('compare') },
      { id: 'keep', name: 'keep the shot, with a line on it', key: 'k', run: show('kept') },
      { id: 'spread', name: 'show where it may stop', key: 'x', run: () => (judgements.spreadOpen = !judgements.spreadOpen) },
    ],
  }
}
