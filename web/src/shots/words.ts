import type { Cut, Schemas, ShotEvent, Simulation, Stroke } from '../api/client'
import { nameOf, pocketName } from '../table/balls'

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

/** "1° thinner than the ghost ball": which way the aim that pots differs from the plain line. */
export function allowanceWords(cut: Cut): string {
  if (cut.allowanceDegrees === null) return '–'
  const off = Math.abs(cut.allowanceDegrees)
  if (off < 0.005) return 'none'
  // Cut to the left, the thinner aim lies to the right, and the other way round.
  const thinner = cut.allowanceDegrees < 0 === cut.cutDegrees > 0
  return Math.abs(cut.cutDegrees) < 0.5
    ? `${off.toFixed(2)}° ${cut.allowanceDegrees > 0 ? 'left' : 'right'}`
    : `${off.toFixed(2)}° ${thinner ? 'thinner' : 'thicker'}`
}

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

export function cushionName(x: number, y: number): string {
  if (x < 0.05) return 'baulk'
  if (x > 3.5) return 'top'
  return y < 0.9 ? "yellow's side" : "green's side"
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
    case 'onCushion':
      return 'white stops tight on a cushion'
    case 'nearMiscue':
      return `${mm} from a miscue`
    case 'raisedButt':
      return `a butt raised ${w.amount.toFixed(0)}° kills the screw: lower the bridge hand instead`
  }
}
