import type { Schemas } from '../../api/client'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { fullnessWords, offCushionsWords, ontoBallsWords, potWords, tipWords } from '../../domain/words'
import { amountWords, shareWords, signedWords } from '../../lib/estimates'
import { countWords, lengthWords, paceWords, percentWords, sentence } from '../../lib/formats'
import type { RallyStroke } from './rally'

/** The trade's words for safeties, escapes and the call between attack and defence. */

export type Attack = Schemas['AttackResult']
export type Safety = Schemas['SafetyResult']
export type Escape = Schemas['EscapeResult']
export type Opening = Schemas['OpeningResult']

/** "a thin clip", "half-ball". */
const contactWords = (word: Schemas['Fullness']) => (word === 'fine' ? 'a thin clip' : fullnessWords[word])
const ideas: Record<Schemas['SafetyIdea'], string> = {
  breakOff: 'break-off',
  thinClip: 'back to baulk',
  snooker: 'lay a snooker',
  ballToCushion: 'ball to the cushion',
  cannon: 'into cover',
  doubleKiss: 'double kiss',
  shotToNothing: 'shot to nothing',
  containing: 'containing',
}

/** "Back to baulk: red 3 a thin clip on its left, centre ball, pace 5.4, off the top cushion". */
export function safetyWords(s: Safety): string {
  const struck = s.isAway
    ? `away from ${theBall(s.ball)}`
    : `${nameOf(s.ball)} ${contactWords(s.fullnessWord)}${s.fullnessWord === 'full' ? '' : ` on its ${s.leftSide ? 'left' : 'right'}`}`
  const parts = [struck, tipWords(s.stroke.side ?? 0, s.stroke.height ?? 0), paceWords(s.stroke.pace)]
  if (s.cushions.length) parts.push(offCushionsWords(s.cushions, 4))
  // Of a double kiss it is said already that the white meets the same ball again.
  const onto = s.balls.filter((b) => b !== s.ball)
  if (onto.length) parts.push(ontoBallsWords(onto))
  return `${sentence(ideas[s.idea])}: ${parts.join(', ')}`
}

/** What a safety leaves: the whole distribution, not the best case. */
export function safetyFigures(s: Safety): string {
  const parts = [
    `leaves a pot ${shareWords(s.potLeft)} (the best ball goes in ${shareWords(s.rivalChance)} on the average)`,
    `snooker ${shareWords(s.snooker)}`,
    `foul ${shareWords(s.foul)}`,
  ]
  if (s.potLeftWithSide) parts.push(`a touch of side leaves a pot ${shareWords(s.potLeftWithSide)}`)
  if (s.pots.value > 0.02) parts.push(`goes in ${shareWords(s.pots)}`)
  if (s.baulk.value > 0.1) parts.push(`white in baulk ${shareWords(s.baulk)}`)
  if (s.tight.value > 0.05) parts.push(`tight on a cushion ${shareWords(s.tight)}`)
  return `${sentence(parts.join(', '))}. To the other player it is worth ${amountWords(s.mean)} points on the average, ${amountWords(s.worstTenth)} in the worst tenth.`
}

/** "Pot red 3 …". */
export const attackWords = (a: Attack) =>
  `Pot ${potWords(a.choice)}: ${tipWords(a.choice.stroke.side ?? 0, a.choice.stroke.height ?? 0)}, ${paceWords(a.choice.stroke.pace)}`

export function attackFigures(a: Attack): string {
  const parts = [`Goes in ${shareWords(a.choice.chance)}, then makes ${a.gain.toFixed(1)} points`]
  if (a.thick.value + a.thin.value > 0.004)
    parts.push(
      `missed thick ${shareWords(a.thick)}, which leaves ${amountWords(a.thickLeave)}; thin ${shareWords(a.thin)}, which leaves ${amountWords(a.thinLeave)}`,
    )
  if (a.part) parts.push(`err on the ${a.part < 0 ? 'thick' : 'thin'} side`)
  if (a.breakEven !== null && a.breakEven !== undefined)
    parts.push(
      a.breakEven <= 0
        ? 'better than the safety at any chance'
        : a.breakEven >= 1
          ? 'the safety is better at any chance'
          : `break-even at ${percentWords(a.breakEven)}`,
    )
  return `${parts.join('. ').replace(/\. ([a-z])/g, (_, c: string) => `. ${c.toUpperCase()}`)}.`
}

/** "Escape off the top and green's side cushions on to red 1: plain, pace 5". */
export function escapeWords(e: Escape): string {
  const way = e.swerves ? 'swerve round it' : `${offCushionsWords(e.cushions)}${e.offJaw ? ', by a jaw' : ''}`
  return `${sentence(way)} on to ${theBall(e.ball)}: ${tipWords(e.stroke.side ?? 0, e.stroke.height ?? 0)}, ${paceWords(e.stroke.pace)}`
}

