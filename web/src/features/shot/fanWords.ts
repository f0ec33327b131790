import type { Schemas } from '../../api/client'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { cushionCountWords, shortStrokeWords, tipWords, whereWords } from '../../domain/words'
import { degreeWords, figureWords, lengthWords, listWords, ownPace, paceWords } from '../../lib/formats'
import { missWords } from '../../position/words'
import type { FanKind, FanLine } from './judgements'

type Demand = Schemas['Demand']
type Rung = Pick<Schemas['RungResult'], 'what'>

/** "half a tip below", or in figures where the steps are finer than there are words: "0.35 below". */
function tipLabel(side: number, height: number, isFine: boolean): string {
  if (!isFine) return tipWords(side, height)
  const [by, more, less] = side ? [side, 'right', 'left'] : [height, 'above', 'below']
  return Math.abs(by) < 0.005 ? 'centre' : `${figureWords(Math.abs(by), 2)} ${by > 0 ? more : less}`
}
const turned = (by: number) => `${degreeWords(Math.abs(by), Math.abs(by) % 0.5 ? 2 : 1)} ${by > 0 ? 'left' : 'right'}`

/** What a line of a fan is called: by its setting, in the trade's words. */
export function fanWords(
  kind: FanKind,
  line: Pick<FanLine, 'key' | 'pace' | 'height' | 'side' | 'elevation'>,
  set: { pace: number },
  isFine = false,
) {
  switch (kind) {
    case 'paces':
      return paceWords(line.pace)
    case 'heights':
      return tipLabel(0, line.height, isFine)
    case 'sides':
      return tipLabel(line.side, 0, isFine).replace('centre ball', 'plain')
    case 'butts':
      return line.elevation < 0.5 ? 'level' : `butt ${degreeWords(line.elevation)}`
    case 'aims':
      return turned(Number(line.key))
    case 'errors': {
      const [, knob, by] = /^([a-z]+)(.*)$/.exec(line.key)!
      return knob === 'aim'
        ? turned(Number(by))
        : knob === 'pace'
          ? `½ pace ${Number(by) > 0 ? 'harder' : 'softer'}`
          : tipWords(Number(by), 0)
    }
    default:
      // At a soft pace the white arrives rolling: a route that needs more is drawn with what it needs, and says so.
      return line.key + (line.pace > set.pace + 0.1 ? ` (${paceWords(line.pace)})` : '')
  }
}

/** What stands at the line's end on the plan: "½ low", "¾ right", else as in a list. */
export function shortFanWords(...[kind, line, set, isFine]: Parameters<typeof fanWords>): string {
  if (isFine || (kind !== 'heights' && kind !== 'sides')) return fanWords(kind, line, set, isFine)
  const [height, side] = shortStrokeWords(kind === 'heights' ? { height: line.height } : { side: line.side }).split(', ')
  return kind === 'heights' || Math.abs(line.side) < 0.06 ? height : side
}

/** "goes in", "missed 14 mm thick, near jaw"; without a pot what is met first: "half of red 3", "passes red 3 by 12 mm". */
export function lineFirstWords(line: FanLine, met: string | null): string {
  const { first, fullness } = line.end
  const passes = line.passesBy !== null && met ? `passes ${theBall(met)} by ${lengthWords(line.passesBy)}` : ''
  if (line.potted !== null) return line.potted ? 'goes in' : line.miss ? `missed ${missWords(line.miss)}` : passes || 'missed'
  const hit = first ? `${theBall(first)}${fullness !== null ? `, ${figureWords(fullness, 2)} of it` : ''}` : ''
  return [passes, hit].filter(Boolean).join(', then ') || 'meets no ball'
}

/** "off two cushions, on to the pink, in baulk, 94 mm off the baulk cushion": where the white goes. */
export function lineWhiteWords({ cushions, runsInto, gap, whitePocket, whiteRests }: Schemas['StrokeEndResult']): string {
  const parts: string[] = []
  if (cushions.length) parts.push(`off ${cushionCountWords(cushions.length)}`)
  if (runsInto.length) parts.push(`into ${theBall(runsInto[0])}`)
  else if (gap) parts.push(`between ${listWords(gap.map(nameOf))}`)
  parts.push(whitePocket ? `in-off, ${pocketName(whitePocket)} pocket` : whiteRests ? whereWords(whiteRests) : 'off the table')
  return parts.join(', ')
}

/** "4 mm, 0.3° to the left": how far the aim that is kept lies from the one that pots. */
export const ghostGapWords = (line: Pick<FanLine, 'aim' | 'aimThatPots' | 'ghostGap'>) =>
  line.aimThatPots === null || line.ghostGap === null
    ? ''
    : `${lengthWords(Math.abs(line.ghostGap), 1)}, ${degreeWords(Math.abs(line.aim - line.aimThatPots), 2)} off`

/** What a rung of a ladder reaches: "the pink", "between red 2 and red 3", "in-off, green’s middle pocket", "missed". */
export function rungWords({ what }: Rung): string {
  if (!what) return 'no aim pots it'
  if (what.potted === false) return 'missed'
  if (what.inOff) return `in-off, ${pocketName(what.inOff)} pocket`
  const first = what.first ? `${theBall(what.first)} first` : what.potted === null ? 'no ball' : ''
  const then = what.ball
    ? theBall(what.ball)
    : what.gap
      ? `between ${listWords(what.gap.map(nameOf))}`
      : what.cushions
        ? `off ${cushionCountWords(what.cushions)}`
        : first
          ? ''
          : 'no cushion, no other ball'
  return [first, then, what.doesGoal ? 'does it' : ''].filter(Boolean).join(', ')
}

/** What is asked of an attempt at a rung; nothing where that cannot be said. */
export function rungDemands({ what }: Rung): Demand[] {
  if (!what || what.potted === false || what.inOff) return []
  const list: Demand[] = what.potted ? [{ kind: 'pot' }] : what.first ? [{ kind: 'meetsFirst', ball: what.first }] : []
  if (what.ball) list.push({ kind: 'runsInto', ball: what.ball })
  else if (what.gap) list.push({ kind: 'gate', ball: what.gap[0], other: what.gap[1] })
  else if (!what.cushions) list.push({ kind: 'noCushion' })
  else return []
  return list
}

/** Settings of a knob: "0.35 to 0.52 tips", "3.8 to 4.2". */
export function settingsWords(knob: Schemas['StrokeKnob'], { from, to }: Pick<Schemas['RungResult'], 'from' | 'to'>): string {
  const words = (v: number) => (knob === 'pace' ? ownPace(v) : figureWords(v, knob === 'elevation' ? 0 : 2))
  const unit = knob === 'pace' ? '' : knob === 'elevation' || knob === 'aim' ? '°' : ' tips'
  return words(from) === words(to) ? `${words(from)}${unit}` : `${words(from)} to ${words(to)}${unit}`
}
/** "0.17 of a tip": how wide a rung is. */
export const widthWords = (knob: Schemas['StrokeKnob'], { from, to }: Pick<Schemas['RungResult'], 'from' | 'to'>) =>
  `${figureWords(to - from, knob === 'elevation' ? 0 : 2)}${knob === 'pace' ? ' of a pace' : knob === 'elevation' || knob === 'aim' ? '°' : ' of a tip'}`
