import { describe, expect, it } from 'vitest'
import { shortFanWords, fanWords, ghostGapWords, lineFirstWords, lineWhiteWords, rungDemands, rungWords, settingsWords } from './fanWords'
import type { FanLine } from './judgements'

const end: FanLine['end'] = {
  white: { x: 1, y: 1 },
  whiteRests: { stretch: 'baulk', cushion: 'baulk', fromCushion: 0.094, spot: 'brown', fromSpot: 0.5 },
  whitePocket: null,
  first: 'red-3',
  fullness: 0.5,
  ball: null,
  ballRests: null,
  ballPocket: null,
  cushions: [],
  runsInto: [],
  gap: null,
  comesBack: false,
}
const line = (change: Partial<FanLine>): FanLine => ({
  key: '+0.5',
  aim: 10,
  side: 0,
  height: 0,
  pace: 4,
  elevation: 3,
  potted: null,
  miss: null,
  aimThatPots: null,
  ghostGap: null,
  doesGoal: null,
  passesBy: null,
  whitePocket: null,
  end,
  points: [],
  ballPoints: [],
  ...change,
})

describe('lines of a fan', () => {
  it('are called by their setting, in the trade’s words', () => {
    const set = { pace: 4 }
    expect(fanWords('heights', line({ height: -0.5 }), set)).toBe('half a tip below')
    expect(fanWords('heights', line({ height: -0.35 }), set, true)).toBe('0.35 below')
    expect(fanWords('sides', line({ side: 0 }), set)).toBe('plain')
    expect(fanWords('paces', line({ pace: 4.5 }), set)).toBe('pace 4.5')
    expect(fanWords('butts', line({ elevation: 0 }), set)).toBe('level')
    expect(fanWords('butts', line({ elevation: 20 }), set)).toBe('butt 20°')
    expect(fanWords('aims', line({ key: '-0.5' }), set)).toBe('0.5° right')
    expect(fanWords('errors', line({ key: 'aim+0.5' }), set)).toBe('0.5° left')
    expect(fanWords('errors', line({ key: 'pace-0.5' }), set)).toBe('½ pace softer')
    expect(fanWords('errors', line({ key: 'side+0.25' }), set)).toBe('a quarter of a tip of right')
    expect(fanWords('routes', line({ key: 'screw', pace: 4.5 }), set)).toBe('screw (pace 4.5)')
  })

  it('have short names on the plan', () => {
    const set = { pace: 4 }
    expect(shortFanWords('heights', line({ height: -0.75 }), set)).toBe('¾ low')
    expect(shortFanWords('heights', line({ height: 0 }), set)).toBe('plain')
    expect(shortFanWords('sides', line({ side: 0.5 }), set)).toBe('½ right')
    expect(shortFanWords('sides', line({ side: 0 }), set)).toBe('plain')
    expect(shortFanWords('paces', line({ pace: 3 }), set)).toBe('pace 3')
    expect(shortFanWords('heights', line({ height: -0.35 }), set, true)).toBe('0.35 below')
  })

  it('say what becomes of the pot, or what is met', () => {
    expect(lineFirstWords(line({ potted: true }), 'red-3')).toBe('goes in')
    const miss = { side: 'thick', off: 0.014, short: null, jaw: 'near', crossing: null } as const
    expect(lineFirstWords(line({ potted: false, miss }), 'red-3')).toBe('missed 14 mm thick, near jaw')
    expect(lineFirstWords(line({ potted: false, passesBy: 0.012 }), 'red-3')).toBe('passes red 3 by 12 mm')
    expect(lineFirstWords(line({}), 'red-3')).toBe('red 3, 0.50 of it')
    expect(lineFirstWords(line({ passesBy: 0.012, end: { ...end, first: null, fullness: null } }), 'red-3')).toBe('passes red 3 by 12 mm')
  })

  it('say where the white goes', () => {
    expect(lineWhiteWords({ ...end, cushions: ['top', 'baulk'], runsInto: ['pink'] })).toBe(
      'off two cushions, into the pink, in baulk, 94 mm off the baulk cushion',
    )
    expect(lineWhiteWords({ ...end, white: null, whiteRests: null, whitePocket: 'green-middle' })).toContain('in-off')
  })

  it('tell how far the aim that is kept is from the one that pots', () => {
    expect(ghostGapWords(line({ aim: 10.4, aimThatPots: 10, ghostGap: 0.0071 }))).toBe('7.1 mm, 0.40° off')
    expect(ghostGapWords(line({}))).toBe('')
  })
})

describe('rungs', () => {
  const reached = { potted: true, inOff: null, first: null, ball: null, gap: null, cushions: 0, doesGoal: null }
  it('are called by what they reach', () => {
    expect(rungWords({ what: { ...reached, ball: 'pink' } })).toBe('the pink')
    expect(rungWords({ what: { ...reached, gap: ['red-2', 'red-3'] } })).toBe('between red 2 and red 3')
    expect(rungWords({ what: { ...reached, cushions: 2 } })).toBe('off two cushions')
    expect(rungWords({ what: reached })).toBe('no cushion, no other ball')
    expect(rungWords({ what: { ...reached, potted: false } })).toBe('missed')
    expect(rungWords({ what: null })).toBe('no aim pots it')
    expect(rungWords({ what: { ...reached, potted: null, first: 'red-1', cushions: 1 } })).toBe('red 1 first, off one cushion')
    expect(settingsWords('height', { from: 0.35, to: 0.52 })).toBe('0.35 to 0.52 tips')
  })

  it('become tasks, where what is reached can be asked for', () => {
    expect(rungDemands({ what: { ...reached, ball: 'pink' } })).toEqual([{ kind: 'pot' }, { kind: 'runsInto', ball: 'pink' }])
    expect(rungDemands({ what: { ...reached, gap: ['red-2', 'red-3'] } })).toEqual([
      { kind: 'pot' },
      { kind: 'gate', ball: 'red-2', other: 'red-3' },
    ])
    expect(rungDemands({ what: { ...reached, inOff: 'green-top' } })).toEqual([])
    expect(rungDemands({ what: { ...reached, cushions: 2 } })).toEqual([])
    expect(rungDemands({ what: { ...reached, potted: null, first: 'red-1' } })).toEqual([
      { kind: 'meetsFirst', ball: 'red-1' },
      { kind: 'noCushion' },
    ])
  })
})
