import { describe, expect, it } from 'vitest'
import type { Cut, ShotEvent, Simulation } from '../api/client'
import { allowanceWords, arrivalWords, cushionName, eventWords, faultWords, outcomeWords, strokeWords, tipWords, warningWords, whyNotWords } from './words'

const cut = (change: Partial<Cut>): Cut => ({
  ball: 'red-1', pocket: 'green-top', fault: 'none', ghostX: 0, ghostY: 0, targetX: 0, targetY: 0, potDegrees: 0, aimDegrees: 0,
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
    expect(allowanceWords(cut({ cutDegrees: 20, allowanceDegrees: -0.5 }))).toBe('0.50° thinner')
    expect(allowanceWords(cut({ cutDegrees: -20, allowanceDegrees: -0.5 }))).toBe('0.50° thicker')
    expect(allowanceWords(cut({ cutDegrees: 0, allowanceDegrees: 0.2 }))).toBe('0.20° left')
    expect(allowanceWords(cut({ allowanceDegrees: null }))).toBe('–')
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
    expect(warningWords({ kind: 'closePass', ball: 'red-4', amount: 0.0034 })).toBe('passes the red 4 by 3.4 mm')
    expect(warningWords({ kind: 'raisedButt', ball: null, amount: 12 })).toContain('12°')
    expect(warningWords({ kind: 'kiss', ball: 'blue', amount: 0 })).toBe('kiss on the blue')
  })

  it('say what blocks a ball', () => {
    const option = { cut: cut({}), pace: 5, aimDegrees: null, toleranceDegrees: 0, toleranceMillimetres: 0, chance: 0, cueBallClearance: 0, potClearance: 0, obstacles: [{ ball: 'brown', ofCueBall: true }] }
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
})
