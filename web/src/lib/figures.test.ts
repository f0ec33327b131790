import { describe, expect, it } from 'vitest'
import { readFigure } from './figures'

describe('a figure that was typed', () => {
  it.each([
    ['2630', 'en', 2630],
    ['2.630', 'de', 2630],
    ['2.630', 'en', 2.63],
    ['2,630', 'en', 2630],
    ['2,630', 'de', 2.63],
    ['1.234.567', 'de', 1234567],
    ['1,234,567.5', 'en', 1234567.5],
    ['1.234.567,5', 'de', 1234567.5],
    ['1,5', 'en', 1.5],
    ['1,5', 'de', 1.5],
    ['1.5', 'de', 1.5],
    ['0.185', 'de', 0.185],
    ['.5', 'en', 0.5],
    ['5.', 'en', 5],
    ["2'630", 'de-CH', 2630],
    ['2 630', 'fr', 2630],
    ['-3', 'en', -3],
    ['−3,5', 'de', -3.5],
  ])('%s in %s is %d', (typed, locale, value) => {
    expect(readFigure(typed, { locale })).toBeCloseTo(value, 9)
  })

  it('is what the field shows, where that has three digits after the point', () => {
    expect(readFigure('1.250', { locale: 'de', digits: 3 })).toBe(1.25)
    expect(readFigure('1.250', { locale: 'de', digits: 1 })).toBe(1250)
  })

  it('may have a unit of its own', () => {
    expect(readFigure('1,5 m', { locale: 'de', unit: 'mm' })).toBeCloseTo(1500, 9)
    expect(readFigure('150cm', { unit: 'mm' })).toBeCloseTo(1500, 9)
    expect(readFigure('12"', { unit: 'in' })).toBeCloseTo(12, 9)
    expect(readFigure('1 ft', { unit: 'in' })).toBeCloseTo(12, 9)
    expect(readFigure('25.4 mm', { unit: 'in' })).toBeCloseTo(1, 9)
    expect(readFigure('12°', { unit: '°' })).toBe(12)
  })

  it.each(['', 'a', '1 kg', '1 2 m 3', '--4', '1e400', 'NaN', '5 m'])('"%s" is none in a field without such a unit', (typed) => {
    expect(readFigure(typed, { unit: '°' })).toBeNull()
  })
})
