import type { Schemas } from '../../api/client'
import { nameOf as ballName, pocketName, theBall } from '../../domain/balls'
import type { Estimate } from '../../lib/estimates'
import { figureWords, lengthWords, percentWords } from '../../lib/formats'

/** What a comparison says: figures of each stroke, what small mistakes do, which is better and why. */

type Column = Schemas['CompareColumnResult']
type Difference = Schemas['CompareDifferenceResult']
type Nudge = Schemas['Nudge']

/** A difference in it: "4.2 ± 1.1 % of frames", or "3.4 ± 0.6 points". */
export function byWords(by: Estimate, unit: string): string {
  const scale = unit === 'points' ? 1 : 100
  return `${figureWords(by.value * scale, 1)} ± ${(by.error * scale).toFixed(1)} ${unit === 'points' ? 'points' : '% of frames'}`
}

/** What is on after the stroke as it is meant. */
export function nextWords(c: Column): string {
  const { next } = c
  if (!c.stop) return 'the white goes in'
  if (c.staysIn) return next.ball ? `${ballName(next.ball)}, ${percentWords(next.chance)}` : 'nothing on'
  if (next.isSnookered) return 'a snooker'
  return next.ball && next.chance >= 0.02 ? `leaves ${ballName(next.ball)}, ${percentWords(next.chance)}` : 'leaves no pot'
}

/** What a usual error of pace leaves. */
export const errorWords = (cover: Schemas['CoverResult'] | null | undefined) =>
  !cover ? '–' : !cover.scores ? 'pot or white lost' : cover.ball ? `${ballName(cover.ball)}, ${percentWords(cover.chance)}` : 'nothing on'

const pairs: Record<'pace' | 'height' | 'side', [Nudge, Nudge]> = {
  pace: ['harder', 'softer'],
  height: ['higher', 'lower'],
  side: ['moreRight', 'moreLeft'],
}

/** What a mistake in one knob does, the worse of the two ways: "−3 %, white 160 mm". */
export function nudgeWords(c: Column, knob: keyof typeof pairs, unit: string): string {
  const both = c.nudges.filter((n) => pairs[knob].includes(n.nudge))
  if (!both.length) return '…'
  const worst = both.reduce((a, b) => (b.change.value < a.change.value ? b : a))
  const moved = Math.max(...both.map((n) => (n.white && c.stop ? Math.hypot(n.white.x - c.stop.x, n.white.y - c.stop.y) : 0)))
  const scale = unit === 'points' ? 1 : 100
  const change = worst.change.value * scale
  const loss = change > -0.5 ? 'hardly minds' : `${figureWords(change, unit === 'points' ? 1 : 0)}${unit === 'points' ? ' pts' : ' %'}`
  const lost = both.some((n) => !n.white) ? ', in-off' : ''
  return `${loss}, white ${lengthWords(moved)}${lost}`
}

/** Which of two is better, by how much and why. */
export function differenceWords(d: Difference, name: (id: string) => string, unit: string): string {
  const [better, other] = [name(d.better), name(d.other)]
  if (d.isLevel) return `${better} and ${other} are level (${byWords(d.by, unit)}).`
  const reasons: [number, string][] = [
    [d.byChance, 'it scores more often'],
    [d.byPosition, 'it leaves a better position'],
    [d.byLeave, 'what it leaves otherwise is safer'],
  ]
  const why = reasons.filter(([part]) => part > 0.15 * d.by.value).sort((a, b) => b[0] - a[0])
  const but = reasons.filter(([part]) => part < -0.3 * d.by.value)
  const against: Record<string, string> = {
    'it scores more often': 'it scores less often',
    'it leaves a better position': 'its position is worse',
    'what it leaves otherwise is safer': 'what it leaves otherwise is worse',
  }
  const because = why.length ? `: ${why.map(([, words]) => words).join(', and ')}` : ''
  return `${better} is better than ${other} by ${byWords(d.by, unit)}${because}${but.length ? `, though ${against[but[0][1]]}` : ''}.`
}

/** Of a stroke in a list: the ball it pots, or where a free one is aimed. */
export const choiceWords = (stroke: Pick<Schemas['StrokeEntry'], 'pot'>) =>
  stroke.pot ? `${theBall(stroke.pot.ball)} into the ${pocketName(stroke.pot.pocket)}` : 'aimed freely'
