import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { exactly, valueWords } from '../../lib/estimates'
import {
  alongWords,
  attackFigures,
  attackWords,
  escapeFigures,
  escapeWords,
  goFirstWords,
  hiddenWords,
  leaveWords,
  mirrorWords,
  openingWords,
  safetyFigures,
  safetyWords,
  modelErrorWords,
  verdictWords,
  type Attack,
  type Escape,
  type Safety,
} from './words'

const stroke = { side: 0, height: 0.5, pace: 5.4 }
const safety = {
  idea: 'thinClip',
  ball: 'red-3',
  fullness: 0.2,
  fullnessWord: 'quarter',
  leftSide: true,
  seen: 1,
  stroke,
  cushions: ['top'],
  balls: [],
  mean: exactly(0.4),
  worstTenth: exactly(3.2),
  snooker: exactly(0.3),
  potLeft: exactly(0.04),
  rivalChance: exactly(0.11),
  foul: exactly(0.02),
  pots: exactly(0),
  baulk: exactly(0.8),
  tight: exactly(0),
  value: exactly(-0.3),
} as unknown as Safety
const attack = {
  choice: { stroke: { ...stroke, pot: { ball: 'black', pocket: 'green-top' } }, kind: 'direct', chance: exactly(0.6) },
  gain: 12,
  thick: exactly(0.3),
  thickLeave: exactly(1),
  thin: exactly(0.1),
  thinLeave: exactly(8),
  breakEven: 0.41,
  part: -1,
} as unknown as Attack
const escape = {
  ball: 'red-1',
  cushions: ['green-side', 'top'],
  offJaw: false,
  swerves: false,
  stroke,
  windowDegrees: 2.25,
  softestPace: 5,
  hardestPace: 8,
  hit: exactly(0.8),
  potLeft: exactly(0.2),
  leaveIfHit: exactly(3.1),
  penalty: 4,
  freeBall: exactly(0),
  givenAway: exactly(1),
  fromPocket: 0.637,
  pocket: 'green-middle',
  mirror: { fromPocket: 0.6, pocket: 'green-middle', known: { fromX: 0 }, shift: 0.21 },
  correction: 0.037,
} as unknown as Escape
const lines = [
  { id: 'pot', kind: 'pot', attack },
  { id: 'safety', kind: 'safety', safety },
]
const call = { bestId: 'pot', margin: exactly(0.05), isLevel: false, withPot: exactly(0.57), withSafety: exactly(0.52) }
const verdict = (more: object, called: object | null = {}) =>
  verdictWords({
    unit: 'win',
    modelError: 0.06,
    prospects: lines,
    isSnookered: false,
    snookersRequired: 0,
    touching: null,
    verdict: called && { ...call, ...called },
    ...more,
  } as unknown as Schemas['DecideProgress'])

