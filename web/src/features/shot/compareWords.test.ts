import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { byWords, differenceWords, errorWords, nextWords, nudgeWords } from './compareWords'

const figure = (value: number, error = 0) => ({ value, error, strokes: 100 })
const next = { worth: 0, ball: 'pink', pocket: 'green-top', chance: 0.7, isSnookered: false } as Schemas['LeaveResult']
const column = (change: Partial<Schemas['CompareColumnResult']>) =>
  ({ staysIn: true, stop: { x: 2, y: 1 }, next, nudges: [], ...change }) as Schemas['CompareColumnResult']
const difference = (change: Partial<Schemas['CompareDifferenceResult']>): Schemas['CompareDifferenceResult'] => ({
  better: 'choice-2',
  other: 'choice-1',
  by: figure(0.04, 0.01),
  isLevel: false,
  byChance: 0.03,
  byPosition: 0.01,
  byLeave: 0,
  ...change,
})
const name = (id: string) => (id === 'advice' ? 'Advice' : String.fromCharCode(64 + Number(id.slice(-1))))

describe('a comparison in words', () => {
  it('says which is better, by how much, and the reasons in the order of their weight', () => {
    expect(differenceWords(difference({}), name, 'win')).toBe(
      'B is better than A by 4.0 ± 1.0 % of frames: it scores more often, and it leaves a better position.',
    )
    expect(differenceWords(difference({ byChance: 0.06, byPosition: -0.02 }), name, 'win')).toBe(
      'B is better than A by 4.0 ± 1.0 % of frames: it scores more often, though its position is worse.',
    )
    expect(byWords(figure(3.4, 0.6), 'points')).toBe('3.4 ± 0.6 points')
  })

  it('says level where two cannot be told apart', () => {
    expect(differenceWords(difference({ isLevel: true, by: figure(0.002, 0.004) }), name, 'win')).toBe(
      'B and A are level (0.2 ± 0.4 % of frames).',
    )
  })

  it('says what is on next, and for whom', () => {
    expect(nextWords(column({}))).toBe('pink, 70 %')
    expect(nextWords(column({ staysIn: false }))).toBe('leaves pink, 70 %')
    expect(nextWords(column({ staysIn: false, next: { ...next, isSnookered: true } }))).toBe('a snooker')
    expect(nextWords(column({ stop: null }))).toBe('the white goes in')
    expect(errorWords(null)).toBe('–')
    expect(errorWords({ x: 1, y: 1, scores: true, ball: 'blue', pocket: 'green-middle', chance: 0.5 })).toBe('blue, 50 %')
  })

  it('tells the worse of two small mistakes and how far the white moves', () => {
    const nudges = [
      { nudge: 'harder', scores: true, white: { x: 2.1, y: 1 }, change: figure(-0.03) },
      { nudge: 'softer', scores: true, white: { x: 1.84, y: 1 }, change: figure(-0.01) },
      { nudge: 'higher', scores: true, white: { x: 2.02, y: 1 }, change: figure(0.001) },
    ] as Schemas['NudgeResult'][]
    expect(nudgeWords(column({ nudges }), 'pace', 'win')).toBe('−3 %, white 160 mm')
    expect(nudgeWords(column({ nudges }), 'height', 'win')).toBe('hardly minds, white 20 mm')
    expect(nudgeWords(column({ nudges }), 'side', 'win')).toBe('…')
  })
})
