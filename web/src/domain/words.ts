import type { Cut, Schemas, ShotEvent, Simulation, Stroke, Way } from '../api/client'
import { isRed, nameOf, pocketName } from './balls'

/** The trade's words for what the core answers in figures. */

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

export function tipWords(side: number, height: number): string {
  const parts: string[] = []
  if (Math.abs(height) >= 0.06) parts.push(`${Math.abs(height) < 0.19 ? 'a touch' : amount(Math.abs(height))} ${height > 0 ? 'above' : 'below'}`)
  if (Math.abs(side) >= 0.06) parts.push(`${Math.abs(side) < 0.19 ? 'a touch' : amount(Math.abs(side))} of ${side > 0 ? 'right' : 'left'}`)
  return parts.length ? parts.join(', ') : 'centre ball'
}

export const fullnessWords: Record<Cut['fullnessWord'], string> = {
  full: 'full',
  threeQuarter: 'three-quarter ball',
  half: 'half-ball',
  quarter: 'quarter-ball',
  fine: 'fine',
}

export function faultWords(cut: Cut): string {
  switch (cut.fault) {
    case 'tooThin':
      return `The cut would be ${Math.abs(cut.cutDegrees).toFixed(0)}°, beyond a right angle: choose another pocket, or move the white.`
    case 'noRoom':
      return 'A cushion is where the white would have to be. Choose another pocket.'
    case 'offJaw':
      return 'No clear way between the jaws: it can only go in off the far one.'
    default:
      return cut.allowanceDegrees === null ? 'With this stroke the ball does not get there on any aim: try more pace, or less side.' : ''
  }
}

/** "1.2 mm thinner": which way, and how far across the line of aim, the aim that pots differs from the plain line. */
export function allowanceWords(cut: Cut, allowance: Schemas['Allowance'] | null): string {
  if (!allowance || cut.allowanceDegrees === null) return '–'
  const mm = Math.abs((allowance.net ?? 0) * 1000)
  if (mm < 0.05) return 'none: at the ghost ball'
  const way = Math.abs(cut.cutDegrees) < 0.5 ? (cut.allowanceDegrees > 0 ? 'left' : 'right') : (allowance.net ?? 0) > 0 ? 'thinner' : 'thicker'
  return `aim ${mm.toFixed(1)} mm ${way}`
}

/** "−1.2 mm": a part of the allowance, as a shift at the contact that thins (+) or thickens (−). */
export const shiftWords = (metres: number | undefined) => `${((metres ?? 0) * 1000).toFixed(1).replace('-0.0', '0.0').replace('-', '−')} mm`

export function eventWords(e: ShotEvent): string {
  const ball = nameOf(e.ball)
  switch (e.kind) {
    case 'strike':
      return `${ball} is struck`
    case 'ball':
      return `${ball} meets ${nameOf(e.other!)}`
    case 'cushion':
      return `${ball} off the ${cushionName(e.x, e.y)} cushion`
    case 'jaw':
      return `${ball} touches a jaw, ${pocketName(e.pocket!)}`
    case 'pot':
      return e.ball === 'white' ? `in-off: white in the ${pocketName(e.pocket!)} pocket` : `${ball} in the ${pocketName(e.pocket!)} pocket`
    case 'roll':
      return `${ball} begins to roll`
    case 'stop':
      return `${ball} stops`
  }
}

export const cushionNames: Record<string, string> = { baulk: 'baulk', top: 'top', 'yellow-side': "yellow's side", 'green-side': "green's side" }

export function cushionName(x: number, y: number): string {
  return cushionNames[x < 0.05 ? 'baulk' : x > 3.5 ? 'top' : y < 0.9 ? 'yellow-side' : 'green-side']
}

