import type { Schemas } from '../../api/client'
import { doneShare } from '../../lib/estimates'
import { dayWords, figureWords, percentWords, sentence } from '../../lib/formats'

type Share = Schemas['SuccessRate']

/** "70 % (14 of 20; 95 % interval 48–85 %)": no share without its doubt. */
export const shareWords = (s: Share) =>
  s.of
    ? `${percentWords(doneShare(s))} (${s.done} of ${s.of}; 95 % interval ${percentWords(s.low).replace(' %', '')}–${percentWords(s.high).replace(' ', '\u00a0')})`
    : 'nothing counted'

/** "58 % at the usual mix (95 % interval 49–67 %)". */
export const standardWords = (s: Schemas['StandardisedShare']) =>
  `${percentWords(s.share)} at the usual mix (95 % interval ${percentWords(s.low).replace(' %', '')}–${percentWords(s.high).replace(' ', '\u00a0')})`

/** A week's share: over several routines at one mix of them, for a week of easy ones is no progress. */
export const weekShare = (w: Schemas['Week']): Pick<Schemas['StandardisedShare'], 'share' | 'low' | 'high'> =>
  w.standard ?? { share: doneShare(w.share), low: w.share.low, high: w.share.high }

/** What changed from one week to the next: "The week of 23 Nov: 58 % at the usual mix, 6 points up on the week before, more than chance." */
export function sinceWords(weeks: readonly Schemas['Week'][]): string {
  const [before, now] = weeks.slice(-2)
  if (!now) return ''
  const [a, b] = [weekShare(before), weekShare(now)]
  const by = Math.round((b.share - a.share) * 100)
  // Apart only where neither could be the other: the intervals do not even touch.
  const isApart = b.low > a.high || b.high < a.low
  const change = by === 0 ? 'as in the week before' : `${Math.abs(by)} points ${by > 0 ? 'up on' : 'down on'} the week before`
  return `The week of ${weekWords(now.from)}: ${percentWords(b.share)} done${now.standard ? ' at the usual mix' : ''}, ${change}${by === 0 ? '' : isApart ? ', more than chance explains' : ', which could be chance'}.`
}

/** Better than before? Yes, no, or not yet to be told, and how many attempts it would take. */
export function betterWords(change: Schemas['Change'], what = 'the newer half', than = 'the older', isAnswer = true): string {
  const by = figureWords(Math.abs(change.difference) * 100, 0)
  const range = `95 % interval ${figureWords(change.low * 100, 0)} to ${figureWords(change.high * 100, 0)} points`
  const said = (better: string) => `${what} by ${by} points ${better} than ${than}, ${range}.`
  if (change.verdict === 'better') return isAnswer ? `Yes: ${said('better')}` : sentence(said('better'))
  if (change.verdict === 'worse') return isAnswer ? `No: ${said('worse')}` : sentence(said('worse'))
  return change.needed
    ? `Too early to say: ${by} points apart, ${range}. At this difference about ${roundWords(change.needed)} attempts on each side would decide.`
    : `Too early to say: level so far.`
}

/** No more figures than are known: "216" is "220", "13676" is "14,000". */
const roundWords = (count: number) => Number(count.toPrecision(2)).toLocaleString('en-GB')

/** A run of attempts that were done, beside luck. */
export function streakWords(run: number, byLuck: number): string {
  if (run < 2) return ''
  const chance =
    byLuck > 0.995 ? 'chance alone gives one as long nearly always' : `chance alone gives one as long in ${percentWords(byLuck)} of cases`
  return `${run} in a row at best, of the last hundred; ${byLuck < 0.05 ? `${chance}: more than chance` : chance}.`
}

/** "3 Nov". */
export const weekWords = dayWords

export const stanceNames: Record<Schemas['Stance'], string> = {
  natural: 'natural stance',
  stretch: 'stretched',
  otherHand: 'other hand',
  rest: 'with the rest',
}
