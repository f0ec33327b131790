import { describe, expect, it } from 'vitest'
import { becameWords, cameraStrokeWords, comparisonWords, phaseWords, tallyWords, timingWords, type Timing } from './words'

const timing = (more: Partial<Timing>): Timing => ({
  curve: [],
  contact: { value: 1.4, doubt: 0.0002 },
  speed: { value: 2.5, doubt: 0.01 },
  loss: 0.37,
  atContact: 'unknown',
  peakBefore: null,
  backswing: null,
  pause: null,
  delivery: null,
  followThrough: null,
  dips: 0,
  smoothness: null,
  filterWindow: 0.024,
  ...more,
})

describe('the words of a stroke’s timing', () => {
  it.each([
    [{ atContact: 'pastPeak', peakBefore: { value: 0.012, doubt: 0.001 } }, 'Past its peak 12 ms before contact, to within 2 ms: slowing'],
    [{ atContact: 'rising', peakBefore: { value: -0.008, doubt: 0.002 } }, 'Still rising, 8 ms short of its peak'],
    [{ atContact: 'rising' }, 'Still rising when the tip met the ball'],
    [{ atContact: 'atPeak', peakBefore: { value: 0, doubt: 0.003 } }, 'At its peak'],
    [{ atContact: 'unknown' }, 'do not tell'],
    [{ contact: null }, 'No contact is seen'],
  ] as [Partial<Timing>, string][])('say no more than the readings hold: %o', (more, words) => {
    expect(timingWords(timing(more))).toContain(words)
  })

  it('tell its parts', () => {
    const parts = phaseWords(timing({ backswing: { from: 0.3, to: 1, length: 0.26 }, pause: { from: 1, to: 1.25, length: 0 }, dips: 1 }))
    expect(parts).toEqual(['backswing 260 mm in 0.70 s', 'pause 0.25 s', '2.50 m/s at the ball', 'the speed falls back 1 time on the way'])
  })

  it('tell what scatters', () => {
    const figure = (name: string, scatters: boolean) => ({ name, scatters, values: [], mean: 0.2, spread: 0.1 })
    expect(comparisonWords([figure('pause', true), figure('contactSpeed', false)])).toBe('What scatters: pause. Alike: speed at the ball.')
  })
})

describe('the words of a camera', () => {
  const seen = { startedAt: 0, endedAt: 1, before: [], after: [], paths: [], direction: 0, speed: 1, doubts: [] }
  it('tell what it saw and what became of it', () => {
    const stroke = { ...seen, first: 'red-4', gone: [{ ball: 'red-4', pocket: 'green-top' }] }
    expect(cameraStrokeWords({ stroke })).toBe('Red first; a red into the top green-side pocket')
    const became = { kind: 'shot', in: null, id: null, number: 4, why: null }
    expect(becameWords({ became, isDropped: false, isCorrected: true })).toBe('shot 5 of the frame, put right')
    expect(becameWords({ became: { ...became, kind: 'none', why: 'otherLayout' }, isDropped: false, isCorrected: false })).toContain(
      'did not lie as the step has them',
    )
  })
  it('tell only what happened', () => {
    expect(tallyWords({ mistaken: 0, gaps: 1, pictures: 500 })).toEqual(['1 gap of more than two seconds'])
  })
})
