// @vitest-environment node
import { exactly } from '../../lib/estimates'
import { describe, expect, it } from 'vitest'
import { cut } from '../../domain/cut.fixture'
import type { Schemas, Way } from '../../api/client'
import {
  allowanceWords,
  chancesWords,
  cutWords,
  faultWords,
  intoWords,
  outcomeOf,
  rankWords,
  sensitivityWords,
  seenWords,
  shiftWords,
  sidesWords,
  spinWords,
  wayWords,
} from './words'

describe('the words of the desk', () => {
  it('say which way the allowance goes: thinner is away from the ball', () => {
    const net = (metres: number) => ({ squirt: 0, swerve: 0, throw: 0, net: metres })
    expect(allowanceWords(cut({ allowanceDegrees: -0.1 }), net(0.0012))).toBe('aim 1.2 mm thinner')
    expect(allowanceWords(cut({ allowanceDegrees: 0.1 }), net(-0.003))).toBe('aim 3.0 mm thicker')
    expect(allowanceWords(cut({ cutDegrees: 0, allowanceDegrees: 0.2 }), net(0.002))).toBe('aim 2.0 mm left')
    expect(allowanceWords(cut({}), net(0.00001))).toContain('none')
    expect(allowanceWords(cut({ allowanceDegrees: null }), net(0))).toBe('–')
    expect(allowanceWords(cut({}), null)).toBe('–')
    expect([shiftWords(-0.0031), shiftWords(0.00001), shiftWords(-0.00001)]).toEqual(['−3.1 mm', '0.0 mm', '0.0 mm'])
  })

  it('say why a pot is not on', () => {
    expect(faultWords(cut({}))).toBe('')
    expect(faultWords(cut({ fault: 'tooThin', cutDegrees: -95 }))).toContain('95°')
    expect(faultWords(cut({ allowanceDegrees: null }))).toContain('more pace')
  })

  it('say the cut, and what the samples come to', () => {
    expect([cutWords({ cutDegrees: 20.04 }), cutWords({ cutDegrees: -3 }), cutWords({ cutDegrees: 0.2 })]).toEqual([
      '20.0° to the left',
      '3.0° to the right',
      '0.2° straight',
    ])
    const sampled = {
      pot: exactly(0.8),
      missThick: exactly(0.15),
      missThin: exactly(0.05),
      inOff: exactly(0.01),
      kiss: exactly(0.02),
      miscue: exactly(0.004),
      wanted: null,
      both: null,
    } as never
    expect(chancesWords(sampled)).toBe('missed thick 15 %, thin 5 %; in-off 1 %, kiss 2 %, miscue 0.4 %')
  })

  const outcome = (change: object) => ({
    x: 2,
    y: 1,
    inOff: false,
    isMet: true,
    nextBall: 'pink',
    nextPocket: 'green-middle',
    nextChance: exactly(0.8),
    ...change,
  })
  const way = (change: object): Way => ({
    id: 'a',
    stroke: { side: 0.5, height: -1, pace: 4, pot: { ball: 'red-1', pocket: 'green-top', part: 0 } },
    arrival: { speed: 1, follow: -0.6, sideSpin: 0, squirtDegrees: 0, swerveDegrees: 0, throwDegrees: 0, kind: 'screw' },
    cushions: ['green-side'],
    balls: [],
    along: 'black',
    reach: { stance: 'natural', elevationDegrees: 0, over: null, bridgeOver: null, errorFactor: 1 },
    opens: null,
    pot: exactly(0.9),
    both: exactly(0.6),
    inOff: exactly(0),
    kiss: exactly(0),
    miscue: exactly(0),
    isLevel: false,
    isMet: true,
    off: 0,
    exact: outcome({}),
    long: outcome({ x: 2.1 }),
    short: outcome({ x: 1.9 }),
    sensitivity: { direction: 0.01, pace: 0.138, height: 0.1, side: 0.02 },
    points: [],
    mirror: [],
    into: null,
    ...change,
  })

  it('say a way in a line', () => {
    expect(wayWords(way({}))).toBe(
      'screw, one tip below, half a tip of right, pace 4, off the green’s side cushion, comes along the line of the black',
    )
    expect(wayWords(way({ cushions: [], along: null, arrival: { ...way({}).arrival, follow: 0, kind: 'stun' } }))).toBe(
      'stun, one tip below, half a tip of right, pace 4, no cushion',
    )
    expect(wayWords(way({ cushions: ['top', 'green-side'], balls: ['red-3', 'red-3'], along: null }))).toContain(
      'off the top and green’s side cushions, on to red 3',
    )
    expect(wayWords(way({ stroke: { ...way({}).stroke, pot: { ball: 'red-1', pocket: 'green-top', part: -1 } } }))).toContain(
      'thick side of the pocket',
    )
  })

  it('say why a way ranks where it does', () => {
    const best = way({})
    expect(rankWords(best, best)).toBe('ranks first: pot 90 %, and then position 67 %')
    expect(rankWords(way({ pot: exactly(0.7), both: exactly(0.3) }), best)).toBe(
      'ranks lower: the pot is 20 points harder, position is 24 points less sure',
    )
    expect(rankWords(way({ inOff: exactly(0.1) }), best)).toContain('in-off 10 %')
    // Nearly as likely and simpler stands first.
    const sided = way({ both: exactly(0.69), stroke: { side: 0.75, pace: 5.4 } as never })
    expect(rankWords(sided, { ...best, stroke: { side: 0, pace: 4.5 } })).toBe(
      '9 points likelier, but with side and more pace: the first is the simpler stroke',
    )
    expect(sensitivityWords(best)).toContain('pace matters most: your usual error moves the white 138 mm')
    expect(outcomeOf(best.long, best.exact)).toBe('100 mm off, still good, the pink on at 80 %')
    expect(outcomeOf(outcome({ inOff: true }), best.exact)).toBe('in-off')
    expect(outcomeOf(outcome({ isMet: false, nextBall: null, nextChance: null }), best.exact)).toContain('missed, no easy pot seen')
  })

  it('tell what side does to throw by the figures', () => {
    const side = (sideTips: number, isHelping: boolean, throwDegrees: number) =>
      ({ sideTips, isHelping, arrival: { throwDegrees } }) as unknown as Schemas['SideChoiceResult']
    expect(sidesWords([side(0, false, 0.84), side(0.25, true, 0.12), side(-0.25, false, 1.6)])).toBe(
      'Helping side takes throw from 0.8° to 0.1°; the other side raises throw from 0.8° to 1.6°.',
    )
    // So much side that it throws the other way, and more than without.
    expect(sidesWords([side(0, false, 0.3), side(0.25, true, -0.9)])).toBe('Helping side raises throw from 0.3° to 0.9°.')
    expect(sidesWords([side(0, false, 0.5), side(0.25, true, 0.52)])).toBe('Helping side leaves throw as it is.')
    expect(sidesWords([])).toBe('')
  })
})

