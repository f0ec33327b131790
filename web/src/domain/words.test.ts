// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { Cut, ShotEvent, Simulation, Way } from '../api/client'
import { allowanceWords, arrivalWords, cushionName, eventWords, faultWords, kindWords, outcomeOf, outcomeWords, rankWords, reachWords, sensitivityWords, shiftWords, strokeWords, tipWords, warningWords, wayWords, whyNotWords } from './words'

const cut = (change: Partial<Cut>): Cut => ({
  kind: 'direct', ball: 'red-1', struck: 'red-1', pocket: 'green-top', off: null, fault: 'none', ghostX: 0, ghostY: 0, legs: [], potDegrees: 0, aimDegrees: 0,
  cutDegrees: 20, fullness: 0.66, fullnessWord: 'threeQuarter', aimOffset: 0.018, openingDegrees: 1, cueBallDistance: 1, potDistance: 1, allowanceDegrees: 0, ...change,
})
const event = (change: Partial<ShotEvent>): ShotEvent => ({ time: 0, kind: 'ball', ball: 'white', other: 'red-3', x: 1, y: 1, pocket: null, ...change })

describe('the words of the trade', () => {
  it('say where the tip goes', () => {
    expect(tipWords(0, 0)).toBe('centre ball')
    expect(tipWords(0.1, -0.5)).toBe('half a tip below, a touch of right')
    expect(tipWords(-1, 0)).toBe('one tip of left')
    expect(tipWords(0.25, 1.5)).toBe('one and a half tips above, a quarter of a tip of right')
  })

  it('say the whole stroke in a line', () => {
    expect(strokeWords({ aim: 0, side: 0.1, height: -0.5, pace: 4, elevation: 0, pot: null, free: false })).toBe('half a tip below, a touch of right, pace 4')
    expect(strokeWords({ aim: 0, side: 0, height: 0, pace: 4.5, elevation: 12, pot: null, free: false })).toBe('centre ball, pace 4.5, butt raised 12°')
  })

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

  it('name what happens and where', () => {
    expect(eventWords(event({}))).toBe('white meets red 3')
    expect(eventWords(event({ kind: 'pot', ball: 'white', other: null, pocket: 'yellow-middle' }))).toBe('in-off: white in the middle yellow-side pocket')
    expect(eventWords(event({ kind: 'cushion', other: null, x: 3.54 }))).toBe('white off the top cushion')
    expect([cushionName(0.02, 1), cushionName(2, 0.02), cushionName(2, 1.75)]).toEqual(['baulk', "yellow's side", "green's side"])
  })

  it('say how the white arrives', () => {
    const arrival = { speed: 1.5, follow: 0.4, sideSpin: 0, squirtDegrees: 0, swerveDegrees: 0, throwDegrees: 0 }
    expect(arrivalWords(arrival)).toBe('follow 40 %, 1.50 m/s')
    expect(arrivalWords({ ...arrival, follow: 0.01 })).toContain('stun')
    expect(arrivalWords({ ...arrival, follow: -0.8 })).toContain('screw 80 %')
    expect(arrivalWords({ ...arrival, follow: 1 })).toContain('rolling')
  })

  it('warn', () => {
    expect(warningWords({ kind: 'closePass', ball: 'red-4', amount: 0.0034, pocket: null })).toBe('passes the red 4 by 3.4 mm')
    expect(warningWords({ kind: 'raisedButt', ball: null, amount: 12, pocket: null })).toContain('12°')
    expect(warningWords({ kind: 'kiss', ball: 'blue', amount: 0, pocket: null })).toBe('kiss on the blue')
    expect(warningWords({ kind: 'snookered', ball: 'red-2', amount: 0, pocket: null })).toContain('on the reds')
    expect(warningWords({ kind: 'hop', ball: null, amount: 0.006, pocket: null })).toContain('6.0 mm')
    expect(warningWords({ kind: 'closeJaw', ball: null, amount: 0.003, pocket: 'green-top' })).toContain('top green-side pocket by 3.0 mm')
  })

  it('say what blocks a ball', () => {
    const option = { cut: cut({}), pace: 5, aimDegrees: null, toleranceDegrees: 0, toleranceMillimetres: 0, chance: 0, cueBallClearance: 0, potClearance: 0, obstacles: [{ ball: 'brown', ofCueBall: true }],
      reach: { stance: 'natural' as const, elevationDegrees: 0, over: null, bridgeOver: null, errorFactor: 1 },
    }
    expect(whyNotWords(option)).toBe('not on: brown in the way of the white (top green-side pocket)')
    expect(whyNotWords({ ...option, obstacles: [], cut: cut({ fault: 'offJaw' }) })).toContain('far jaw')
    expect(whyNotWords({ ...option, obstacles: [] })).toContain('does not get there')
  })

  it('say what comes of a shot', () => {
    const simulation: Simulation = {
      finals: [{ id: 'white', x: 1.2, y: 0.4, pocket: null }, { id: 'red-3', x: 3.5, y: 1.7, pocket: 'green-top' }],
      events: [event({}), event({ kind: 'cushion', other: null })],
      paths: [], duration: 5,
    }
    expect(outcomeWords(simulation)).toBe('red 3 in the top green-side pocket; white stops 1200 mm up, 400 across, off 1 cushion.')
    simulation.finals[1].pocket = null
    expect(outcomeWords(simulation)).toContain('nothing potted; red 3 hit first')
  })

  it('say what a plant, a set and a double are', () => {
    expect(kindWords(cut({}))).toBe('')
    expect(kindWords(cut({ kind: 'plant', struck: 'red-2' }))).toBe('plant off red 2')
    expect(kindWords(cut({ kind: 'double', off: 'yellow-side' }))).toBe("double, yellow's side cushion")
  })

  it('say how the white is reached', () => {
    const reach = { stance: 'natural' as const, elevationDegrees: 0, over: null, bridgeOver: null, errorFactor: 1 }
    expect(reachWords(reach)).toBe('natural stance')
    expect(reachWords({ ...reach, stance: 'rest', elevationDegrees: 12.5, over: 'pink', bridgeOver: 'pink' })).toBe('only with the rest; bridging over the pink; butt up to 13° to clear the pink')
    expect(reachWords({ ...reach, elevationDegrees: 20 })).toContain('clear the rail')
    expect(reachWords({ ...reach, errorFactor: 1.4 })).toBe('natural stance; your errors 1.4 times as large')
  })

  const outcome = (change: object) => ({ x: 2, y: 1, inOff: false, isMet: true, nextBall: 'pink', nextPocket: 'green-middle', nextChance: 0.8, ...change })
  const way = (change: object): Way => ({
    stroke: { side: 0.5, height: -1, pace: 4, pot: { ball: 'red-1', pocket: 'green-top', part: 0 } },
    arrival: { speed: 1, follow: -0.6, sideSpin: 0, squirtDegrees: 0, swerveDegrees: 0, throwDegrees: 0 },
    cushions: ['green-side'], balls: [], along: 'black', reach: { stance: 'natural', elevationDegrees: 0, over: null, bridgeOver: null, errorFactor: 1 },
    pot: 0.9, both: 0.6, inOff: 0, kiss: 0, samples: 2000, isMet: true, off: 0, exact: outcome({}), long: outcome({ x: 2.1 }), short: outcome({ x: 1.9 }),
    sensitivity: { direction: 0.01, pace: 0.138, height: 0.1, side: 0.02 }, points: [], mirror: [], ...change,
  })

  it('say a way in a line', () => {
    expect(wayWords(way({}))).toBe("screw, one tip below, half a tip of right, pace 4, off the green's side cushion, comes along the line of the black")
    expect(wayWords(way({ cushions: [], along: null, arrival: { ...way({}).arrival, follow: 0 } }))).toBe('stun, one tip below, half a tip of right, pace 4, no cushion')
    expect(wayWords(way({ cushions: ['top', 'green-side'], balls: ['red-3', 'red-3'], along: null }))).toContain("off the top and green's side cushions, on to the red 3")
    expect(wayWords(way({ stroke: { ...way({}).stroke, pot: { ball: 'red-1', pocket: 'green-top', part: -1 } } }))).toContain('thick side of the pocket')
  })

  it('say why a way ranks where it does', () => {
    const best = way({})
    expect(rankWords(best, best)).toBe('ranks first: pot 90 %, and then position 67 %')
    expect(rankWords(way({ pot: 0.7, both: 0.3 }), best)).toBe('ranks lower: the pot is 20 points harder, position is 24 points less sure')
    expect(rankWords(way({ inOff: 0.1 }), best)).toContain('in-off 10 %')
    expect(sensitivityWords(best)).toContain('pace tells most: your usual error moves the white 138 mm')
    expect(outcomeOf(best.long, best.exact)).toBe('100 mm off, still good, the pink on at 80 %')
    expect(outcomeOf(outcome({ inOff: true }), best.exact)).toBe('in-off')
    expect(outcomeOf(outcome({ isMet: false, nextBall: null, nextChance: null }), best.exact)).toContain('missed, no easy pot seen')
  })
})
