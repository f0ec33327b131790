import { describe, expect, it } from 'vitest'
import { curveWords, partNames, pictureWords } from './words'

describe('what a skill means', () => {
  const stroke = (isPotted: boolean, isMiscue = false) => ({ isPotted, isMiscue, ball: [], white: null })

  it('counts what goes in, and miscues only where there are any', () => {
    expect(pictureWords([stroke(true), stroke(false), stroke(true)])).toBe('2 of 3 go in')
    expect(pictureWords([stroke(true), stroke(false, true)])).toBe('1 of 2 go in, 1 miscue')
    expect(pictureWords([stroke(false, true), stroke(false, true)])).toBe('0 of 2 go in, 2 miscues')
  })

  it('says every scale with its unit', () => {
    expect(curveWords.distance.at(1.8)).toBe('1.8 m')
    expect(curveWords.side.at(-0.8)).toBe('0.8 tips wrong')
    expect(curveWords.cut.at(45)).toBe('45°')
    for (const words of Object.values(curveWords)) expect(words.scale).not.toBe('')
    for (const part of Object.values(partNames)) expect(part.hint).not.toBe('')
  })
})
