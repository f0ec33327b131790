import { describe, expect, it } from 'vitest'
import type { Preferences } from './plans'
import { wishesOf } from './wishes'
import { cannonWords, keepsWords, knobWords, missWords, redsWords } from './words'

const plain: Preferences = {
  target: 'frame',
  score: 50,
  risk: 'balanced',
  plainOnly: false,
  avoidCannons: false,
  next: null,
  later: [],
  keepOff: [],
  noCushion: false,
  softOnly: false,
  followFirst: false,
}
const figure = (value: number) => ({ value, error: 0, strokes: 96 })
const count = (all: number, open = all) => ({ all, open })

describe('wishes', () => {
  it('are listed by name, and each takes back itself alone', () => {
    expect(wishesOf(plain)).toEqual([])
    const wished: Preferences = { ...plain, next: 'pink', later: ['red-1', 'red-2'], keepOff: ['blue'], noCushion: true }
    const list = wishesOf(wished)
    expect(list.map((w) => w.words)).toEqual(['next: pink', 'later: red 1', 'later: red 2', 'keep off blue', 'no cushion'])
    list[1].without(wished)
    expect(wished).toMatchObject({ next: 'pink', later: ['red-2'], keepOff: ['blue'], noCushion: true })
    list[0].without(wished)
    list[4].without(wished)
    expect(wishesOf(wished).map((w) => w.words)).toEqual(['later: red 2', 'keep off blue'])
  })
})

describe('what small errors do, in words', () => {
  it('counts reds by part of the table, and says which are open', () => {
    const before = { black: count(4), pink: count(3, 1), middle: count(0), baulk: count(1) }
    expect(redsWords(before)).toBe('4 by the black, 3 by the pink (1 open) and 1 in baulk')
    expect(keepsWords(before, { ...before, black: count(3) })).toContain('Keeps 3 by the black')
  })

  it('tells the likeliest miss, the knob and the cannon', () => {
    const miss = { isThick: true, share: figure(0.09), cost: figure(0.14), leavesPot: figure(0.6) }
    expect(missWords(miss, 'win')).toBe('Missed thick most often (9 %), which costs 14 % and leaves a pot 60 % of the time')
    expect(knobWords({ knob: 'pace', loss: 0.02, down: 0.3, up: 0.5, error: 0.2 })).toBe(
      'Most sensitive to the pace: holds from 0.3 steps softer to 0.5 steps harder; your usual error is 0.2 steps',
    )
    expect(knobWords({ knob: 'line', loss: 0, down: 0.12, up: 0.12, error: 0.04 })).toContain('Holds within three')
    expect(missWords({ ...miss, share: figure(0.004) }, 'win')).toBe('')
    expect(
      cannonWords({
        ball: 'red-4',
        fullness: 0.5,
        fullnessWord: 'half',
        speed: 0.84,
        moved: 2,
        freed: 1,
        hit: figure(0.9),
        sticks: figure(0.09),
        on: figure(0.71),
      }),
    ).toBe('Into red 4 half-ball at 0.8 m/s: moves 2 balls, frees 1; it is met 90 % of the time, a pot is on 71 %, the white sticks 9 %')
  })
})
