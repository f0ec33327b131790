import { describe, expect, it } from 'vitest'
import { rangeWords } from './windowWords'

const range = (from: number, to: number, isToLeast = false, isToMost = false) => ({ from, to, isToLeast, isToMost })

describe('the range of a knob in words', () => {
  it('names both ends, one of them, or neither', () => {
    expect(rangeWords('pace', range(3.84, 5.06), 4)).toBe('3.8 to 5.1')
    expect(rangeWords('pace', range(1, 5.06, true), 4)).toBe('up to 5.1')
    expect(rangeWords('pace', range(3.84, 10, false, true), 4)).toBe('from 3.8')
    expect(rangeWords('height', range(-0.45, 0.1), 0)).toBe('−0.45 to 0.10 tips')
    expect(rangeWords('side', range(-1.5, 1.5, true, true), 0)).toBe('any within 0.6 of a tip')
  })

  it('tells how far the aim may be off to either side', () => {
    expect(rangeWords('aim', range(40.1, 40.5), 40.2)).toBe('0.30° left, 0.10° right')
  })
})
