import { afterEach, describe, expect, it } from 'vitest'
import { amountWords, errorsShown, exactly, shareWords, signedWords, strokesWords } from './estimates'

afterEach(() => (errorsShown.value = false))

describe('figures that know their error', () => {
  const share = { value: 0.874, error: 0.0081, strokes: 512 }
  const points = { value: -3.42, error: 0.21, strokes: 64 }

  it('are whole percent and points, and say their error on a click', () => {
    expect([shareWords(share), amountWords(points), signedWords(points), strokesWords(share)]).toEqual(['87 %', '−3.4', '−3.4', ''])
    errorsShown.value = true
    expect([shareWords(share), amountWords(points), strokesWords(share)]).toEqual(['87 % ± 0.8', '−3.4 ± 0.2', ' by 512 strokes'])
    expect(signedWords({ ...points, value: 2 })).toBe('+2.0 ± 0.2')
  })

  it('say none where there is none, and no share beyond all', () => {
    errorsShown.value = true
    expect(shareWords(exactly(0.5))).toBe('50 %')
    expect(shareWords({ ...share, value: 1.002 })).toBe('100 % ± 0.8')
  })
})