/** "plant through red 2", "double off the top cushion", "set with red 2"; empty for a plain pot. */
export function kindWords(cut: Cut): string {
  if (cut.kind === 'plant') return `plant off ${nameOf(cut.struck)}`
  if (cut.kind === 'set') return `set with ${nameOf(cut.struck)}`
  return cut.kind === 'double' ? `double, ${cushionNames[cut.off!]} cushion` : ''
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
  if (reach.bridgeOver) parts.push(`bridging over the ${nameOf(reach.bridgeOver)}`)
  if (reach.elevationDegrees > 0) parts.push(`butt up to ${reach.elevationDegrees.toFixed(0)}° to clear the ${reach.over ? nameOf(reach.over) : 'rail'}`)
  if (reach.errorFactor > 1.05) parts.push(`your errors ${reach.errorFactor.toFixed(1)} times as large`)
  return parts.join('; ')
}

/** One line on what comes of the shot. */
export function outcomeWords(simulation: Simulation): string {
  const potted = simulation.finals.filter((f) => f.pocket && f.id !== 'white')
  const white = simulation.finals.find((f) => f.id === 'white')!
  const firstHit = simulation.events.find((e) => e.kind === 'ball' && e.ball === 'white')
  const parts = potted.length
    ? potted.map((f) => `${nameOf(f.id)} in the ${pocketName(f.pocket!)} pocket`)
    : [firstHit ? `nothing potted; ${nameOf(firstHit.other!)} hit first` : 'no ball hit']
  if (white.pocket) parts.push(`in-off, ${pocketName(white.pocket)} pocket`)
  else {
    const cushions = simulation.events.filter((e) => e.ball === 'white' && e.kind === 'cushion').length
    parts.push(
      `white stops ${(white.x * 1000).toFixed(0)} mm up, ${(white.y * 1000).toFixed(0)} across` +
        (cushions ? `, off ${cushions} cushion${cushions > 1 ? 's' : ''}` : ''),
    )
  }
  return `${parts.join('; ')}.`
}

export function strokeWords(stroke: Stroke): string {
  return `${tipWords(stroke.side, stroke.height)}, pace ${stroke.pace.toFixed(1).replace(/\.0$/, '')}` + (stroke.elevation >= 1 ? `, butt raised ${stroke.elevation.toFixed(0)}°` : '')
}

/** "follow 40 %", of the spin of a rolling ball: the spin that the white arrives with, which makes the angle. */
export function arrivalWords(arrival: Schemas['Arrival']): string {
  const follow = arrival.follow ?? 0
  const share = `${Math.abs(follow * 100).toFixed(0)} %`
  const spin = Math.abs(follow) < 0.05 ? 'stun' : Math.abs(follow - 1) < 0.02 ? 'rolling' : follow > 0 ? `follow ${share}` : `screw ${share}`
  return `${spin}, ${(arrival.speed ?? 0).toFixed(2)} m/s`
}

/** Why a ball is not on, by the pocket that comes nearest. */
export function whyNotWords(option: Schemas['PotOptionResult']): string {
  const pocket = `${pocketName(option.cut.pocket)} pocket`
  const { obstacles, cut } = option
  if (obstacles.length) {
    const names = [...new Set(obstacles.map((o) => nameOf(o.ball)))].slice(0, 3).join(', ')
    return `not on: ${names} in the way of ${obstacles.every((o) => o.ofCueBall) ? 'the white' : obstacles.some((o) => o.ofCueBall) ? 'both' : 'the ball'} (${pocket})`
  }
  if (cut.fault === 'offJaw') return `only off the far jaw (${pocket})`
  return `does not get there with this stroke (${pocket})`
}

export function warningWords(w: Schemas['WarningResult']): string {
  const mm = `${(w.amount * 1000).toFixed(1)} mm`
  switch (w.kind) {
    case 'inOff':
      return 'in-off'
    case 'kiss':
      return `kiss on the ${nameOf(w.ball!)}`
    case 'doubleKiss':
      return `double kiss with the ${nameOf(w.ball!)}`
    case 'closePass':
      return `passes the ${nameOf(w.ball!)} by ${mm}`
    case 'closeJaw':
      return `passes a jaw of the ${pocketName(w.pocket!)} pocket by ${mm}`
    case 'snookered':
      return isRed(w.ball!) ? 'white ends snookered on the reds' : `white ends snookered: no clear way to the ${nameOf(w.ball!)} or what else is on`
    case 'hop':
      return `the white hops ${mm} high`
    case 'onCushion':
      return 'white stops tight on a cushion'
    case 'nearMiscue':
      return `${mm} from a miscue`
    case 'raisedButt':
      return `a butt raised ${w.amount.toFixed(0)}° kills the screw: lower the bridge hand instead`
  }
}

