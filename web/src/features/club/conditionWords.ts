import type { Schemas } from '../../api/client'
import { degreeWords, distanceWords, lengthWords } from '../../lib/formats'

/** What the conditions are called on the page, by their names in the API. */
export const conditionNames: Record<string, string> = {
  slidingFriction: 'Sliding friction of the cloth',
  rollingFriction: 'Rolling friction of the cloth',
  spinDeceleration: 'Side dies on the cloth by',
  driftAlong: 'Drift along the table (+ to the top cushion)',
  driftAcross: 'Drift across the table (+ to the green’s side)',
  gravity: 'Gravity',
  bedRestitution: 'Ball on slate restitution',
  cushionRestitution: 'Cushion restitution',
  cushionFriction: 'Cushion friction',
  noseSine: 'Cushion nose height (sine of the contact angle)',
  ballRestitution: 'Ball on ball restitution',
  ballFrictionFloor: 'Ball friction, fast',
  ballFrictionRange: 'Ball friction, more when slow',
  ballFrictionDecay: 'Ball friction, falls off by',
  cueMass: 'Cue mass',
  tipRestitution: 'Tip restitution',
  endMassRatio: 'Ball to cue-end mass (more is less squirt)',
  cornerGap: 'Corner gap between the jaws',
  cornerJawRadius: 'Corner jaw radius',
  cornerDropSetback: 'Corner drop, how far back',
  cornerDropRadius: 'Corner drop radius',
  middleGap: 'Middle gap between the jaws',
  middleJawRadius: 'Middle jaw radius',
  middleDropSetback: 'Middle drop, how far back',
  middleDropRadius: 'Middle drop radius',
}

export const groupNames: Record<string, string> = { cloth: 'Cloth', cushions: 'Cushions', balls: 'Balls', cue: 'Cue', pockets: 'Pockets' }

export const presetNames: Record<string, string> = {
  match: 'Match table',
  quickMatch: 'Quick match cloth',
  slowClub: 'Slow club cloth',
  tightPockets: 'Tight pockets',
  generousPockets: 'Generous pockets',
  wornBalls: 'Worn balls',
}

/** The ends of each scale. */
export const scaleWords: Record<string, [string, string]> = {
  cloth: ['slow', 'quick'],
  cushions: ['dull', 'lively'],
  pockets: ['tight', 'generous'],
  balls: ['worn', 'clean'],
  cue: ['whippy', 'stiff'],
}

/** What a property changes against a match table: "a plain five runs 120 mm farther". */
export function effectWords({ scale, value, standard }: Pick<Schemas['FeelResult'], 'scale' | 'value' | 'standard'>): string {
  const by = value - standard
  const farther = `${lengthWords(Math.abs(by))} ${by > 0 ? 'farther' : 'shorter'}`
  switch (scale) {
    case 'cloth':
      return Math.abs(by) < 0.005 ? `a plain five runs ${distanceWords(value)}` : `a plain five runs ${farther}`
    case 'cushions':
      return Math.abs(by) < 0.005
        ? `off the top cushion a plain five runs ${distanceWords(value)}`
        : `off the top cushion a plain five runs ${farther}`
    case 'pockets':
      return `a long pot finds the corner open by ${degreeWords(value, 2)}${Math.abs(by) < 0.005 ? '' : `, ${degreeWords(standard, 2)} on a match table`}`
    case 'balls':
      return `a half-ball stun shot is thrown thick by ${degreeWords(value, 1)}`
    default:
      return `a tip of side pushes the white off by ${degreeWords(value, 1)}: ${lengthWords(Math.tan((value * Math.PI) / 180))} in a metre`
  }
}

/** A sentence for each figure. */
export const conditionMeanings: Record<string, string> = {
  slidingFriction: 'How soon a sliding ball rolls. More friction takes screw off sooner.',
  rollingFriction: 'How soon a rolling ball stops: the speed of the cloth.',
  spinDeceleration: 'How soon side spins out on the way to a cushion.',
  driftAlong: 'Nap and a bed that is not level: what turns a rolling ball up or down the table.',
  driftAcross: 'Nap and a bed that is not level: what turns a rolling ball to one side.',
  gravity: 'Varies by half a percent around the world.',
  bedRestitution: 'How high a ball hops from a raised butt.',
  cushionRestitution: 'How much pace a ball keeps off a cushion.',
  cushionFriction: 'How much side grips at a cushion.',
  noseSine: 'How high the nose stands: a high one presses the ball down.',
  ballRestitution: 'How much of its pace a ball passes on to another: less with worn balls.',
  ballFrictionFloor: 'Throw on hard shots.',
  ballFrictionRange: 'Extra throw on soft shots.',
  ballFrictionDecay: 'How quickly throw fades with pace.',
  cueMass: 'A heavier cue gives the ball a little more pace.',
  tipRestitution: 'A hard tip gives more pace than a soft one.',
  endMassRatio: 'How light the end of the cue is: the lighter, the less squirt.',
  cornerGap: 'The clear width between the jaws of a corner.',
  cornerJawRadius: 'How round the jaws of a corner are.',
  cornerDropSetback: 'How far behind the corner a ball falls.',
  cornerDropRadius: 'How wide the fall of a corner is.',
  middleGap: 'The clear width between the jaws of a middle pocket.',
  middleJawRadius: 'How round the jaws of a middle pocket are.',
  middleDropSetback: 'How far behind the nose a ball falls in the middle.',
  middleDropRadius: 'How wide the fall of a middle pocket is.',
}
