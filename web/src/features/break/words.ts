import type { Schemas } from '../../api/client'
import { aBall, nameOf, pocketName, theBall } from '../../domain/balls'
import { fullnessWords, offCushionsWords, ontoBallsWords, openingWords, strokeKindWords, tipWords } from '../../domain/words'
import { amountWords, levelWords, shareWords } from '../../lib/estimates'
import { countWords, degreeWords, distanceWords, lengthWords, listWords, paceWords, percentWords, sentence } from '../../lib/formats'

/** The trade's words for plans: the core gives codes and figures. */

export type Reason = Schemas['ReasonResult']
export type PlanShot = Schemas['PlanShotResult']
export type Choice = Schemas['ChoiceResult']

/** "stun run-through, half a tip above, pace 4.5, off the top cushion, on to red 3". */
export function planStrokeWords(choice: Choice, arrival: Schemas['Arrival'] | null): string {
  const parts = [
    ...(arrival ? [strokeKindWords[arrival.kind!]] : []),
    tipWords(choice.stroke.side ?? 0, choice.stroke.height ?? 0),
    paceWords(choice.stroke.pace),
  ]
  if (choice.cushions.length) parts.push(offCushionsWords(choice.cushions, 3))
  if (choice.balls.length) parts.push(ontoBallsWords(choice.balls))
  return parts.join(', ')
}

/** What speaks for a shot, or against it. */
export function reasonWords(r: Reason): string {
  switch (r.code) {
    case 'frees':
      return `frees ${theBall(r.ball)}’s path to the ${pocketName(r.pocket!)} pocket`
    case 'knocksFree':
      return `knocks ${theBall(r.ball)}’s path to the ${pocketName(r.pocket!)} pocket free`
    case 'opens':
      return `opens ${r.opens ? openingWords(r.opens) : `${r.amount.toFixed(0)} more reds`}${r.other > 0 ? `, with ${r.other.toFixed(0)} more on to fall back on` : ''}`
    case 'keepsReds':
      return `keeps ${r.amount.toFixed(0)} reds available`
    case 'high':
      return `high on the ${nameOf(r.ball!)}, by ${lengthWords(r.amount)}`
    case 'low':
      return `low on the ${nameOf(r.ball!)}, by ${lengthWords(r.amount)}`
    case 'angle':
      return `leaves ${theBall(r.ball)} at ${degreeWords(r.amount)} (${percentWords(r.other)})`
    case 'straight':
      return `leaves ${theBall(r.ball)} straight (${degreeWords(r.amount)}): only screw or follow moves the white`
    case 'steep':
      return `leaves ${theBall(r.ball)} thin, at ${degreeWords(r.amount)}`
    case 'comesAlong':
      return `runs along the good area for ${lengthWords(r.amount)}`
    case 'cover':
      return `${countWords(Math.round(r.amount), 'other ball')} on from there`
    case 'cushionHolds':
      return `the cushion makes the pace safe: within ${lengthWords(r.amount)}`
    case 'paceTells':
      return `pace matters: your usual error moves the white ${lengthWords(r.amount)}`
    case 'naturalStance':
      return 'the next shot is from a natural stance'
    case 'needsRest':
      return `the next shot needs the rest`
    case 'stretch':
      return 'the next shot is at a stretch'
    case 'moves':
      return `moves ${theBall(r.ball)} ${lengthWords(r.amount)}`
    case 'far':
      return `${theBall(r.ball)} is then ${distanceWords(r.amount)} away`
    case 'onCushion':
      return r.amount < 0.004 ? 'leaves the white tight on a cushion' : `leaves the white ${lengthWords(r.amount)} off a cushion`
  }
}

/** "4 by the black, 3 by the pink, 2 in the middle". */
export function redsWords(reds: Schemas['RedSpread']): string {
  const parts = [
    [reds.black, 'by the black'],
    [reds.pink, 'by the pink'],
    [reds.middle, 'in the middle'],
    [reds.baulk, 'in baulk'],
  ] as const
  const some = parts.filter(([count]) => count.all! > 0)
  return listWords(some.map(([{ all, open }, where]) => `${all} ${where}${open! < all! ? ` (${open} open)` : ''}`))
}

/** Reds now and after a shot: "Keeps 4 by the black, 3 by the pink; now 5 and 3". */
export const keepsWords = (before: Schemas['RedSpread'], after: Schemas['RedSpread']) =>
  redsWords(after) ? `Keeps ${redsWords(after)}; before it ${redsWords(before)}` : ''

