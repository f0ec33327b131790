import type { Cut, Schemas, Way } from '../../api/client'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { fullnessWords, offCushionsWords, ontoBallsWords, openingWords, strokeKindWords, tipWords } from '../../domain/words'
import { miscueWords, shareWords } from '../../lib/estimates'
import {
  countWords,
  degreeWords,
  figureWords,
  lengthUnit,
  lengthWords,
  listWords,
  paceWords,
  percentWords,
  sentence,
} from '../../lib/formats'

/** What the desk says of the shot that is set up and of the ways to play it. */

export function faultWords(cut: Cut): string {
  switch (cut.fault) {
    case 'tooThin':
      return `The cut would be ${Math.abs(cut.cutDegrees).toFixed(0)}°, beyond a right angle: choose another pocket, or move the white.`
    case 'noRoom':
      return 'The cushion is in the way of the white. Choose another pocket.'
    case 'offJaw':
      return 'The near jaw is in the way: it can only go in off the far one.'
    default:
      return cut.allowanceDegrees === null ? 'The ball does not reach the pocket with this stroke. Try more pace or less side.' : ''
  }
}

/** "One tip above: the butt comes down to 12°". */
export const higherWords = (higher: Schemas['HigherResult']) =>
  `${sentence(tipWords(0, higher.heightTips))}: the butt comes down to ${degreeWords(higher.elevationDegrees)}`

/** "aim 1.2 mm thinner": which way, and how far across the line of aim, the aim that pots differs from the plain line. */
export function allowanceWords(cut: Cut, allowance: Schemas['Allowance'] | null): string {
  if (!allowance || cut.allowanceDegrees === null) return '–'
  const net = allowance.net ?? 0
  if (Math.abs(net) < 0.00005) return 'none: at the ghost ball'
  const way = Math.abs(cut.cutDegrees) < 0.5 ? (cut.allowanceDegrees > 0 ? 'left' : 'right') : net > 0 ? 'thinner' : 'thicker'
  return `aim ${lengthWords(Math.abs(net), 1)} ${way}`
}

/** +1 if the white passes on the right of the ball, as it does for a cut to the left; −1 on the left. */
export const sideOfCut = (cutDegrees: number) => (cutDegrees >= 0 ? 1 : -1)

/** "aim at 0.76 of the ball, it pots as 0.59"; thinner than half, edge to edge: "… , the white’s edge 6 mm inside the ball’s". */
export function seenWords({ fullness = 0, potsAs = 0, edgeInside = 0 }: Schemas['AimSeen']): string {
  const half = 0.5
  const edge =
    fullness >= half
      ? ''
      : edgeInside >= 0
        ? `, the white’s edge ${lengthWords(edgeInside)} inside the ball’s`
        : `, the white’s edge ${lengthWords(-edgeInside)} outside the ball’s`
  const aim = fullness > 0 ? `aim at ${figureWords(fullness, 2)} of the ball` : 'aim past the ball'
  return `${aim}${edge}; it pots as ${figureWords(potsAs, 2)}`
}

/** "−1.2 mm": a part of the allowance, as a shift at the contact that thins (+) or thickens (−). */
export const shiftWords = (metres: number | undefined) => lengthWords(metres ?? 0, 1)

/** "A touch of helping side takes throw from 0.8° to 0.1°; the other side makes it 1.6°." */
export function sidesWords(sides: readonly Schemas['SideChoiceResult'][]): string {
  const throwOf = (s: Schemas['SideChoiceResult']) => Math.abs(s.arrival.throwDegrees ?? 0)
  const plain = sides.find((s) => !s.sideTips)
  if (!plain) return ''
  const said = sides
    .filter((s) => s !== plain && Math.abs(s.sideTips) === touch)
    .map((s) => {
      const change = throwOf(s) - throwOf(plain)
      const which = s.isHelping ? 'helping side' : 'the other side'
      if (Math.abs(change) < leastChange) return `${which} leaves throw as it is`
      return `${which} ${change < 0 ? 'takes' : 'raises'} throw from ${degreeWords(throwOf(plain), 1)} to ${degreeWords(throwOf(s), 1)}`
    })
  return said.length ? `${sentence(said.join('; '))}.` : ''
}
/** A touch of side, tips. */
const touch = 0.25
/** Degrees of throw that nobody sees. */
const leastChange = 0.05

