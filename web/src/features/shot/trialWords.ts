import type { Schemas } from '../../api/client'
import { causeWords, notApartWords, partOf, tipWords } from '../../domain/diagnosis'
import { cushionNames } from '../../domain/words'
import { degreeWords, lengthWords, sentence } from '../../lib/formats'

type Change = Pick<Schemas['ChangeResult'], 'knob' | 'by' | 'longer' | 'moved' | 'cushion' | 'widerDegrees'>

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

const one = (n: number) => (n === 1 ? 'One attempt' : `${n} attempts`)

/** "Over 6 attempts: half a tip too low each time. Pace scatters more than usual." */
export function verdictWords({ attempts, parts, notApart, unexplained }: Schemas['ShotVerdictResult']): string {
  const off = parts.filter((p) => p.eachTime)
  const each = off.map((p) => causeWords({ ...p, amount: Math.abs(p.error.value) })).join(', ')
  const scattered = (size: Schemas['ScatterSize']) => parts.filter((p) => p.scatter === size).map((p) => partOf(p.cause))
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
