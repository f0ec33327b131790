// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { cut } from '../../domain/cut.fixture'
import { exactly } from '../../lib/estimates'
import { qualityWords, whyNotWords } from './words'

describe('what is on, in words', () => {
  it('say what blocks a ball', () => {
    const option = {
      cut: cut({}),
      pace: 5,
      aimDegrees: null,
      toleranceDegrees: 0,
      toleranceMillimetres: 0,
      chance: exactly(0),
      cueBallClearance: 0,
      potClearance: 0,
      obstacles: [{ ball: 'brown', ofCueBall: true }],
      reach: { stance: 'natural' as const, elevationDegrees: 0, over: null, bridgeOver: null, errorFactor: 1 },
    }
    expect(whyNotWords(option)).toBe('brown in the way of the white (top green-side pocket)')
    expect(whyNotWords({ ...option, obstacles: [], cut: cut({ fault: 'offJaw' }) })).toContain('far jaw')
    expect(whyNotWords({ ...option, obstacles: [] })).toContain('does not get there')
  })

  it('say what is wrong with a place', () => {
    const place = {
      value: 9,
      ball: 'pink',
      pocket: 'green-middle',
      chance: 0.88,
      cutDegrees: 3,
      cueBallDistance: 0.05,
      others: 2,
      reach: null,
      angle: 0.8,
      distance: 0.7,
      cushion: 0.8,
    }
    expect(qualityWords(place)).toBe(
      'pink into the middle green-side pocket at 88 %, 3°, 50 mm away, 2 more on; too straight, too close, on a cushion.',
    )
    expect(qualityWords({ ...place, cutDegrees: 25, cueBallDistance: 0.5, angle: 1, distance: 1, cushion: 1 })).toContain(
      'a good angle and distance',
    )
    expect(qualityWords({ ...place, ball: null })).toBe('Nothing is on from here.')
  })
})
