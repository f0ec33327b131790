import type { Schemas } from '../../api/client'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { countWords, degreeWords, figureWords, lengthWords, listWords, paceWords } from '../../lib/formats'
import type { Routine, RoutineItem, Step } from './routines'

type Family = RoutineItem['family']

export const familyNames: Record<Family, string> = {
  own: 'Your own',
  cueing: 'Straightness',
  pace: 'Pace',
  spin: 'Stop, follow, screw',
  position: 'Position',
  potting: 'Pots',
  breaks: 'Runs',
  safety: 'Safety and escapes',
}
export const families = Object.keys(familyNames) as Family[]

export { reasonName, reasonNames, reasons, type Reason } from '../../domain/reasons'

/** What the body may have done; one's own words are added to them. */
export const bodyWords = ['grip', 'pause', 'backswing', 'bridge', 'butt', 'head', 'through the ball']

export const kindNames: Record<string, string> = {
  stun: 'stun',
  follow: 'follow',
  screw: 'screw',
  side: 'side',
  cannon: 'cannon',
  rest: 'rest',
}

/** Shots that were put back and played again within a run. */
export const repeatsOf = (kinds: Readonly<Record<string, number>>) => {
  const [done, not] = [kinds.againDone ?? 0, kinds.againNot ?? 0]
  return { done, of: done + not }
}

/** "7 of 10". */
export const ofWords = (share: { done: number; of: number }) => `${share.done} of ${share.of}`

/** "10 at each of 3, both sides". */
export function amountWords(routine: { steps: number; attempts: number; bothSides: boolean }) {
  const each = routine.steps > 1 ? `${routine.attempts} at each of ${routine.steps}` : countWords(routine.attempts, 'attempt')
  return routine.bothSides ? `${each}, both sides` : each
}

const cushionWords = (cushion?: string | null) => (cushion ? `the ${cushion.replace('-side', '’s side')} cushion` : 'a cushion')

/** What is asked, in the order in which it is asked: "pot red 1 into the top green-side pocket; the white stops in the circle". */
export function ruleWords(step: Step): string {
  return step.demands
    .map((d) => {
      switch (d.kind) {
        case 'pot':
          return `pot ${theBall(step.stroke!.pot!.ball)} into the ${pocketName(step.stroke!.pot!.pocket)} pocket`
        case 'whiteIn':
          return `the white stops in the ${d.area?.radius ? 'circle' : 'marked stretch'}`
        case 'ballIn':
          return `the ball stops in the ${d.area?.radius ? 'circle' : 'marked stretch'}`
        case 'whiteOnCushion':
          return `the white stops within ${lengthWords(d.within ?? 0)} of ${cushionWords(d.cushion)}`
        case 'ballOnCushion':
          return `the ball stops within ${lengthWords(d.within ?? 0)} of ${cushionWords(d.cushion)}`
        case 'meetsFirst':
          return `meet ${theBall(d.ball)} first`
        case 'runsInto':
          return d.ball ? `then run into ${theBall(d.ball)}` : 'then run into another ball'
        case 'backOnTip':
          return 'back on to the tip'
        case 'gate':
          return `between ${nameOf(d.ball ?? '')} and ${nameOf(d.other ?? '')}, untouched`
        case 'noCushion':
          return 'meet no cushion'
        case 'noSide':
          return 'no unmeant side'
        case 'score':
          return `make ${d.points} or more`
      }
    })
    .join('; ')
}

/** "0.4 tip below and pace 4.2". */
export function strokeWords(stroke: Schemas['MeantStroke']) {
  const tips = (value: number, more: string, less: string) =>
    Math.abs(value) < 0.005 ? '' : `${figureWords(Math.abs(value), 2).replace(/0$/, '')} tip ${value > 0 ? more : less}`
  return listWords(
    [
      tips(stroke.height ?? 0, 'above', 'below') || 'centre ball',
      tips(stroke.side ?? 0, 'of right', 'of left'),
      paceWords(stroke.pace ?? 4),
    ].filter(Boolean),
  )
}

/** What the knob of a ladder is set to: "0.38 to 1.21 tips above centre". */
export function windowWords(knob: string, from: number, to: number) {
  if (knob === 'pace') return `pace ${figureWords(from, 1)} to ${figureWords(to, 1)}`
  const name = (v: number) => `${figureWords(Math.abs(v), 2)} ${v >= 0 ? 'above' : 'below'}`
  return `${name(from)} to ${name(to)}, tips`
}

/** Whether a version of a step is easier or harder than it is. */
export const levelWords = (v: Pick<Schemas['VariantResult'], 'done'>, asItIs: Schemas['Estimate']) =>
  v.done.value >= asItIs.value ? 'easier' : 'harder'

/** What was done to a step to make it easier or harder. */
export function variantWords(v: Schemas['VariantResult']) {
  const parts = [
    Math.abs(v.nearer) > 0.01 ? `${lengthWords(Math.abs(v.nearer))} ${v.nearer > 0 ? 'nearer' : 'farther'}` : '',
    Math.abs(v.straighter) > 0.5 ? `${degreeWords(Math.abs(v.straighter))} ${v.straighter > 0 ? 'straighter' : 'thinner'}` : '',
    Math.abs(v.wider - 1) > 0.02 ? `areas ${figureWords(v.wider, 2)} times as wide` : '',
  ].filter(Boolean)
  return listWords(parts)
}

export const orderWords: Record<NonNullable<Routine['order']>, string> = {
  steps: 'one step after the other',
  rounds: 'one attempt at each in turn',
  ladder: 'up a step when done, down a step when not',
}

/** Where a ball goes, as it is measured at the table: from the two nearest cushions, and from the nearest spot. */
export function putBackWords(
  ball: { id: string; x: number; y: number },
  r: { length: number; width: number; ballRadius: number; spots: { ball: string; x: number; y: number }[] },
): string {
  const along =
    ball.x < r.length / 2 ? `${lengthWords(ball.x)} from the baulk cushion` : `${lengthWords(r.length - ball.x)} from the top cushion`
  const across =
    ball.y < r.width / 2 ? `${lengthWords(ball.y)} from the yellow’s side` : `${lengthWords(r.width - ball.y)} from the green’s side`
  const nearest = r.spots.map((s) => ({ ...s, away: Math.hypot(s.x - ball.x, s.y - ball.y) })).sort((a, b) => a.away - b.away)[0]
  if (nearest.away < 0.002) return `on the ${nearest.ball}’s spot`
  return `${along}, ${across}${nearest.away < 0.6 ? `; ${lengthWords(nearest.away)} from the ${nearest.ball}’s spot` : ''}`
}
