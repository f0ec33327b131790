import type { Schemas } from '../../api/client'
import { cushionNames, nearestName } from '../../domain/words'
import { degreeWords, lengthWords, percentWords, sentence } from '../../lib/formats'

type Change = Pick<Schemas['ChangeResult'], 'knob' | 'by' | 'longer' | 'moved' | 'cushion' | 'widerDegrees'>

const tips: [number, string][] = [
  [0.25, 'a quarter of a tip'],
  [0.5, 'half a tip'],
  [0.75, 'three quarters of a tip'],
  [1, 'a tip'],
  [1.5, 'a tip and a half'],
  [2, 'two tips'],
]
const tipWords = (by: number) => (Math.abs(by) < 0.13 ? 'a touch' : nearestName(tips, by))

/** "half a tip lower", "0.5 harder". */
function knobWords({ knob, by }: Change): string {
  switch (knob) {
    case 'height':
      return `${tipWords(by)} ${by > 0 ? 'higher' : 'lower'}`
    case 'side':
      return `${tipWords(by)} more ${by > 0 ? 'right' : 'left'}`
    case 'pace':
      return `${Math.abs(by).toFixed(1).replace(/\.0$/, '')} ${by > 0 ? 'harder' : 'softer'}`
    case 'elevation':
      return `butt ${degreeWords(Math.abs(by), 0)} ${by > 0 ? 'higher' : 'lower'}`
    case 'aim':
      return `aimed ${degreeWords(Math.abs(by), 2)} farther ${by > 0 ? 'left' : 'right'}`
    default:
      return ''
  }
}

/** What a change did: "half a tip lower: 310 mm shorter, comes off the top cushion 9° wider". Empty where nothing moved. */
export function changeWords(change: Change): string {
  const parts: string[] = []
  if (Math.abs(change.longer) >= 0.005) parts.push(`${lengthWords(Math.abs(change.longer))} ${change.longer > 0 ? 'farther' : 'shorter'}`)
  else if (change.moved !== null && change.moved !== undefined && change.moved >= 0.005)
    parts.push(`stops ${lengthWords(change.moved)} away`)
  if (change.cushion && Math.abs(change.widerDegrees) >= 0.5)
    parts.push(
      `comes off the ${cushionNames[change.cushion]} cushion ${degreeWords(Math.abs(change.widerDegrees))} ${change.widerDegrees > 0 ? 'wider' : 'narrower'}`,
    )
  if (!parts.length) return ''
  const knob = knobWords(change)
  return knob ? `${knob}: ${parts.join(', ')}` : parts.join(', ')
}

/** One thing that may have gone wrong: "half a tip too low", "0.3 too hard", "a touch thick (0.12°)". */
export function causeWords({ cause, direction, amount, inPlayersUnits }: Cause): string {
  switch (cause) {
    case 'pace':
      return `${(inPlayersUnits ?? 0).toFixed(1)} too ${direction}`
    case 'height':
      return `${tipWords(inPlayersUnits ?? 0)} too ${direction}`
    case 'side':
      return `${tipWords(inPlayersUnits ?? 0)} too far ${direction} on the white`
    case 'direction':
      return `aimed ${degreeWords(amount, 2)} too far ${direction}`
    default:
      return `${degreeWords(amount, 2)} too ${cause}`
  }
}

/**
 * "It was 0.3 too hard (62 %), or half a tip too high (25 %): change one.": what explains where the balls stopped, the likeliest first; or that
 * nothing should be changed, or that nothing explains it.
 */
export function diagnosisWords({
  causes,
  explains,
  isUsual,
  notApart = [],
}: Pick<Schemas['DiagnosisResult'], 'causes' | 'explains' | 'isUsual'> & Partial<Pick<Schemas['DiagnosisResult'], 'notApart'>>): string {
  if (explains < leastExplained || !causes.length)
    return 'No stroke near the one meant does this: was a ball elsewhere, or is the table another?'
  if (isUsual) return `Within your usual spread: play it again. If anything, it was ${causeWords(causes[0])}.`
  const told = causes.filter((c, i) => i < 2 && c.chance >= leastTold)
  const words = told.map((c) => `${causeWords(c)} (${percentWords(c.chance)})`)
  const apart = notApartWords(
    notApart,
    told.map((c) => partOf(c.cause)),
  )
  return `It was ${words.join(', or ')}${words.length > 1 ? ': change one' : ''}.${apart}`
}

const partNames: Record<string, string> = { direction: 'direction', pace: 'pace', side: 'side', height: 'height' }
const partOf = (cause: string) => (cause === 'thick' || cause === 'thin' ? 'direction' : cause)
/** "side and direction" */
const pairWords = (pair: readonly string[]) => pair.map((p) => partNames[p]).join(' and ')
/** What leaves the same ends: said only of parts of which one is told. */
export function notApartWords(pairs: readonly (readonly string[])[], told: readonly string[]): string {
  const named = pairs.filter((p) => p.some((part) => told.includes(part)))
  return named.length ? ` Here ${named.map(pairWords).join(', and ')} leave the same ends: which it was cannot be told.` : ''
}
const one = (n: number) => (n === 1 ? 'One attempt' : `${n} attempts`)

/** "Over 6 attempts: half a tip too low each time. Pace scatters more than usual." */
export function verdictWords({ attempts, parts, notApart, unexplained }: Schemas['ShotVerdictResult']): string {
  const off = parts.filter((p) => p.eachTime)
  const each = off.map((p) => causeWords({ ...p, amount: Math.abs(p.error.value) })).join(', ')
  const scattered = (size: Schemas['ScatterSize']) => parts.filter((p) => p.scatter === size).map((p) => partNames[partOf(p.cause)])
  const scatter = (size: Schemas['ScatterSize'], words: string) => {
    const names = scattered(size)
    return names.length ? ` ${sentence(names.join(' and '))} scatter${names.length > 1 ? '' : 's'} ${words} than usual.` : ''
  }
  return (
    `Over ${attempts} attempts: ${each ? `${each} each time` : 'nothing that you do each time, it is scatter'}.` +
    scatter('more', 'more') +
    scatter('less', 'less') +
    notApartWords(
      notApart,
      off.map((p) => partOf(p.cause)),
    ) +
    (unexplained.length ? ` ${one(unexplained.length)} left out: no stroke near the one meant does that.` : '')
  )
}

/**
 * Of a straight pot, which measures the cueing: "Aim 0.03° left (0.01° right to 0.05° left), unmeant side 2 mm right (0.5 mm left to 4 mm right)."
 */
export function instrumentWords({ turnDegrees, side }: Schemas['StrokeErrorResult'], ballRadius: number): string {
  const said = ({ value, low, high }: Schemas['RangeResult'], words: (v: number) => string, positive: string, negative: string) => {
    const one = (v: number) => `${words(Math.abs(v))} ${v >= 0 ? positive : negative}`
    return `${one(value)} (${one(low)} to ${one(high)})`
  }
  const aim = said(turnDegrees, (v) => degreeWords(v, 2), 'left', 'right')
  return `Aim ${aim}, unmeant side ${said(side, (v) => lengthWords(v * ballRadius, 1), 'right', 'left')}.`
}

type Cause = Pick<Schemas['CauseResult'], 'cause' | 'direction' | 'amount' | 'inPlayersUnits'>
/** Below this nothing near the stroke explains what was seen; and a second cause less likely than this is not told. */
const leastExplained = 0.2
const leastTold = 0.15