/** "From anywhere in the band, off the point 310 mm from the top green-side pocket: here the white may lie 120 mm to the left …". */
export function familyWords(f: Schemas['FamilyResult']): string {
  const point =
    f.fromPocket !== null && f.pocket ? `the point ${lengthWords(f.fromPocket)} from the ${pocketName(f.pocket)} pocket` : 'that point'
  return `From anywhere in the band, off ${point}: here the white may lie ${lengthWords(f.left)} to the left and ${lengthWords(f.right)} to the right of its line.`
}

export function escapeFigures(e: Escape): string {
  const parts = [
    `Hits ${shareWords(e.hit)}; window ${e.windowDegrees.toFixed(2)}°, pace ${e.softestPace.toFixed(1)} to ${e.hardestPace.toFixed(1)}`,
    `a hit leaves a pot ${shareWords(e.potLeft)}, worth ${amountWords(e.leaveIfHit)} points; a miss gives ${e.penalty}${e.freeBall.value > 0.02 ? ` with a free ball ${shareWords(e.freeBall)} of the time` : ''}, and ${amountWords(e.givenAway)} in all if each is called and played again`,
  ]
  return `${parts.join('. ').replace(/\. a/, '. A')}.`
}

/** Where a place on an escape's first cushion moves to: along it is positive towards the top, or on an end cushion towards the green's side. */
export const towardsWords = (e: Pick<Escape, 'cushions'>, along: number) =>
  e.cushions[0] === 'top' || e.cushions[0] === 'baulk' ? `the ${along > 0 ? 'green' : 'yellow'}’s side` : along > 0 ? 'the top' : 'baulk'

/** "28 mm towards the top". */
export const alongWords = (e: Pick<Escape, 'cushions'>, along: number) =>
  `${lengthWords(Math.abs(along))} towards ${towardsWords(e, along)}`

/** The plain construction, and how far this table is from it. */
export function mirrorWords(e: Escape): string {
  const m = e.mirror
  if (!m) return ''
  const known = m.known
    ? `Half-way between white and ball, a line to the corner; the white goes parallel to it, ${lengthWords(Math.abs(m.shift))} beside. `
    : ''
  const plain = `${known}As in a mirror: the cushion ${lengthWords(m.fromPocket)} from the ${pocketName(m.pocket)} pocket`
  if (e.correction === null || e.correction === undefined || e.fromPocket === null || e.fromPocket === undefined) return `${plain}.`
  return Math.abs(e.correction) < 0.003
    ? `${plain}; on this table the same.`
    : `${plain}; with this stroke, on this table, ${lengthWords(Math.abs(e.correction))} from there: ${lengthWords(e.fromPocket)} from the ${pocketName(e.pocket!)} pocket.`
}

/** A stroke of a rally: "You: red 3 into the top right, missed thick", "They: plain, pace 4: safe". */
export function rallyWords(s: RallyStroke, asker: number): string {
  const { stroke } = s.before
  const who = s.player === asker ? 'You' : 'They'
  const what = stroke.pot
    ? `${nameOf(stroke.pot.ball)} into the ${pocketName(stroke.pot.pocket)}`
    : `${tipWords(stroke.side, stroke.height)}, ${paceWords(stroke.pace)}`
  const potted = s.potted.filter((b) => b !== 'white').map(nameOf)
  const came = s.penalty
    ? `foul, ${s.penalty} away${s.potted.includes('white') ? ' (in-off)' : ''}`
    : s.points
      ? potted.length === 1 && s.before.stroke.pot && nameOf(s.before.stroke.pot.ball) === potted[0]
        ? countWords(s.points, 'point')
        : `${potted.join(' and ')}, ${countWords(s.points, 'point')}`
      : s.missed
        ? `missed ${s.missed}`
        : stroke.pot
          ? 'missed'
          : 'safe'
  return `${who}: ${what} – ${came}`
}

/** How far the measure itself may be off: from frames and tables that were played out. */
export const modelErrorWords = (d: Pick<Schemas['DecideProgress'], 'unit' | 'modelError'>) =>
  d.unit === 'points'
    ? `The model itself is good to about ± ${d.modelError.toFixed(0)} points.`
    : `The model itself is good to about ± ${(d.modelError * 100).toFixed(0)} percentage points.`

/** Attack or defend, and how near the call is. */
export function verdictWords(d: Schemas['DecideProgress']): string {
  const touching = d.touching ? ` The white touches ${theBall(d.touching)}: play away from it.` : ''
  const required = d.snookersRequired > 0 ? ` ${countWords(d.snookersRequired, 'snooker is', 'snookers are')} needed.` : ''
  return `${callWords(d)}${required}${touching}`
}