/** The likeliest miss; nothing if it is hardly ever missed: "Missed thick most often (9 %), which costs 14 % and leaves a pot 60 % of the time". */
export function missWords(m: Schemas['LikeliestMissResult'], unit: string): string {
  if (m.share.value < 0.005) return ''
  const cost = unit === 'points' ? `${amountWords(m.cost)} points` : shareWords(m.cost)
  return `Missed ${m.isThick ? 'thick' : 'thin'} most often (${shareWords(m.share)}), which costs ${cost} and leaves a pot ${shareWords(m.leavesPot)} of the time`
}

const knobs: Record<Schemas['Knob'], { name: string; down: string; up: string; words: (amount: number) => string }> = {
  line: { name: 'the line of aim', down: 'to the right', up: 'to the left', words: (d) => degreeWords(d, 2) },
  pace: { name: 'the pace', down: 'softer', up: 'harder', words: (p) => `${p.toFixed(1)} ${p === 1 ? 'step' : 'steps'}` },
  height: { name: 'the height of the tip', down: 'lower', up: 'higher', words: (t) => `${t.toFixed(2)} tips` },
  side: { name: 'side', down: 'to the left', up: 'to the right', words: (t) => `${t.toFixed(2)} tips` },
}

/** Which knob a shot minds most: "Minds the pace most: holds from 0.3 steps softer to 0.5 steps harder; your usual error is 0.2". */
export function knobWords(w: Schemas['KnobWindowResult']): string {
  const knob = knobs[w.knob]
  // Looked for up to three errors: beyond that nothing is known, and nothing needs to be.
  if (Math.min(w.down, w.up) > 2.9 * w.error) return 'Holds within three of your usual errors of line, pace, height and side, each alone'
  return `Most sensitive to ${knob.name}: holds from ${knob.words(w.down)} ${knob.down} to ${knob.words(w.up)} ${knob.up}; your usual error is ${knob.words(w.error)}`
}

/** A cannon by its quality: "Into red 4 half-ball at 0.8 m/s: moves 2, frees 1; a pot is on 71 % of the time, the white sticks 9 %". */
export function cannonWords(c: Schemas['CannonResult']): string {
  const moves = [`moves ${countWords(c.moved, 'ball')}`, ...(c.freed ? [`frees ${c.freed}`] : [])]
  return `Into ${theBall(c.ball)} ${fullnessWords[c.fullnessWord]} at ${c.speed.toFixed(1)} m/s: ${moves.join(', ')}; it is met ${shareWords(c.hit)} of the time, a pot is on ${shareWords(c.on)}, the white sticks ${shareWords(c.sticks)}`
}

/** A stroke that leaves a ball on: "stun screw, pace 3.2, off the top cushion". */
export function nextStrokeWords(b: Schemas['NextBallResult']): string {
  const parts = [
    `${nameOf(b.stroke.pot!.ball)} into the ${pocketName(b.stroke.pot!.pocket)}`,
    tipWords(b.stroke.side ?? 0, b.stroke.height ?? 0),
    paceWords(b.stroke.pace),
  ]
  if (b.cushions.length) parts.push(offCushionsWords(b.cushions, 3))
  if (b.balls.length) parts.push(ontoBallsWords(b.balls))
  return parts.join(', ')
}

/** Against the shot, so that it is told apart. */
export const isAgainst = (r: Reason) => ['straight', 'steep', 'paceTells', 'needsRest', 'stretch', 'far', 'onCushion'].includes(r.code)

/** A figure in the measure of the answer, by which plans are ranked: "62 %" of frames won or of targets reached, or "24 pts". */
export const worthWords = (value: Schemas['Estimate'], unit: string) =>
  unit === 'points' ? `${amountWords(value, 0)} pts` : shareWords(value)

/** What that figure is, above a column of them. */
export const worthLabels: Record<string, string> = { win: 'Wins', points: 'Net', target: 'Reaches it' }

/** A plan in the choice of plans: "A  62 %, 24 pts". */
export function planLabel(plan: Schemas['PlanResult'], unit: string): string {
  const { prospect } = plan
  if (!prospect) return worthWords(plan.shots[0].choice.value, unit)
  const points = `${amountWords(prospect.points, 0)} pts`
  if (unit === 'points') return points
  return `${worthWords(unit === 'target' && prospect.target ? prospect.target : prospect.value, unit)}, ${points}`
}

/** "Then it turns to safety: red 3 half-ball on its left …, worth 48 %, the best pot 44 %". */
export function turnWords(turn: Schemas['SafetyTurnResult'], unit: string): string {
  const side = turn.fullnessWord === 'full' ? '' : ` on its ${turn.leftSide ? 'left' : 'right'}`
  const worth = (value: number) => worthWords({ value, error: 0, strokes: 0 }, unit)
  const pot =
    turn.potValue === null || turn.potValue === undefined
      ? 'no pot is on'
      : `${worth(turn.value)} against ${worth(turn.potValue)} by the pot`
  return `Then turn to safety (${pot}): ${nameOf(turn.ball)} ${fullnessWords[turn.fullnessWord]}${side}, ${tipWords(turn.stroke.side ?? 0, turn.stroke.height ?? 0)}, ${paceWords(turn.stroke.pace)}.`
}

