import { describe, expect, it } from 'vitest'
import { betterWords, shareWords, sinceWords, standardWords, streakWords, weekWords } from './words'

describe('what is told of attempts', () => {
  it('has its doubt', () => {
    expect(shareWords({ done: 14, of: 20, low: 0.481, high: 0.855 })).toBe('70 % (14 of 20; 95 % interval 48–86\u00a0%)')
    expect(shareWords({ done: 0, of: 0, low: 0, high: 1 })).toBe('nothing counted')
    expect(standardWords({ share: 0.584, low: 0.49, high: 0.671, covered: 0.8 })).toBe('58 % at the usual mix (95 % interval 49–67\u00a0%)')
  })

  it('says what the last week changed, and whether chance alone can do that', () => {
    const week = (from: string, done: number, low: number, high: number) => ({
      from,
      share: { done, of: 100, low, high },
      typicalScore: null,
      bestScore: null,
      standard: null,
    })
    const before = week('2026-11-16', 50, 0.4, 0.6)
    expect(sinceWords([before, week('2026-11-23', 56, 0.46, 0.65)])).toBe(
      'The week of 23 Nov: 56 % done, 6 points up on the week before, which could be chance.',
    )
    expect(sinceWords([before, week('2026-11-23', 75, 0.66, 0.82)])).toContain(
      '25 points up on the week before, more than chance explains.',
    )
    expect(sinceWords([before, week('2026-11-23', 20, 0.13, 0.29)])).toContain(
      '30 points down on the week before, more than chance explains.',
    )
    expect(sinceWords([before, week('2026-11-23', 50, 0.4, 0.6)])).toBe('The week of 23 Nov: 50 % done, as in the week before.')
    expect(sinceWords([before])).toBe('')
    const standard = { share: 0.6, low: 0.5, high: 0.7, covered: 1 }
    expect(
      sinceWords([
        { ...before, standard },
        { ...week('2026-11-23', 90, 0.8, 0.95), standard },
      ]),
    ).toContain('60 % done at the usual mix')
  })

  it('answers better than before with yes, no, or how many more it takes', () => {
    const change = { difference: 0.2, low: 0.05, high: 0.35, needed: 90, verdict: 'better' as const }
    expect(betterWords(change)).toMatch(/^Yes: .* 20 points better/)
    expect(betterWords({ ...change, difference: -0.2, low: -0.35, high: -0.05, verdict: 'worse' })).toMatch(/^No: .* 20 points worse/)
    expect(betterWords({ ...change, low: -0.1, verdict: 'notYet' })).toContain('about 90 attempts on each side')
    expect(betterWords({ ...change, difference: 0, low: -0.2, high: 0.2, needed: null, verdict: 'notYet' })).toContain('level so far')
  })

  it('tells a run from luck', () => {
    expect(streakWords(10, 0.82)).toContain('82 %')
    expect(streakWords(15, 0.01)).toContain('more than chance')
    expect(streakWords(1, 1)).toBe('')
    expect(weekWords('2026-11-23')).toBe('23 Nov')
  })
})
