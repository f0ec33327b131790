import type { Schemas, Stroke } from '../../api/client'
import { isRed, nameOf, pocketName } from '../../domain/balls'
import { cushionNames, list, percentWords, reachWords, strokeKind, tipWords } from '../../domain/words'
import { plainStroke } from '../../domain/strokes'

/** The trade's words for plans: the core gives codes and figures. */

export type Reason = Schemas['ReasonResult']
export type PlanShot = Schemas['PlanShotResult']
export type Choice = Schemas['ChoiceResult']

const mm = (metres: number) => `${(Math.abs(metres) * 1000).toFixed(0)} mm`
const the = (ball: string | null | undefined) => (!ball ? 'it' : isRed(ball) ? nameOf(ball) : `the ${nameOf(ball)}`)
const pace = (stroke: { pace?: number }) => `pace ${(stroke.pace ?? 0).toFixed(1).replace(/\.0$/, '')}`

/** "red 3 into the top yellow-side pocket". */
export const potWords = (choice: Choice) => {
  const pot = choice.stroke.pot!
  const how = choice.kind === 'plant' || choice.kind === 'set' ? `, ${choice.kind} off ${nameOf(pot.through!)}` : choice.kind === 'double' ? `, off the ${cushionNames[pot.off!]} cushion` : ''
  return `${nameOf(pot.ball)} into the ${pocketName(pot.pocket)} pocket${how}`
}

/** "stun run-through, half a tip above, pace 4.5, off the top cushion, on to red 3". */
export function planStrokeWords(choice: Choice, arrival: Schemas['Arrival'] | null): string {
  const parts = [...(arrival ? [strokeKind(arrival.follow ?? 0)] : []), tipWords(choice.stroke.side ?? 0, choice.stroke.height ?? 0), pace(choice.stroke)]
  if (choice.cushions.length) parts.push(`off the ${list(choice.cushions.slice(0, 3).map((c) => cushionNames[c]))} cushion${choice.cushions.length > 1 ? 's' : ''}`)
  if (choice.balls.length) parts.push(`on to ${list([...new Set(choice.balls)].slice(0, 2).map(the))}`)
  return parts.join(', ')
}

/** What speaks for a shot, or against it. */
export function reasonWords(r: Reason): string {
  switch (r.code) {
    case 'frees':
      return `frees ${the(r.ball)}’s path to the ${pocketName(r.pocket!)} pocket`
    case 'opens':
      return `opens ${r.amount.toFixed(0)} more reds${r.other > 0 ? `, with ${r.other.toFixed(0)} more on to fall back on` : ''}`
    case 'keepsReds':
      return `keeps ${r.amount.toFixed(0)} reds to go at`
    case 'high':
      return `high on the ${nameOf(r.ball!)}, by ${mm(r.amount)}`
    case 'low':
      return `low on the ${nameOf(r.ball!)}, by ${mm(r.amount)}`
    case 'angle':
      return `leaves ${the(r.ball)} at ${r.amount.toFixed(0)}° (${percentWords(r.other)})`
    case 'straight':
      return `leaves ${the(r.ball)} straight (${r.amount.toFixed(0)}°): only screw or follow moves the white`
    case 'steep':
      return `leaves ${the(r.ball)} thin, at ${r.amount.toFixed(0)}°`
    case 'comesAlong':
      return `comes along the good area for ${mm(r.amount)}`
    case 'cover':
      return `${r.amount.toFixed(0)} other ball${r.amount > 1 ? 's' : ''} on from there`
    case 'cushionHolds':
      return `the cushion makes the pace safe: within ${mm(r.amount)}`
    case 'paceTells':
      return `pace tells: your usual error moves the white ${mm(r.amount)}`
    case 'naturalStance':
      return 'next from a natural stance'
    case 'needsRest':
      return `the next needs the rest`
    case 'stretch':
      return 'the next is a stretch'
    case 'moves':
      return `moves ${the(r.ball)} ${mm(r.amount)}`
    case 'far':
      return `${the(r.ball)} is then ${r.amount.toFixed(1)} m away`
    case 'onCushion':
      return r.amount < 0.004 ? 'leaves the white tight on a cushion' : `leaves the white ${mm(r.amount)} off a cushion`
  }
}

/** Against the shot, so that it is told apart. */
export const isAgainst = (r: Reason) => ['straight', 'steep', 'paceTells', 'needsRest', 'stretch', 'far', 'onCushion'].includes(r.code)

/** What a plan is worth, as it is ranked: points to be expected, or the chance of the target. */
export const worthWords = (choice: Choice, unit: string) => (unit === 'points' ? `${choice.value.toFixed(0)} pts` : percentWords(Math.min(1, Math.max(0, choice.value))))