describe('the words of safety', () => {
  it('name the idea and the stroke', () => {
    expect(safetyWords(safety)).toBe('Back to baulk: red 3 quarter-ball on its left, half a tip above, pace 5.4, off the top cushion')
    expect(safetyWords({ ...safety, isAway: true })).toContain(': away from red 3, ')
    expect(safetyFigures(safety)).toContain(
      'Leaves a pot 4 % (the best ball goes in 11 % on the average), snooker 30 %, foul 2 %, white in baulk 80 %.',
    )
    expect(safetyFigures(safety)).toContain('3.2 in the worst tenth')
  })

  it('judge a pot by both its misses', () => {
    expect(attackWords(attack)).toBe('Pot black into the top green-side pocket: half a tip above, pace 5.4')
    expect(attackFigures(attack)).toBe(
      'Goes in 60 %, then makes 12.0 points. Missed thick 30 %, which leaves 1.0; thin 10 %, which leaves 8.0. Err on the thick side. Break-even at 41 %.',
    )
  })

  it('give the verdict, and how near it is', () => {
    expect(verdict({})).toBe(
      'Go for the pot: the frame is won 57 % by the pot, 52 % by the safety; if the pot goes in less than 41 %, the other is better.',
    )
    const safer = { bestId: 'safety', margin: exactly(-0.1), withSafety: exactly(0.67) }
    expect(verdict({}, safer)).toBe('Play safe: the frame is won 57 % by the pot, 67 % by the safety.')
    // Nearer than the reckoning itself is good for.
    expect(verdict({}, { margin: exactly(0.01) })).toContain('A near call. Go for the pot')
    expect(verdict({}, { withPot: null, margin: null, bestId: 'safety' })).toBe('No pot is worth trying: play safe.')
    expect(verdict({ isSnookered: true }, { withPot: null, bestId: 'safety' })).toContain('These reach a ball on')
    expect(verdict({}, { isLevel: true })).toBe('Level: the frame is won 57 % by the pot, 52 % by the safety.')
    // None before both are there.
    expect(verdict({}, null)).toBe('')
    expect(verdict({ unit: 'points' }, { withPot: exactly(3), withSafety: exactly(-1), margin: exactly(4) })).toContain(
      '+3.0 points by the pot',
    )
  })

  it('lay a snooker where one is needed', () => {
    const snooker = [lines[0], { id: 'safety', kind: 'safety', safety: { ...safety, idea: 'snooker' } }]
    expect(verdict({ prospects: snooker, snookersRequired: 1, touching: 'red-4' }, { bestId: 'safety', margin: exactly(-0.06) })).toBe(
      'Lay a snooker: the frame is won 57 % by the pot, 52 % by the safety. 1 snooker is needed. The white touches red 4: play away from it.',
    )
  })

  it('say how good the reckoning itself is', () => {
    expect(modelErrorWords({ unit: 'win', modelError: 0.06 })).toContain('± 6 percentage points')
    expect(modelErrorWords({ unit: 'points', modelError: 3 })).toContain('± 3 points')
    expect([valueWords(exactly(0.523), 'win'), valueWords(exactly(3.4), 'points')]).toEqual(['52 %', '+3.4'])
  })

  it('tell an escape, its window and the construction beside it', () => {
    expect(escapeWords(escape)).toBe('Off the green’s side and top cushions on to red 1: half a tip above, pace 5.4')
    expect(escapeWords({ ...escape, swerves: true, cushions: [] })).toContain('Swerve round it')
    expect(escapeFigures(escape)).toContain('Hits 80 %; window 2.25°, pace 5.0 to 8.0. A hit leaves a pot 20 %')
    expect(mirrorWords(escape)).toContain('parallel to it, 210 mm beside')
    expect(mirrorWords(escape)).toContain(
      '600 mm from the middle green-side pocket; with this stroke, on this table, 37 mm from there: 637 mm',
    )
    expect(mirrorWords({ ...escape, correction: 0.001 })).toContain('on this table the same')
    expect(mirrorWords({ ...escape, mirror: null })).toBe('')
    expect(alongWords(escape, 0.028)).toBe('28 mm towards the top')
    expect(alongWords({ cushions: ['top', 'green-side'] }, -0.012)).toBe('12 mm towards the yellow’s side')
  })

  it('say what is left to the other player', () => {
    const view = (leave: object, more: object = {}) =>
      leaveWords({
        leave: {
          worth: 2,
          ball: 'red-2',
          pocket: 'yellow',
          chance: 0.6,
          isSnookered: false,
          seen: 1,
          toCushion: 0.2,
          isInHand: false,
          ...leave,
        },
        rivalAtTable: true,
        special: [],
        ...more,
      } as unknown as Schemas['RivalViewResult'])
    expect(view({})).toBe('The other player: sees the ball on, best pot red 2 into the baulk yellow-side pocket at 60 %; worth 2.0 points.')
    expect(view({ isSnookered: true, seen: 0, hiddenBy: 'brown', ball: null, toCushion: 0 })).toContain(
      'snookered behind the brown, no pot on, white tight on a cushion',
    )
    expect(view({ isInJaws: true, toCushion: 0 })).toContain('white in the jaws')
    expect(view({ isInHand: true })).toContain('white in the D')
    expect(view({}, { rivalAtTable: false })).toContain('The break goes on')
  })

  it('compare the openings of the black-ball game', () => {
    const opening = {
      kind: 'across',
      whiteX: 0.73,
      whiteY: 1.139,
      stroke,
      fullness: 0.45,
      fullnessWord: 'half',
      wins: { value: 0.72, error: 0.04, strokes: 128 },
      isLevel: false,
    } as unknown as Schemas['OpeningResult']
    expect(openingWords(opening, 1.778)).toContain(
      'Newer: black to one side, white to the other: half-ball, half a tip above, pace 5.4, white 250 mm on the green’s side',
    )
    expect(goFirstWords([opening])).toContain('Go first: 72 % of 128 rallies')
    expect(goFirstWords([{ ...opening, wins: { value: 0.4, error: 0.04, strokes: 128 } }])).toContain('Let the other go first')
    expect(goFirstWords([{ ...opening, wins: { value: 0.52, error: 0.04, strokes: 128 } }])).toContain('Even')
    expect(goFirstWords([{ ...opening, wins: exactly(0) }])).toBe('')
  })

  it('say what is hidden of a ball', () => {
    expect([hiddenWords(1), hiddenWords(0.4), hiddenWords(0)]).toEqual(['', '40 % of it is seen', 'it is hidden'])
  })
})
