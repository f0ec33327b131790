import type { Schemas } from '../../api/client'
import { degreeWords, figureWords, percentWords } from '../../lib/formats'

/** Where a teaching stroke is set up and where it goes, as it is said at the table. */
export const lineWords: Record<Schemas['TeachingLine'], string> = {
  alongFromBrown: 'White on the brown spot, straight up the table',
  acrossFromYellow: 'White on the yellow spot, straight across to the green’s side',
  acrossFromGreen: 'White on the green spot, straight across to the yellow’s side',
  backFromBlack: 'White on the black spot, straight down the table',
  roundFromBrown: 'White on the brown spot, at the cushion just past the green-side middle pocket',
  fullOntoBlue: 'White on the brown spot, a red on the blue spot: hit it full',
  halfOntoBlue: 'White on the yellow spot, a red on the blue spot: half-ball, on its right',
}

/** What is learnt of a table: its name, and how a figure of it is said. */
export const figureNames: Record<string, { name: string; words: (v: number) => string }> = {
  rollingFriction: { name: 'Rolling friction: how soon a ball stops', words: (v) => figureWords(v, 4) },
  slidingFriction: { name: 'Sliding friction: how soon spin takes hold', words: (v) => figureWords(v, 3) },
  cushionRestitution: { name: 'Liveliness of the cushions', words: (v) => figureWords(v, 3) },
  cushionFriction: { name: 'Grip of the cushions', words: (v) => figureWords(v, 3) },
  driftAlong: { name: 'Drift along the table', words: (v) => `${figureWords(v * 1000, 1)} mm/s²` },
  driftAcross: { name: 'Drift across the table', words: (v) => `${figureWords(v * 1000, 1)} mm/s²` },
  ballRestitution: { name: 'Liveliness of the balls', words: (v) => figureWords(v, 3) },
  spinDeceleration: { name: 'How soon side dies', words: (v) => `${figureWords(v, 1)} rad/s²` },
}

/** The chance that of so many strokes no more than this stop in an area that holds 90 of 100. */
function chanceOfAtMost(count: number, of: number): number {
  let [one, sum] = [0.1 ** of, 0]
  for (let k = 0; k <= count; k++) {
    sum += one
    one *= ((of - k) / (k + 1)) * 9
  }
  return sum
}

/** "27 of the last 30 stopped in their 90 % area": how well each stroke is predicted from the others; with what it means if it is not. */
export function heldWords(held: readonly boolean[]): string {
  const last = held.slice(-30)
  if (last.length < 3) return ''
  const count = last.filter(Boolean).length
  const words = `${count} of the last ${last.length} stopped in the 90 % area that the others predict`
  // One in ten should not: more than chance makes of that is told.
  return chanceOfAtMost(count, last.length) < 0.1
    ? `${words}. That is too few: a place was misread, or the table has changed (brushed, damp, other balls). Delete what is wrong.`
    : `${words}.`
}

/** The parts of a player's error, with their units. */
const partWords: Record<string, (v: number) => string> = {
  direction: (v) => degreeWords(v, 3),
  sighting: (v) => `${figureWords(v, 2)} mm`,
  allowance: (v) => `${figureWords(v, 1)} %`,
  pace: (v) => `${figureWords(v, 1)} %`,
  height: (v) => `${figureWords(v, 1)} mm`,
  side: (v) => `${figureWords(v, 2)} mm`,
  cushion: (v) => degreeWords(v, 2),
  evenness: (v) => figureWords(v, 1),
}
const partNames: Record<string, string> = {
  direction: 'Direction',
  sighting: 'Sighting',
  allowance: 'Allowance for side',
  pace: 'Pace',
  height: 'Height of the tip',
  side: 'Side of the tip',
  cushion: 'Cushions',
  evenness: 'Evenness (2: many bad strokes; 30: hardly any)',
}

export type Row = { key: string; name: string; value: string; range: string; narrowed: number; isKnown: boolean }
/** Narrowed by less than this, a figure is what was believed before. */
const leastNarrowed = 0.1