export function coverWords(cover: Schemas['CoverResult']): string {
  if (!cover.scores) return 'the pot or the white is lost'
  return cover.ball ? `${the(cover.ball)} on at ${percentWords(cover.chance)}` : 'nothing on'
}

/** Why an alternative ranks lower. */
export function lacksWords(a: Schemas['AlternativeResult'], best: Choice, unit: string): string {
  const lost = unit === 'points' ? `${a.lacks.toFixed(1)} points less` : `${(a.lacks * 100).toFixed(0)} % less`
  const why: Record<Schemas['Shortfall'], string> = {
    none: 'the best',
    chance: `goes in ${percentWords(a.choice.chance)}, not ${percentWords(best.chance)}`,
    points: `${a.choice.points} point${a.choice.points > 1 ? 's' : ''}, not ${best.points}`,
    leave: !a.choice.next.ball
      ? 'leaves nothing'
      : a.choice.holds < best.holds - 0.02
        ? `leaves a pot better than even ${percentWords(a.choice.holds)} of the time, not ${percentWords(best.holds)}`
        : a.choice.next.chance < best.next.chance - 0.02
          ? `leaves ${the(a.choice.next.ball)} at ${percentWords(a.choice.next.chance)}, not ${percentWords(best.next.chance)}`
          : `from ${the(a.choice.next.ball)} it is harder to go on`,
    foul: `in-off or foul ${percentWords(a.choice.foul)}`,
  }
  return a.below === 'none' ? why.none : `${why[a.below]}: ${lost}`
}

/** Why a place is as good as it is. */
export function qualityWords(q: Schemas['QualityResult']): string {
  if (!q.ball) return 'Nothing is on from here.'
  const parts = [`${nameOf(q.ball)} into the ${pocketName(q.pocket!)} pocket at ${percentWords(q.chance)}`, `${q.cutDegrees.toFixed(0)}°, ${(q.cueBallDistance * 1000).toFixed(0)} mm away`]
  const against: string[] = []
  if (q.angle < 0.95) against.push(q.cutDegrees < 15 ? 'too straight' : 'too steep')
  if (q.distance < 0.95) against.push(q.cueBallDistance < 0.12 ? 'too close' : 'far')
  if (q.cushion < 0.95) against.push('on a cushion')
  if (q.reach && (q.reach.stance !== 'natural' || q.reach.elevationDegrees > 0 || q.reach.bridgeOver)) against.push(reachWords(q.reach))
  if (q.others) parts.push(`${q.others} more on`)
  return `${parts.join(', ')}${against.length ? `; ${against.join(', ')}` : '; a good angle and distance'}.`
}

/** The stroke of a planned shot, as the desk keeps it. */
export const strokeOf = (shot: { content: { stroke?: Schemas['StrokeEntry'] } }): Stroke => ({ ...plainStroke, ...shot.content.stroke, pot: { part: 0, through: null, off: null, ...shot.content.stroke!.pot! } }) as Stroke

/** The kinds of stroke that a planned shot counts as. */
export function tagsOf(shot: PlanShot): Schemas['StrokeTag'][] {
  const follow = shot.arrival?.follow ?? 0
  const tags: Schemas['StrokeTag'][] = [follow > 0.2 ? 'follow' : follow < -0.1 ? 'screw' : 'stun']
  if (Math.abs(shot.choice.stroke.side ?? 0) >= 0.2) tags.push('side')
  if (shot.choice.balls.length) tags.push('cannon')
  if (shot.choice.reach.stance === 'rest') tags.push('rest')
  return tags
}

const colourWords = (on: string) => (on === 'red' ? 'a red' : on === 'colour' ? 'a colour' : `the ${on}`)

/** "A red is on; 67 left, 12 behind, 40 to win". */
export function frameWords(f: Schemas['FrameResult']): string {
  if (f.isOver) return 'The frame is over.'
  const parts = [`${colourWords(f.on)} is on${f.freeBall ? ', free ball' : ''}`]
  if (f.repeats) return `${parts[0][0].toUpperCase()}${parts[0].slice(1)}, again and again; break ${f.break}.`
  parts.push(`${f.pointsLeft} left`)
  if (f.first || f.second) parts.push(f.ahead > 0 ? `${f.ahead} ahead` : f.ahead < 0 ? `${-f.ahead} behind` : 'level')
  if (f.first || f.second) parts.push(f.toWin === 0 ? 'won but for penalties' : f.snookersRequired ? `${f.snookersRequired} snooker${f.snookersRequired > 1 ? 's' : ''} needed` : `${f.toWin} to win`)
  parts.push(`highest break ${f.highestBreak}`)
  const words = parts.join(', ')
  return `${words[0].toUpperCase()}${words.slice(1)}.`
}

/** "red", "black": what a recorded shot calls a ball. */
export const kindOf = (ball: string) => (isRed(ball) ? 'red' : ball)