function callWords(d: Schemas['DecideProgress']): string {
  const { verdict } = d
  if (!verdict) {
    const why = d.status?.isCut
      ? 'No verdict: the search reached its time limit first.'
      : d.share < 1
        ? 'No verdict yet: still weighing pots and safeties.'
        : ''
    return [d.isSnookered ? 'Snookered.' : '', why].filter(Boolean).join(' ')
  }
  const best = d.prospects.find((p) => p.id === verdict.bestId)!
  const pot = d.prospects.find((p) => p.attack)?.attack
  const { withPot, withSafety, margin } = verdict
  if (!withPot) return d.isSnookered ? 'Snookered. These reach a ball on.' : 'No pot is worth trying: play safe.'
  if (!withSafety || !margin) return 'There is a pot and no safety to compare it with.'
  const both =
    d.unit === 'points'
      ? `${signedWords(withPot)} points by the pot, ${signedWords(withSafety)} by the ${best.escape ? 'escape' : 'safety'}`
      : `the frame is won ${shareWords(withPot)} by the pot, ${shareWords(withSafety)} by the ${best.escape ? 'escape' : 'safety'}`
  if (verdict.isLevel) return `Level: ${both}.`
  const even = pot?.breakEven
  const flips =
    best.attack && even && even > 0 && even < 1 ? `; if the pot goes in less than ${percentWords(even)}, the other is better` : ''
  const call = best.attack
    ? 'Go for the pot'
    : best.safety?.idea === 'snooker'
      ? 'Lay a snooker'
      : best.escape
        ? 'Get out of it'
        : 'Play safe'
  // Nearer than the measure itself is good for.
  const near = Math.abs(margin.value) < d.modelError / 2
  return `${near ? `A near call. ${call}` : call}: ${both}${flips}.`
}

/** What is hidden of the ball that is played, if anything: "only 40 % of it seen". */
export const hiddenWords = (seen: number) => (seen >= 0.999 ? '' : seen <= 0.001 ? 'it is hidden' : `${percentWords(seen)} of it is seen`)

export function leaveWords(view: Schemas['RivalViewResult']): string {
  const l = view.leave
  if (!view.rivalAtTable) return 'The break goes on: the other player gets no shot.'
  if (l.isInHand)
    return `The other player has the white in the D${l.ball ? `, with ${theBall(l.ball)} on at ${percentWords(l.chance)}` : ''}.`
  const behind = l.hiddenBy ? ` behind ${theBall(l.hiddenBy)}` : ''
  const parts = [
    l.isSnookered && l.seen < 0.05
      ? `snookered${behind}`
      : l.isSnookered
        ? `snookered${behind}, but sees ${percentWords(l.seen)} of the ball on`
        : 'sees the ball on',
    l.ball && l.chance > 0.05
      ? `best pot ${theBall(l.ball)} into the ${pocketName(l.pocket!)} pocket at ${percentWords(l.chance)}`
      : 'no pot on',
  ]
  if (l.isInJaws) parts.push('white in the jaws')
  else if (l.toCushion < 0.004) parts.push('white tight on a cushion')
  if (view.special.length) parts.push(`${countWords(view.special.length, 'plant or double', 'plants or doubles')} on`)
  return `The other player: ${parts.join(', ')}; worth ${l.worth.toFixed(1)} points.`
}

const openings: Record<Schemas['OpeningKind'], string> = {
  lengthwise: 'Older: black and white at opposite ends',
  across: 'Newer: black to one side, white to the other',
  other: 'Something else',
}

/** "Newer: black to one side …, half-ball, one tip above, pace 5.4, white 94 mm to the left in the D". */
export function openingWords(o: Schemas['OpeningResult'], tableWidth: number): string {
  const beside = o.whiteY - tableWidth / 2
  return `${openings[o.kind]}: ${contactWords(o.fullnessWord)}, ${tipWords(o.stroke.side ?? 0, o.stroke.height ?? 0)}, ${paceWords(o.stroke.pace)}, white ${lengthWords(Math.abs(beside))} on the ${beside > 0 ? 'green' : 'yellow'}’s side`
}

/** Whether to choose to go first. */
export function goFirstWords(list: Schemas['OpeningResult'][]): string {
  const best = list[0]
  if (!best?.wins.strokes) return ''
  const { value, error, strokes } = best.wins
  const won = `${shareWords(best.wins)} of ${strokes} rallies`
  return Math.abs(value - 0.5) < 2 * error
    ? `Even: ${won}.`
    : value > 0.5
      ? `Go first: ${won} are won with the best opening.`
      : `Let the other go first: even the best opening wins only ${won}.`
}
