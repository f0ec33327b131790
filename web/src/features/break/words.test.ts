// @vitest-environment node
import { exactly } from '../../lib/estimates'
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { kindOf } from '../../domain/balls'
import { potWords } from '../../domain/words'
import {
  coverWords,
  endWords,
  frameWords,
  isAgainst,
  lacksWords,
  planLabel,
  planStrokeWords,
  reasonWords,
  tagsOf,
  turnWords,
  worthWords,
  type Choice,
  type PlanShot,
  type Reason,
} from './words'

const reason = (code: Reason['code'], more: Partial<Reason> = {}): Reason => ({
  code,
  ball: null,
  pocket: null,
  amount: 0,
  opens: null,
  other: 0,
  ...more,
})
const choice = (more: Partial<Choice> = {}): Choice =>
  ({
    stroke: { side: 0, height: -0.5, pace: 4, pot: { ball: 'red-3', pocket: 'green-top' } },
    kind: 'direct',
    chance: exactly(0.9),
    value: exactly(31.4),
    points: 1,
    holds: exactly(0.95),
    foul: exactly(0),
    next: { ball: 'black', chance: 0.97 },
    cushions: ['top'],
    balls: ['red-7'],
    reach: { stance: 'natural' },
    ...more,
  }) as unknown as Choice

