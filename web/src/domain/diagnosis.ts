import type { Schemas } from '../api/client'
import { degreeWords, percentWords } from '../lib/formats'
import { nearestName } from './words'

const tips: [number, string][] = [
  [0.25, 'a quarter of a tip'],
  [0.5, 'half a tip'],
  [0.75, 'three quarters of a tip'],
  [1, 'a tip'],
  [1.5, 'a tip and a half'],
  [2, 'two tips'],
]
export const tipWords = (by: number) => (Math.abs(by) < 0.13 ? 'a touch' : nearestName(tips, by))

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

export const partOf = (cause: string) => (cause === 'thick' || cause === 'thin' ? 'direction' : cause)
/** "side and direction" */
const pairWords = (pair: readonly string[]) => pair.join(' and ')
/** What leaves the same ends: said only of parts of which one is told. */
export function notApartWords(pairs: readonly (readonly string[])[], told: readonly string[]): string {
  const named = pairs.filter((p) => p.some((part) => told.includes(part)))
  return named.length ? ` Here ${named.map(pairWords).join(', and ')} leave the same ends: which it was cannot be told.` : ''
}
type Cause = Pick<Schemas['CauseResult'], 'cause' | 'direction' | 'amount' | 'inPlayersUnits'>
/** Below this nothing near the stroke explains what was seen; and a second cause less likely than this is not told. */
const leastExplained = 0.2
const leastTold = 0.15
