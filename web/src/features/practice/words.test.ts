import { describe, expect, it } from 'vitest'
import type { Step } from './routines'
import { paceScale } from '../../lib/formats'
import { amountWords, levelWords, putBackWords, ruleWords, strokeWords, variantWords, windowWords } from './words'

const table = {
  length: 3.569,
  width: 1.778,
  ballRadius: 0.02625,
  spots: [
    { ball: 'black', x: 3.245, y: 0.889 },
    { ball: 'blue', x: 1.7845, y: 0.889 },
  ],
}

describe('words at the table', () => {
  it('puts a ball back from the nearer cushions and the nearest spot', () => {
    expect(putBackWords({ id: 'red-1', x: 3.069, y: 0.389 }, table)).toBe(
      '500 mm from the top cushion, 389 mm from the yellow’s side; 530 mm from the black’s spot',
    )
    expect(putBackWords({ id: 'blue', x: 1.7845, y: 0.889 }, table)).toBe('on the blue’s spot')
  })

  it('says a rule in the order in which it is asked', () => {
    const step = {
      stroke: { pot: { ball: 'red-1', pocket: 'green-top' } },
      demands: [
        { kind: 'pot' },
        { kind: 'whiteIn', area: { x: 1, y: 1, radius: 0.1 } },
        { kind: 'runsInto' },
        { kind: 'score', points: 50 },
      ],
    } as unknown as Step
    expect(ruleWords(step)).toBe(
      'pot red 1 into the top green-side pocket; the white stops in the circle; then run into another ball; make 50 or more',
    )
  })

  it('tells a stroke, on the player’s own scale of paces too', () => {
    const stroke = { aim: 0, side: 0, height: -0.45, pace: 4.4, free: false }
    expect(strokeWords(stroke)).toBe('0.45 tip below and pace 4.4')
    paceScale.value = [{ own: 5, standard: 4.4 }]
    expect(strokeWords(stroke)).toBe('0.45 tip below and pace 5 (standard 4.4)')
    paceScale.value = []
    expect(strokeWords({ ...stroke, height: 0, side: 0.5 })).toBe('centre ball, 0.5 tip of right and pace 4.4')
  })

  it('tells windows, amounts and what was made easier', () => {
    expect(windowWords('height', -0.11, 0.38)).toBe('0.11 below to 0.38 above, tips')
    expect(windowWords('pace', 2.77, 3.19)).toBe('pace 2.8 to 3.2')
    expect(amountWords({ steps: 3, attempts: 10, bothSides: true })).toBe('10 at each of 3, both sides')
    const done = { value: 0.7, error: 0.02, strokes: 256 }
    expect(levelWords({ done }, { ...done, value: 0.4 })).toBe('easier')
    expect(levelWords({ done }, { ...done, value: 0.9 })).toBe('harder')
    expect(variantWords({ step: {} as never, nearer: 0.3, straighter: 8, wider: 1.4, done })).toBe(
      '300 mm nearer, 8° straighter and areas 1.40 times as wide',
    )
  })
})