const rowOf = (e: Schemas['EstimateResult'], name: string, words: (v: number) => string): Row => ({
  key: e.name,
  name,
  value: words(e.value),
  range: `${words(e.low)} to ${words(e.high)}`,
  narrowed: e.narrowed,
  isKnown: e.narrowed >= leastNarrowed,
})
export const tableRows = (estimates: readonly Schemas['EstimateResult'][]) =>
  estimates.map((e) => rowOf(e, figureNames[e.name]?.name ?? e.name, figureNames[e.name]?.words ?? String))
export const playerRows = (estimates: readonly Schemas['EstimateResult'][]) =>
  estimates.map((e) => rowOf(e, partNames[e.name] ?? e.name, partWords[e.name] ?? String))

const tip = (radius: number) => `${figureWords(Math.abs(radius) / tipRadius, 2)} of a tip`
/** One tip as a fraction of the ball's radius: 10 mm of the tip's way on a domed tip. */
const tipRadius = 0.32

/** What strokes are off by on the average, where that is more than chance: "You strike 6 % too hard." */
export function habitWords(h: Schemas['HabitsResult']): string[] {
  const isSure = (r: Schemas['RangeResult']) => r.low > 0 || r.high < 0
  return [
    isSure(h.pace) ? `You strike ${percentWords(Math.abs(h.pace.value))} too ${h.pace.value > 0 ? 'hard' : 'soft'} on the average.` : '',
    isSure(h.height) ? `Your tip is ${tip(h.height.value)} too ${h.height.value > 0 ? 'high' : 'low'} on the average.` : '',
    isSure(h.side) ? `Your tip is ${tip(h.side.value)} too far ${h.side.value > 0 ? 'right' : 'left'} on the average.` : '',
    isSure(h.turnDegrees)
      ? `You start the white ${degreeWords(Math.abs(h.turnDegrees.value), 2)} too far ${h.turnDegrees.value > 0 ? 'left' : 'right'} on the average.`
      : '',
    h.buttDegrees && isSure(h.buttDegrees)
      ? `Your butt lies ${degreeWords(Math.abs(h.buttDegrees.value), 1)} ${h.buttDegrees.value > 0 ? 'higher' : 'lower'} than was assumed.`
      : '',
  ].filter(Boolean)
}

/** "+8 %": a figure against the one before. */
export function againstWords(before: number | undefined, after: number): string {
  if (before === undefined || before === after) return ''
  if (Math.abs(before) < 1e-9) return 'new'
  const share = after / before - 1
  return `${share >= 0 ? '+' : '−'}${Math.abs(share * 100).toFixed(0)} %`
}

/** "Pace: +4.1 points a visit (± 0.6), 2.1 more frames of a hundred (± 0.3)"; within its error a gain is nothing. */
export function gainWords({ part, points, frames }: Pick<Schemas['PartGainResult'], 'part' | 'points' | 'frames'>): string {
  const name = partNames[part]?.split(' (')[0] ?? 'Rest and other hand'
  return points.value > 2 * points.error && points.value >= 0.05
    ? `${name}: +${points.value.toFixed(1)} points a visit (±\u00a0${points.error.toFixed(1)}), ` +
        `${figureWords(100 * frames.value, 1)} more frames of a hundred (±\u00a0${figureWords(100 * frames.error, 1)})`
    : `${name}: nothing to speak of (${points.value.toFixed(1)} ± ${points.error.toFixed(1)})`
}

/** "Lately: Stop shot 14 of 20 (70 %), The clock 6 of 10 (60 %).": the routines that train a part, the one played last first. */
export function latelyWords(families: readonly string[], routines: readonly Schemas['RoutineTally'][]): string {
  const of = routines.filter((r) => families.includes(r.family)).slice(0, mostLately)
  return of.length
    ? `Lately: ${of.map((r) => `${r.name} ${r.all.done} of ${r.all.of} (${percentWords(r.all.done / r.all.of)})`).join(', ')}.`
    : 'Nothing practised for it in four weeks.'
}
const mostLately = 3
