// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { breakWords, needWords, onWords, shotWords } from './words'

const names = ['Tilda', 'Orrin']
const state = (change: object) =>
  ({
    awaitsLot: false,
    isOver: false,
    winner: -1,
    turn: 0,
    on: 'red',
    freeBall: false,
    inHand: false,
    break: 8,
    isWarned: false,
    ahead: 8,
    pointsLeft: 67,
    toWin: 30,
    snookersRequired: 0,
    ...change,
  }) as never

describe('a frame in words', () => {
  it('says who is at the table and what is on', () => {
    expect(onWords(state({}), names)).toBe('Tilda at the table, a red on; break 8')
    expect(onWords(state({ on: 'blue', turn: 1, freeBall: true, inHand: true }), names)).toBe(
      'Orrin at the table, the blue on or a free ball, from the D; break 8',
    )
    expect(onWords(state({ isOver: true, winner: 1 }), names)).toBe('Orrin wins the frame.')
    expect(onWords(state({ isWarned: true }), names)).toContain('a third miss')
  })

  it('says what is left and needed', () => {
    expect(needWords(state({}))).toBe('67 left, 8 ahead; 30 to win')
    expect(needWords(state({ ahead: -40, snookersRequired: 1 }))).toBe('67 left, 40 behind; needs 1 snooker')
    expect(needWords(state({ toWin: 0 }))).toContain('the other player needs penalties')
  })

  it('lists a shot with what was noted of it', () => {
    const shot = { shot: { kind: 'foul', inOff: true, missCalled: true, why: 'tooHard' }, player: 0, on: 'red', penalty: 4 } as never
    expect(shotWords(shot, names)).toBe('foul, 4 away, in-off, and a miss, too hard')
    const free = { shot: { kind: 'pot', potted: ['blue'], tags: ['screw'] }, player: 0, on: 'red', penalty: 0 } as never
    expect(shotWords(free, names)).toBe('blue, free ball, screw')
  })

  it('says what ended a break', () => {
    expect(breakWords({ player: 1, points: 8, pots: 2, end: { kind: 'miss', why: 'thin' }, endOn: 'red' } as never, names)).toBe(
      'Orrin, 2 pots; ended by a miss on a red, thin',
    )
    expect(breakWords({ player: 0, points: 1, pots: 1, end: null, endOn: null }, names)).toBe('Tilda, 1 pot')
  })
})
