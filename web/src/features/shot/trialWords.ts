import type { Schemas } from '../../api/client'
import { cushionNames, nearestName } from '../../domain/words'
import { degreeWords, lengthWords } from '../../lib/formats'

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

/** "It was 0.3 too hard, or half a tip too low: change one.": what explains where the white stopped, the likeliest first. */
export function adjustWords({ off, errors }: Schemas['NextAdjustment']): string {
  if (off === null) return ''
  if (!errors.length)
    return off < nearEnough ? 'Near enough: play it again.' : 'No single error explains where it stopped: was a ball elsewhere?'
  const words = errors.slice(0, 2).map(({ knob, by }) => {
    switch (knob) {
      case 'pace':
        return `${Math.abs(by).toFixed(1)} too ${by > 0 ? 'hard' : 'soft'}`
      case 'height':
        return `${tipWords(by)} too ${by > 0 ? 'high' : 'low'}`
      case 'side':
        return `${tipWords(by)} too far ${by > 0 ? 'right' : 'left'} on the white`
      default:
        return `aimed ${degreeWords(Math.abs(by), 2)} too far ${by > 0 ? 'left' : 'right'}`
    }
  })
  return `It was ${words.join(', or ')}${words.length > 1 ? ': change one' : ''}.`
}
/** The core's own bound below which nothing is to be changed, m. */
const nearEnough = 0.06