describe('what is seen and what spins', () => {
  it('is told in parts of the ball, and edge to edge when thinner than half', () => {
    expect(seenWords({ fullness: 0.76, potsAs: 0.59, offset: 0.0126, edgeInside: 0.04 })).toBe('aim at 0.76 of the ball; it pots as 0.59')
    expect(seenWords({ fullness: 0.11, potsAs: 0.15, offset: 0.0465, edgeInside: 0.006 })).toBe(
      'aim at 0.11 of the ball, the white’s edge 6 mm inside the ball’s; it pots as 0.15',
    )
    expect(seenWords({ fullness: -0.04, potsAs: 0.05, offset: 0.0546, edgeInside: -0.002 })).toContain('aim past the ball')
  })
  it('names the spin that is left at a stage', () => {
    expect(spinWords({ stage: 'contact', follow: -0.4, side: 0.85 })).toBe(
      'At the contact: screw, 40 % of a rolling ball’s spin; 85 % of its side left',
    )
    expect(spinWords({ stage: 'underWay', follow: 0, side: 0 })).toBe('Half-way there: stun')
  })
})

describe('a ball that is run into', () => {
  it('is told by fullness, speed, what moves and whether the white stays', () => {
    const into = {
      ball: 'pink',
      fullness: 0.5,
      fullnessWord: 'half' as const,
      speed: 0.84,
      moved: ['pink', 'red-2'],
      stays: true,
      sticks: null,
      freed: [],
    }
    expect(intoWords(into)).toBe('half-ball on the pink at 0.8 m/s, moves pink and red 2; the white stays there')
    expect(intoWords({ ...into, moved: ['pink', 'red-1', 'red-2', 'red-3', 'red-4'], stays: false })).toContain('and 2 more')
    const freed = [{ ball: 'red-2', pockets: ['green-top', 'green-middle'] }]
    expect(intoWords({ ...into, sticks: { value: 0.62, error: 0.03, strokes: 256 }, freed })).toBe(
      'half-ball on the pink at 0.8 m/s, moves pink and red 2, frees red 2 for the top green-side and middle green-side pockets; the white stays there 62 %',
    )
  })
})
