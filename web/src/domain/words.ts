import type { Cut, Schemas, Stroke } from '../api/client'
import { countWords, lengthWords, listWords, paceWords, percentWords } from '../lib/formats'
import { isRed, nameOf, pocketName, theBall } from './balls'

/** The trade's words for what the core answers in figures and codes: those that more than one feature speaks. */

const quarters: [number, string][] = [
  [0.25, 'a quarter'],
  [0.5, 'half'],
  [0.75, 'three quarters'],
  [1, 'one'],
  [1.25, 'one and a quarter'],
  [1.5, 'one and a half'],
]

function amount(tips: number): string {
  const near = quarters.reduce((a, b) => (Math.abs(b[0] - tips) < Math.abs(a[0] - tips) ? b : a))
  return `${near[1]}${near[0] === 0.25 || near[0] === 0.75 ? ' of a tip' : near[0] === 0.5 ? ' a tip' : near[0] === 1 ? ' tip' : ' tips'}`
}

/** "half a tip below, a touch of right". */
export function tipWords(side: number, height: number): string {
  const parts: string[] = []
  if (Math.abs(height) >= 0.06)
    parts.push(`${Math.abs(height) < 0.19 ? 'a touch' : amount(Math.abs(height))} ${height > 0 ? 'above' : 'below'}`)
  if (Math.abs(side) >= 0.06) parts.push(`${Math.abs(side) < 0.19 ? 'a touch' : amount(Math.abs(side))} of ${side > 0 ? 'right' : 'left'}`)
  return parts.length ? parts.join(', ') : 'centre ball'
}

type StrokeFigures = Pick<Schemas['StrokeEntry'], 'side' | 'height' | 'pace' | 'elevation'>

/** "half a tip below, pace 4, butt raised 12°". */
export function strokeWords(stroke: StrokeFigures | Stroke): string {
  const raised = (stroke.elevation ?? 0) > 5 ? `, butt raised ${stroke.elevation!.toFixed(0)}°` : ''
  return `${tipWords(stroke.side ?? 0, stroke.height ?? 0)}, ${paceWords(stroke.pace)}${raised}`
}

const parts: [number, string][] = [
  [0.25, '¼'],
  [0.5, '½'],
  [0.75, '¾'],
  [1, '1'],
  [1.25, '1¼'],
  [1.5, '1½'],
]
/** The name whose amount is nearest, whatever the sign. */
export const nearestName = (names: readonly [number, string][], by: number) =>
  names.reduce((a, b) => (Math.abs(b[0] - Math.abs(by)) < Math.abs(a[0] - Math.abs(by)) ? b : a))[1]
const part = (tips: number) => (Math.abs(tips) < 0.19 ? 'touch' : nearestName(parts, tips))

/** "½ low, 4", "plain, ¼ right, 3.5": a line's short name. */
export function shortStrokeWords({ side = 0, height = 0, pace = 4 }: Partial<Pick<Stroke, 'side' | 'height' | 'pace'>>): string {
  const tip = Math.abs(height) >= 0.06 ? `${part(height)} ${height > 0 ? 'high' : 'low'}` : 'plain'
  const aside = Math.abs(side) >= 0.06 ? `, ${part(side)} ${side > 0 ? 'right' : 'left'}` : ''
  return `${tip}${aside}, ${pace.toFixed(1).replace(/\.0$/, '')}`
}

export const fullnessWords: Record<Schemas['Fullness'], string> = {
  full: 'full',
  threeQuarter: 'three-quarter ball',
  half: 'half-ball',
  quarter: 'quarter-ball',
  fine: 'fine',
}

export const strokeKindWords: Record<Schemas['StrokeKind'], string> = {
  screw: 'screw',
  stunScrew: 'stun screw',
  stun: 'stun',
  stunRunThrough: 'stun run-through',
  follow: 'follow',
}

export const cushionNames: Record<string, string> = {
  baulk: 'baulk',
  top: 'top',
  'yellow-side': 'yellow’s side',
  'green-side': 'green’s side',
}

/** "off the top and baulk cushions". */
export const offCushionsWords = (cushions: readonly string[], most = cushions.length) =>
  `off the ${listWords(cushions.slice(0, most).map((c) => cushionNames[c]))} cushion${cushions.length > 1 ? 's' : ''}`

/** "on to red 3 and the blue". */
export const ontoBallsWords = (balls: readonly string[]) => `on to ${listWords([...new Set(balls)].slice(0, 2).map(theBall))}`

/** "plant off red 2", "double, top cushion", "set with red 2"; empty for a plain pot. */
export function kindWords(cut: Pick<Cut, 'kind' | 'struck' | 'off'>): string {
  if (cut.kind === 'plant') return `plant off ${nameOf(cut.struck)}`
  if (cut.kind === 'set') return `set with ${nameOf(cut.struck)}`
  return cut.kind === 'double' ? `double, ${cushionNames[cut.off!]} cushion` : ''
}

/** "red 3 into the top yellow-side pocket". */
export function potWords(choice: Pick<Schemas['ChoiceResult'], 'kind' | 'stroke'>): string {
  const pot = choice.stroke.pot!
  const how =
    choice.kind === 'plant' || choice.kind === 'set'
      ? `, ${choice.kind} off ${nameOf(pot.through!)}`
      : choice.kind === 'double'
        ? `, off the ${cushionNames[pot.off!]} cushion`
        : ''
  return `${nameOf(pot.ball)} into the ${pocketName(pot.pocket)} pocket${how}`
}

