import { describe, expect, it } from 'vitest'
import { driftWords } from '../../domain/words'
import { againstWords, gainWords, habitWords, heldWords, latelyWords, playerRows, tableRows } from './words'

describe('what a table is said to be', () => {
  it('names the side to which a slow ball runs', () => {
    expect(driftWords({ x: 0, y: 0.033 })).toBe('A slow ball, as far as the table is wide, runs 33 mm to the green’s side.')
    expect(driftWords({ x: -0.01, y: -0.02 })).toBe(
      'A slow ball, as far as the table is wide, runs 20 mm to the yellow’s side and 10 mm towards baulk.',
    )
    expect(driftWords({ x: 0.001, y: 0 })).toBe('')
  })
  it('tells how well strokes are predicted, and what is wrong if they are not', () => {
    expect(heldWords([true, true])).toBe('')
    const good = Array.from({ length: 31 }, (_, i) => i % 10 > 0)
    expect(heldWords(good)).toBe('27 of the last 30 stopped in the 90 % area that the others predict.')
    expect(heldWords([true, false, false, true])).toContain('too few')
    // One of three may well lie outside by chance.
    expect(heldWords([true, false, true])).not.toContain('too few')
    expect(heldWords(Array.from({ length: 30 }, (_, i) => i % 4 > 0))).toContain('too few')
  })
  it('says what strokes say nothing about', () => {
    const [known, unknown] = tableRows([
      { name: 'rollingFriction', value: 0.0151, low: 0.0143, high: 0.0159, narrowed: 0.7 },
      { name: 'ballRestitution', value: 0.94, low: 0.88, high: 0.97, narrowed: 0.02 },
    ])
    expect([known.value, known.range, known.isKnown]).toEqual(['0.0151', '0.0143 to 0.0159', true])
    expect(unknown.isKnown).toBe(false)
    expect(playerRows([{ name: 'pace', value: 6.5, low: 5, high: 8, narrowed: 0.4 }])[0].value).toBe('6.5 %')
  })
  it('tells figures against those before', () => {
    expect(againstWords(0.0125, 0.0135)).toBe('+8 %')
    expect(againstWords(0.0125, 0.0115)).toBe('−8 %')
    expect(againstWords(0, 0.004)).toBe('new')
    expect(againstWords(0.0125, 0.0125)).toBe('')
    expect(againstWords(undefined, 1)).toBe('')
  })
})

describe('what a player does each time', () => {
  const none = { value: 0, low: -1, high: 1 }
  it('is said only where it is more than chance', () => {
    expect(habitWords({ turnDegrees: none, pace: none, side: none, height: none, buttDegrees: null })).toEqual([])
    expect(
      habitWords({
        turnDegrees: none,
        pace: { value: 0.06, low: 0.02, high: 0.1 },
        side: none,
        height: { value: -0.08, low: -0.12, high: -0.04 },
        buttDegrees: { value: 2.1, low: 1.2, high: 3 },
      }),
    ).toEqual([
      'You strike 6 % too hard on the average.',
      'Your tip is 0.25 of a tip too low on the average.',
      'Your butt lies 2.1° higher than was assumed.',
    ])
  })
})

describe('what to practise', () => {
  it('is told in points, and what is within its error is nothing', () => {
    const frames = { value: 0.0213, error: 0.003, strokes: 32 }
    expect(gainWords({ part: 'pace', points: { value: 4.1, error: 0.6, strokes: 32 }, frames })).toBe(
      'Pace: +4.1 points a visit (±\u00a00.6), 2.1 more frames of a hundred (±\u00a00.3)',
    )
    expect(gainWords({ part: 'side', points: { value: 0.1, error: 0.2, strokes: 32 }, frames })).toContain('nothing to speak of')
  })
  it('has beside it what the routines for it have shown', () => {
    const tally = (name: string, family: 'pace' | 'spin', done: number, of: number) => ({
      routine: name,
      name,
      family,
      all: { done, of, low: 0, high: 1 },
      lastTen: { done, of, low: 0, high: 1 },
      lastAt: '',
      weeks: [],
      scores: null,
    })
    const routines = [tally('Up and down', 'pace', 14, 20), tally('Screw', 'spin', 6, 10)]
    expect(latelyWords(['pace', 'position'], routines)).toBe('Lately: Up and down 14 of 20 (70 %).')
    expect(latelyWords(['safety'], routines)).toContain('Nothing practised')
  })
})