describe('the words of a plan', () => {
  it('name the pot and the stroke as players do', () => {
    expect(potWords(choice())).toBe('red 3 into the top green-side pocket')
    expect(potWords(choice({ kind: 'plant', stroke: { pot: { ball: 'red-3', pocket: 'green-top', through: 'red-4' } } }))).toContain(
      'plant off red 4',
    )
    const screw = { follow: -0.5, kind: 'screw' } as Schemas['Arrival']
    expect(planStrokeWords(choice(), screw)).toBe('screw, half a tip below, pace 4, off the top cushion, on to red 7')
  })

  it('say why, with the figures', () => {
    expect(reasonWords(reason('frees', { ball: 'pink', pocket: 'yellow-top' }))).toBe('frees the pink’s path to the top yellow-side pocket')
    expect(reasonWords(reason('high', { ball: 'black', amount: 0.214 }))).toBe('high on the black, by 214 mm')
    expect(reasonWords(reason('opens', { amount: 4, other: 2 }))).toBe('opens 4 more reds, with 2 more on to fall back on')
    expect(reasonWords(reason('opens', { amount: 4 }))).toBe('opens 4 more reds')
    const opens = { least: 5, most: 9, mostly: 7, mean: { value: 6.8, error: 0.2, strokes: 64 } }
    expect(reasonWords(reason('opens', { amount: 7, opens }))).toBe('opens 5 to 9 more reds, mostly 7')
    expect(reasonWords(reason('angle', { ball: 'red-2', amount: 24.6, other: 0.93 }))).toBe('leaves red 2 at 25° (93 %)')
    expect(reasonWords(reason('onCushion', { amount: 0.001 }))).toContain('tight')
    expect(isAgainst(reason('needsRest'))).toBe(true)
    expect(isAgainst(reason('cover'))).toBe(false)
  })

  it('say what a long and a short white leave', () => {
    expect(coverWords({ x: 0, y: 0, scores: true, ball: 'blue', pocket: 'green', chance: 0.8 })).toBe('the blue on at 80 %')
    expect(coverWords({ x: 0, y: 0, scores: true, ball: null, pocket: null, chance: 0 })).toBe('nothing on')
    expect(coverWords({ x: 0, y: 0, scores: false, ball: null, pocket: null, chance: 0 })).toContain('lost')
  })

  it('say what an alternative lacks, in its own measure', () => {
    const first: Schemas['AlternativeResult'] = {
      id: 'a',
      choice: choice(),
      below: 'none',
      value: exactly(31.4),
      points: exactly(31.4),
      isLevel: false,
    }
    const lower = (below: Schemas['Shortfall'], more: Partial<Choice> = {}) => ({
      ...first,
      choice: choice(more),
      below,
      value: exactly(29),
    })
    expect(lacksWords(first, first, 'points')).toBe('the best')
    expect(lacksWords(lower('chance', { chance: exactly(0.6) }), first, 'points')).toBe('goes in 60 %, not 90 %: 2 points less')
    expect(lacksWords(lower('leave', { holds: exactly(0.4) }), first, 'points')).toContain('better than even 40 % of the time, not 95 %')
    const clears = { ...first, value: exactly(0.5) }
    expect(lacksWords({ ...lower('foul', { foul: exactly(0.2) }), value: exactly(0.4) }, clears, 'target')).toBe(
      'in-off or foul 20 %: 10 % less',
    )
    expect(lacksWords({ ...lower('chance'), isLevel: true }, first, 'points')).toBe('level with the best')
    expect(worthWords(first.value, 'points')).toBe('31 pts')
    expect(worthWords(exactly(0.644), 'win')).toBe('64 %')
  })

  it('say where a break turns to safety, and what the pot is worth instead', () => {
    const turn = {
      ball: 'red-3',
      fullnessWord: 'half',
      leftSide: true,
      stroke: { side: 0, height: 0.5, pace: 3.1 },
      value: 0.48,
      potValue: 0.44,
    } as unknown as Schemas['SafetyTurnResult']
    expect(turnWords(turn, 'win')).toBe(
      'Then turn to safety (48 % against 44 % by the pot): red 3 half-ball on its left, half a tip above, pace 3.1.',
    )
    expect(turnWords({ ...turn, potValue: null }, 'win')).toContain('no pot is on')
  })

  it('name a plan by its measure, and by its points beside', () => {
    const plan = (prospect: object | null) =>
      ({ shots: [{ choice: choice({ value: exactly(0.5) }) }], prospect, isComplete: false }) as unknown as Schemas['PlanResult']
    const prospect = { value: exactly(0.62), points: exactly(24.2), target: null }
    expect(planLabel(plan(prospect), 'win')).toBe('62 %, 24 pts')
    expect(planLabel(plan(prospect), 'points')).toBe('24 pts')
    expect(planLabel(plan({ ...prospect, target: exactly(0.3) }), 'target')).toBe('30 %, 24 pts')
    expect(planLabel(plan(null), 'win')).toBe('50 %')
  })

  it('tell the frame: ball on, what is left, what is needed', () => {
    const frame = {
      on: 'red',
      onBalls: [],
      mayFollow: [],
      first: 20,
      second: 32,
      turn: 0,
      break: 0,
      freeBall: false,
      repeats: false,
      reds: 5,
      pointsLeft: 67,
      ahead: -12,
      toWin: 40,
      snookersRequired: 0,
      highestBreak: 67,
      isOver: false,
      winner: -1,
      misses: 0,
      mayAskAgain: false,
      mayPutBack: false,
      isRespotted: false,
      awaitsLot: false,
      exercise: null,
    }
    expect(frameWords(frame)).toBe('A red is on, 67 left, 12 behind, 40 to win, highest break 67.')
    expect(frameWords({ ...frame, on: 'pink', pointsLeft: 13, ahead: -20, snookersRequired: 2 })).toContain('2 snookers needed')
    expect(frameWords({ ...frame, toWin: 0, ahead: 70 })).toContain('won but for penalties')
    expect(frameWords({ ...frame, on: 'black', repeats: true, break: 21 })).toBe('The black is on, again and again; break 21.')
    expect(frameWords({ ...frame, isOver: true })).toBe('The frame is over.')
    const exercise = { ...frame, on: 'exercise', exercise: 'any' as const, onBalls: ['blue', 'black'], pointsLeft: 12 }
    expect(frameWords(exercise)).toBe('An exercise: the blue and the black are on; 12 left.')
    expect(frameWords({ ...exercise, isOver: true })).toBe('The exercise is done.')
  })

  it('count a planned stroke as its kinds', () => {
    const shot = (kind: Schemas['StrokeKind'], more: Partial<Choice> = {}) =>
      ({ arrival: { kind }, choice: choice(more) }) as unknown as PlanShot
    expect(tagsOf(shot('stunScrew'))).toEqual(['screw', 'cannon'])
    expect(tagsOf(shot('stun', { balls: [], reach: { stance: 'rest' } as never, stroke: { side: -0.5, pot: null } }))).toEqual([
      'stun',
      'side',
      'rest',
    ])
    expect(kindOf('red-12')).toBe('red')
    expect(kindOf('blue')).toBe('blue')
  })

  it('say how a plan mostly ends', () => {
    const plan = (prospect: object) =>
      ({ shots: [{ choice: { nominated: 'red-3' } }, { choice: { nominated: 'black' } }], prospect }) as never
    expect(endWords(plan({ cleared: exactly(0.62), endsAt: 0, endsShare: exactly(0.1) }))).toBe('clears 62 % of the time')
    expect(endWords(plan({ cleared: exactly(0.1), endsAt: 1, endsShare: exactly(0.24) }))).toBe(
      'ends most often at shot 2, the black (24 %)',
    )
    expect(endWords(plan({ cleared: exactly(0.1), endsAt: 2, endsShare: exactly(0.3) }))).toBe('ends most often at shot 3 (30 %)')
  })
})