export function coverWords(cover: Schemas['CoverResult']): string {
  if (!cover.scores) return 'the pot or the white is lost'
  return cover.ball ? `${theBall(cover.ball)} on at ${percentWords(cover.chance)}` : 'nothing on'
}

/** Why an alternative ranks lower. */
export function lacksWords(a: Alternative, first: Alternative, unit: string): string {
  const best = first.choice
  if (a.isLevel) return levelWords
  const lacks = first.value.value - a.value.value
  const lost =
    unit === 'points' ? `${lacks.toFixed(0)} points less` : `${lacks < 0.01 ? `${(lacks * 100).toFixed(1)} %` : percentWords(lacks)} less`
  const why: Record<Schemas['Shortfall'], string> = {
    none: 'the best',
    chance: `goes in ${shareWords(a.choice.chance)}, not ${shareWords(best.chance)}`,
    points: `${countWords(a.choice.points, 'point')}, not ${best.points}`,
    leave: !a.choice.next.ball
      ? 'leaves nothing'
      : a.choice.holds.value < best.holds.value - 0.02
        ? `leaves a pot better than even ${shareWords(a.choice.holds)} of the time, not ${shareWords(best.holds)}`
        : a.choice.next.chance < best.next.chance - 0.02
          ? `leaves ${theBall(a.choice.next.ball)} at ${percentWords(a.choice.next.chance)}, not ${percentWords(best.next.chance)}`
          : `from ${theBall(a.choice.next.ball)} it is harder to go on`,
    foul: `in-off or foul ${shareWords(a.choice.foul)}`,
  }
  return a.below === 'none' ? why.none : `${why[a.below]}: ${lost}`
}

/** The kinds of stroke that a planned shot counts as. */
export function tagsOf(shot: PlanShot): Schemas['StrokeTag'][] {
  const kinds: Record<Schemas['StrokeKind'], Schemas['StrokeTag']> = {
    screw: 'screw',
    stunScrew: 'screw',
    stun: 'stun',
    stunRunThrough: 'follow',
    follow: 'follow',
  }
  const tags = [kinds[shot.arrival?.kind ?? 'stun']]
  if (Math.abs(shot.choice.stroke.side ?? 0) >= 0.2) tags.push('side')
  if (shot.choice.balls.length) tags.push('cannon')
  if (shot.choice.reach.stance === 'rest') tags.push('rest')
  return tags
}

/** "An exercise: the blue and the black are on; 12 left." */
function exerciseWords(f: Schemas['FrameResult']): string {
  if (f.isOver) return 'The exercise is done.'
  const on =
    f.onBalls.length > 3
      ? `any of ${f.onBalls.length} balls is on`
      : `${listWords(f.onBalls.map(theBall))} ${f.onBalls.length === 1 ? 'is' : 'are'} on`
  return `An exercise: ${on}; ${f.pointsLeft} left.`
}

/** "A red is on; 67 left, 12 behind, 40 to win". */
export function frameWords(f: Schemas['FrameResult']): string {
  if (f.exercise) return exerciseWords(f)
  if (f.isOver) return 'The frame is over.'
  const parts = [`${aBall(f.on)} is on${f.freeBall ? ', free ball' : ''}`]
  if (f.repeats) return `${sentence(parts[0])}, again and again; break ${f.break}.`
  parts.push(`${f.pointsLeft} left`)
  if (f.first || f.second) parts.push(f.ahead > 0 ? `${f.ahead} ahead` : f.ahead < 0 ? `${-f.ahead} behind` : 'level')
  if (f.first || f.second)
    parts.push(
      f.toWin === 0
        ? 'won but for penalties'
        : f.snookersRequired
          ? `${countWords(f.snookersRequired, 'snooker')} needed`
          : `${f.toWin} to win`,
    )
  parts.push(`highest break ${f.highestBreak}`)
  return `${sentence(parts.join(', '))}.`
}

export type Alternative = Schemas['AlternativeResult']

/** How a plan mostly ends: "clears 31 % of the time", or where. */
export function endWords(plan: Schemas['PlanResult']): string {
  const p = plan.prospect
  if (!p) return ''
  if (p.cleared.value > 0.5) return `clears ${shareWords(p.cleared)} of the time`
  const at = plan.shots[p.endsAt]
  return `ends most often at shot ${p.endsAt + 1}${at ? `, ${theBall(at.choice.nominated)}` : ''} (${shareWords(p.endsShare)})`
}