/** Screw, stun or follow: by the spin that the white arrives with, which makes the angle. */
export function strokeKind(follow: number): string {
  if (follow < -0.35) return 'screw'
  if (follow < -0.08) return 'stun screw'
  if (follow < 0.12) return 'stun'
  return follow < 0.45 ? 'stun run-through' : 'follow'
}

export const list = (words: string[]) => (words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words[words.length - 1]}`)

/** "screw, half a tip below, pace 4, off the top cushion, comes along the line of the black". */
export function wayWords(way: Way): string {
  const parts = [strokeKind(way.arrival.follow ?? 0), tipWords(way.stroke.side ?? 0, way.stroke.height ?? 0), `pace ${(way.stroke.pace ?? 0).toFixed(1).replace(/\.0$/, '')}`]
  const part = way.stroke.pot?.part ?? 0
  if (part) parts.push(`into the ${part < 0 ? 'thick' : 'thin'} side of the pocket`)
  if (way.cushions.length) parts.push(`off the ${list(way.cushions.map((c) => cushionNames[c]))} cushion${way.cushions.length > 1 ? 's' : ''}`)
  if (way.balls.length) parts.push(`on to ${list([...new Set(way.balls)].slice(0, 2).map((b) => `the ${nameOf(b)}`))}`)
  if (!way.cushions.length && !way.balls.length) parts.push('no cushion')
  if (way.along) parts.push(`comes along the line of the ${nameOf(way.along)}`)
  return parts.join(', ')
}

export const percentWords = (share: number) => `${(share * 100).toFixed(0)} %`

/** What comes of it if it is struck a usual error too hard or too softly. */
export function outcomeOf(outcome: Schemas['OutcomeResult'], exact: Schemas['OutcomeResult']): string {
  if (outcome.inOff) return 'in-off'
  const off = Math.hypot(outcome.x - exact.x, outcome.y - exact.y) * 1000
  const next = outcome.nextBall ? `the ${nameOf(outcome.nextBall)} on at ${percentWords(outcome.nextChance ?? 0)}` : 'no easy pot seen'
  return `${off.toFixed(0)} mm off, ${outcome.isMet ? 'still good' : 'missed'}, ${next}`
}

/** Which of the player's usual errors moves the white most. */
export function sensitivityWords(way: Way): string {
  const errors: [string, number][] = [
    ['pace', way.sensitivity.pace ?? 0],
    ['the height of the tip', way.sensitivity.height ?? 0],
    ['the direction', way.sensitivity.direction ?? 0],
    ['unmeant side', way.sensitivity.side ?? 0],
  ]
  const [what, metres] = errors.sort((a, b) => b[1] - a[1])[0]
  return `${what} tells most: your usual error moves the white ${(metres * 1000).toFixed(0)} mm`
}

/** Why a way ranks where it does, against the best one. */
export function rankWords(way: Way, best: Way): string {
  const position = (w: Way) => (w.pot > 0 ? w.both / w.pot : 0)
  if (way === best) return `ranks first: pot ${percentWords(way.pot)}, and then position ${percentWords(position(way))}`
  const reasons: string[] = []
  const pot = Math.round((best.pot - way.pot) * 100)
  const place = Math.round((position(best) - position(way)) * 100)
  if (pot >= 2) reasons.push(`the pot is ${pot} points harder`)
  if (place >= 2) reasons.push(`position is ${place} points less sure`)
  if (way.inOff - best.inOff > 0.02) reasons.push(`in-off ${percentWords(way.inOff)}`)
  if (way.kiss - best.kiss > 0.05) reasons.push(`kiss ${percentWords(way.kiss)}`)
  if (way.reach.errorFactor > best.reach.errorFactor + 0.05) reasons.push('harder to reach')
  return reasons.length ? `ranks lower: ${reasons.join(', ')}` : 'about as good as the first'
}