/** "follow 40 %, 1.50 m/s": the share of a rolling ball's spin that the white arrives with, which makes the angle. */
export function arrivalWords(arrival: Schemas['Arrival']): string {
  const follow = arrival.follow ?? 0
  const share = percentWords(Math.abs(follow))
  const spin =
    arrival.kind === 'stun' ? 'stun' : Math.abs(follow - 1) < 0.02 ? 'rolling' : follow > 0 ? `follow ${share}` : `screw ${share}`
  return `${spin}, ${(arrival.speed ?? 0).toFixed(2)} m/s`
}

/** How the player gets at the white, and what must be raised. */
export function reachWords(reach: Schemas['ReachResult']): string {
  const stance = {
    natural: 'natural stance',
    stretch: 'at a stretch',
    otherHand: 'only with the other hand, or the rest',
    rest: 'only with the rest',
  }[reach.stance]
  const parts = [stance]
  if (reach.bridgeOver) parts.push(`bridging over ${theBall(reach.bridgeOver)}`)
  if (reach.elevationDegrees > 0)
    parts.push(`butt up to ${reach.elevationDegrees.toFixed(0)}° to clear ${reach.over ? theBall(reach.over) : 'the rail'}`)
  if (reach.errorFactor > 1.05) parts.push(`your errors ${reach.errorFactor.toFixed(1)} times as large`)
  return parts.join('; ')
}

/** Why the place needs more than a plain stance; empty where it does not. */
export const reachNeedWords = (reach: Schemas['ReachResult']) =>
  reach.stance !== 'natural' || reach.elevationDegrees > 0 || reach.bridgeOver ? reachWords(reach) : ''

export function warningWords(w: Schemas['WarningResult']): string {
  const near = lengthWords(w.amount, 1)
  switch (w.kind) {
    case 'inOff':
      return 'in-off'
    case 'kiss':
      return `kiss on ${theBall(w.ball)}`
    case 'doubleKiss':
      return `double kiss with ${theBall(w.ball)}`
    case 'closePass':
      return `passes ${theBall(w.ball)} by ${near}`
    case 'closeJaw':
      return `passes a jaw of the ${pocketName(w.pocket!)} pocket by ${near}`
    case 'snookered':
      return isRed(w.ball!)
        ? 'white ends snookered on the reds'
        : `white ends snookered: no clear way to ${theBall(w.ball)} or what else is on`
    case 'hop':
      return `the white hops ${near} high`
    case 'onCushion':
      return 'white stops tight on a cushion'
    case 'nearMiscue':
      return `${near} from a miscue`
    case 'raisedButt':
      return `raising the butt costs ${percentWords(w.amount)} of the screw on the way: lower the bridge hand instead`
    case 'jump':
      return `the white jumps over ${theBall(w.ball)}, or part of it: a foul`
    case 'offTable':
      return `${theBall(w.ball)} leaves the table: a foul`
  }
}

/** "5 to 9 more reds, mostly 7": what a stroke into the pack makes free, in eight strokes of ten. */
export function openingWords(o: Schemas['PackOpeningResult']): string {
  const reds = (n: number) => `${n} more ${n === 1 ? 'red' : 'reds'}`
  return o.least === o.most ? reds(o.mostly) : `${o.least} to ${reds(o.most)}, mostly ${o.mostly}`
}

const stretches: Record<Schemas['Stretch'], string> = {
  baulk: 'in baulk',
  belowBlue: 'between baulk and blue',
  blueToPink: 'between blue and pink',
  pinkToBlack: 'between pink and black',
  behindBlack: 'behind the black',
}
/** A ball nearer than this to a cushion or a spot is told by it, m. */
const [tight, nearCushion, nearSpot] = [0.004, 0.4, 0.12]

/** "tight on the top cushion", "between blue and pink, 94 mm off the green’s side cushion", "60 mm from the blue’s spot". */
export function whereWords(w: Schemas['WhereaboutsResult']): string {
  if (w.fromSpot < 0.01) return `on the ${w.spot}’s spot`
  if (w.fromSpot < nearSpot) return `${lengthWords(w.fromSpot)} from the ${w.spot}’s spot`
  const cushion = `${cushionNames[w.cushion]} cushion`
  if (w.fromCushion < tight) return `${stretches[w.stretch]}, tight on the ${cushion}`
  return w.fromCushion < nearCushion
    ? `${stretches[w.stretch]}, ${lengthWords(w.fromCushion)} off the ${cushion}`
    : `${stretches[w.stretch]}, out in the open`
}

export const numbers = ['no', 'one', 'two', 'three', 'four', 'five', 'six']
/** "three cushions". */
export const cushionCountWords = (count: number) =>
  count < numbers.length ? `${numbers[count]} cushion${count === 1 ? '' : 's'}` : countWords(count, 'cushion')

/** "a county player", "my own figures". */
export const skillWords = (name: string) => (name === 'own' ? 'my own figures' : `a ${name} player`)

/** "county", "own figures": where there is little room. */
export const skillName = (name: string) => (name === 'own' ? 'own figures' : name)

/** "A slow ball, as far as the table is wide, runs 33 mm to the green’s side.": what the drift does; empty where it does nothing. */
export function driftWords({ x, y }: { x: number; y: number }): string {
  const least = 0.003
  const parts = [
    Math.abs(y) >= least ? `${lengthWords(Math.abs(y))} to the ${y > 0 ? 'green' : 'yellow'}’s side` : '',
    Math.abs(x) >= least ? `${lengthWords(Math.abs(x))} towards ${x > 0 ? 'the top cushion' : 'baulk'}` : '',
  ].filter(Boolean)
  return parts.length ? `A slow ball, as far as the table is wide, runs ${listWords(parts)}.` : ''
}