/** "butt 3°, the tip 34 mm above the bed, hops 0.4 mm": how the cue lies in the stroke, and what comes of it. */
export function buttWords(shot: Pick<Schemas['ShotResult'], 'strike' | 'tipAboveBed' | 'hop'>): string {
  const hop = shot.hop > 0.0005 ? `, hops ${lengthWords(shot.hop, 1)}` : ''
  return `butt ${degreeWords(shot.strike.elevation)}, the tip ${lengthWords(shot.tipAboveBed)} above the bed${hop}`
}

/** "12.5° to the left". */
export function cutWords(cut: Pick<Cut, 'cutDegrees'>): string {
  const side = Math.abs(cut.cutDegrees) < 0.5 ? 'straight' : cut.cutDegrees > 0 ? 'to the left' : 'to the right'
  return `${figureWords(Math.abs(cut.cutDegrees), 1)}° ${side}`
}

/** "1 203 + 455 mm": from the white to the contact, and on to the pocket. */
export const distancesWords = (cut: Pick<Cut, 'cueBallDistance' | 'potDistance'>) =>
  `${lengthUnit.of(cut.cueBallDistance).toFixed(0)} + ${lengthUnit.of(cut.potDistance).toFixed(0)} ${lengthUnit.name}`

/** "screw, half a tip below, pace 4, off the top cushion, comes along the line of the black". */
export function wayWords(way: Way): string {
  const parts = [strokeKindWords[way.arrival.kind!], tipWords(way.stroke.side ?? 0, way.stroke.height ?? 0), paceWords(way.stroke.pace)]
  const part = way.stroke.pot?.part ?? 0
  if (part) parts.push(`into the ${part < 0 ? 'thick' : 'thin'} side of the pocket`)
  if (way.cushions.length) parts.push(offCushionsWords(way.cushions))
  if (way.balls.length) parts.push(ontoBallsWords(way.balls))
  if (!way.cushions.length && !way.balls.length) parts.push('no cushion')
  if (way.along) parts.push(`comes along the line of ${theBall(way.along)}`)
  return parts.join(', ')
}

/** What comes of it if it is struck a usual error too hard or too softly. */
export function outcomeOf(outcome: Schemas['OutcomeResult'], exact: Schemas['OutcomeResult']): string {
  if (outcome.inOff) return 'in-off'
  const off = Math.hypot(outcome.x - exact.x, outcome.y - exact.y)
  const next = outcome.nextBall
    ? `${theBall(outcome.nextBall)} on at ${outcome.nextChance ? shareWords(outcome.nextChance) : percentWords(0)}`
    : 'no easy pot seen'
  return `${lengthWords(off)} off, ${outcome.isMet ? 'still good' : 'missed'}, ${next}`
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
  return `${what} matters most: your usual error moves the white ${lengthWords(metres)}`
}

/** Why a way ranks where it does, against the best one. */
export function rankWords(way: Way, best: Way): string {
  const position = (w: Way) => (w.pot.value > 0 ? w.both.value / w.pot.value : 0)
  if (way === best) return `ranks first: pot ${shareWords(way.pot)}, and then position ${percentWords(position(way))}`
  // Nearly as likely and simpler stands first.
  const likelier = Math.round((way.both.value - best.both.value) * 100)
  if (likelier >= 1) {
    const harder = [
      way.stroke.side && !best.stroke.side ? 'side' : '',
      (way.stroke.pace ?? 0) > (best.stroke.pace ?? 0) + 0.3 ? 'more pace' : '',
      way.cushions.length > best.cushions.length ? 'another cushion' : '',
      way.stroke.pot?.part && !best.stroke.pot?.part ? 'the edge of the pocket' : '',
    ].filter(Boolean)
    const price = harder.length ? `, but with ${listWords(harder)}` : ''
    return `${countWords(likelier, 'point')} likelier${price}: the first is the simpler stroke`
  }
  const reasons: string[] = []
  const pot = Math.round((best.pot.value - way.pot.value) * 100)
  const place = Math.round((position(best) - position(way)) * 100)
  if (pot >= 2) reasons.push(`the pot is ${pot} points harder`)
  if (place >= 2) reasons.push(`position is ${place} points less sure`)
  if (way.inOff.value - best.inOff.value > 0.02) reasons.push(`in-off ${shareWords(way.inOff)}`)
  if (way.kiss.value - best.kiss.value > 0.05) reasons.push(`kiss ${shareWords(way.kiss)}`)
  if (way.miscue.value - best.miscue.value > 0.01) reasons.push(`miscue ${shareWords(way.miscue)}`)
  if (way.reach.errorFactor > best.reach.errorFactor + 0.05) reasons.push('harder to reach')
  return reasons.length ? `ranks lower: ${reasons.join(', ')}` : 'about as good as the first'
}

/** What a sampled shot comes to. */
export function chancesWords(s: Schemas['SpreadAnswer']): string {
  const parts: string[] = []
  if (s.pot !== null && s.pot !== undefined) parts.push(`missed thick ${shareWords(s.missThick!)}, thin ${shareWords(s.missThin!)}`)
  parts.push(`in-off ${shareWords(s.inOff)}, kiss ${shareWords(s.kiss)}${miscueWords(s.miscue)}`)
  if (s.opens) parts.push(`opens ${openingWords(s.opens)}`)
  if (s.wanted !== null && s.wanted !== undefined)
    parts.push(`does what is wanted ${shareWords(s.wanted)}, with the pot ${shareWords(s.both!)}`)
  return parts.join('; ')
}

const spinStages: Record<Schemas['SpinStage'], string> = {
  struck: 'As it is struck',
  underWay: 'Half-way there',
  contact: 'At the contact',
  after: 'After the contact',
  cushion: 'At the cushion',
}
/** "At the contact: screw, 40 % of a rolling ball’s spin; 85 % of its side left". */
export function spinWords({ stage, follow, side }: Pick<Schemas['SpinMarkResult'], 'stage' | 'follow' | 'side'>): string {
  const kind = follow > 0.05 ? 'follow' : follow < -0.05 ? 'screw' : 'stun'
  const much = kind === 'stun' ? '' : `, ${percentWords(Math.abs(follow))} of a rolling ball’s spin`
  return `${spinStages[stage]}: ${kind}${much}${side ? `; ${percentWords(Math.abs(side))} of its side left` : ''}`
}

/** "half-ball on the pink at 0.8 m/s, moves three balls, and the white stays there": how the white runs into a ball. */
export function intoWords({ ball, fullnessWord, speed, moved, stays, sticks, freed }: Schemas['RunsIntoResult']): string {
  const others = moved.length
    ? `, moves ${listWords(moved.slice(0, 3).map(nameOf))}${moved.length > 3 ? ` and ${moved.length - 3} more` : ''}`
    : ''
  return `${fullnessWords[fullnessWord]} on ${theBall(ball)} at ${figureWords(speed, 1)} m/s${others}${freedWords(freed)}${sticks ? `; the white stays there ${percentWords(sticks.value)}` : stays ? '; the white stays there' : ''}`
}

/** ", frees red 3 for the top green-side pocket": the first two, and how many more. */
function freedWords(freed: Schemas['FreedBallResult'][]): string {
  const told = freed
    .slice(0, 2)
    .map((f) => `${nameOf(f.ball)} for the ${listWords(f.pockets.map(pocketName))} pocket${f.pockets.length > 1 ? 's' : ''}`)
  return told.length ? `, frees ${listWords(told)}${freed.length > 2 ? ` and ${freed.length - 2} more` : ''}` : ''
}
