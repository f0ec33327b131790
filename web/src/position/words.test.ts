// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { ShotEvent, Simulation } from '../api/client'
import { mainEvents } from './events'
import { eventWords, missWords, outcomeWords } from './words'

const event = (change: Partial<ShotEvent>): ShotEvent => ({
  time: 0,
  kind: 'ball',
  ball: 'white',
  other: 'red-3',
  x: 1,
  y: 1,
  pocket: null,
  cushion: null,
  ...change,
})
const whiteRests = { stretch: 'baulk' as const, cushion: 'baulk', fromCushion: 0.12, spot: 'brown', fromSpot: 0.5 }
const simulation = (change: Partial<Simulation> = {}): Simulation => ({
  finals: [
    { id: 'white', x: 0.15, y: 0.4, pocket: null },
    { id: 'red-3', x: 3.5, y: 1.7, pocket: 'green-top' },
  ],
  events: [
    event({ time: 1 }),
    event({ time: 2, kind: 'pot', ball: 'red-3', other: null, pocket: 'green-top' }),
    event({ time: 3, kind: 'cushion', other: null, cushion: 'top' }),
    event({ time: 4, kind: 'cushion', other: null, cushion: 'green-side' }),
  ],
  paths: [],
  duration: 5,
  ...change,
})

describe('what a shot does', () => {
  it('says that a ball leaves the table, in the sentence and in the list of what matters', () => {
    const off = simulation({
      finals: [{ id: 'white', x: -0.01, y: 0.4, pocket: 'off' }],
      events: [event({ time: 1 }), event({ time: 2, kind: 'off', other: null })],
    })
    expect(outcomeWords({ simulation: off, whiteRests: null })).toBe('Nothing potted, red 3 hit first; the white off the table: a foul.')
    expect(mainEvents({ simulation: off, whiteRests: null }).map((e) => e.words)).toEqual(['white meets red 3', 'white off the table'])
  })
  it('is told event by event', () => {
    expect(eventWords(event({}))).toBe('white meets red 3')
    expect(eventWords(event({ kind: 'pot', other: null, pocket: 'yellow-middle' }))).toBe('in-off: white in the middle yellow-side pocket')
    expect(eventWords(event({ kind: 'cushion', other: null, cushion: 'top' }))).toBe('white off the top cushion')
    expect(eventWords(event({ kind: 'bed', other: null }))).toBe('white comes down on the bed')
    expect(eventWords(event({ kind: 'off', other: null }))).toBe('white leaves the table')
  })

  it('is told in one sentence, from cushions and spots', () => {
    expect(outcomeWords({ simulation: simulation(), whiteRests })).toBe(
      'Red 3 in the top green-side pocket; white off two cushions, stops in baulk, 120 mm off the baulk cushion.',
    )
    const missed = simulation({
      finals: [
        { id: 'white', x: 0.15, y: 0.4, pocket: null },
        { id: 'red-3', x: 3.5, y: 1.7, pocket: null },
      ],
    })
    expect(outcomeWords({ simulation: missed, whiteRests })).toContain('Nothing potted, red 3 hit first')
    const inOff = simulation({ finals: [{ id: 'white', x: 0, y: 0, pocket: 'yellow' }] })
    expect(outcomeWords({ simulation: inOff, whiteRests: null })).toContain('in-off, baulk yellow-side pocket')
    const cannon = simulation({ events: [...simulation().events, event({ time: 4.5, other: 'blue' })] })
    expect(outcomeWords({ simulation: cannon, whiteRests })).toContain('white off two cushions and into the blue, stops')
    const red = simulation({
      events: [event({ time: 1 }), event({ time: 2, other: 'red-2' }), event({ time: 3, kind: 'cushion', other: null, cushion: 'top' })],
    })
    expect(outcomeWords({ simulation: red, whiteRests })).toContain('white into red 2 and off one cushion, stops')
    const escape = simulation({
      events: [
        event({ time: 1, kind: 'cushion', other: null, cushion: 'top' }),
        event({ time: 2 }),
        event({ time: 3, kind: 'cushion', other: null, cushion: 'baulk' }),
        event({ time: 4 }),
      ],
    })
    expect(outcomeWords({ simulation: escape, whiteRests })).toContain(
      'white off one cushion on to red 3, off one cushion and back into red 3, stops',
    )
  })

  it('comes down to four things at most, in order', () => {
    const busy = simulation({ events: [...simulation().events, event({ time: 4.5, other: 'blue' }), event({ time: 4.7, other: 'pink' })] })
    const main = mainEvents({ simulation: busy, whiteRests })
    expect(main.map((e) => e.words)).toEqual([
      'white meets red 3',
      'red 3 in the top green-side pocket',
      'white off the top and green’s side cushions, then runs into blue and pink',
      'white stops in baulk, 120 mm off the baulk cushion',
    ])
    expect(main.map((e) => e.time)).toEqual([1, 2, 3, 5])
  })

  it('counts contacts of balls that stay together once, and marks an in-off as a loss', () => {
    const pushed = simulation({
      events: [
        event({ time: 1 }),
        event({ time: 1.02 }),
        event({ time: 1.05 }),
        event({ time: 2, kind: 'pot', other: null, pocket: 'yellow' }),
      ],
    })
    expect(mainEvents({ simulation: pushed, whiteRests: null }).map((e) => [e.words, e.isLoss ?? false])).toEqual([
      ['white meets red 3', false],
      ['in-off, baulk yellow-side pocket', true],
    ])
  })

  it('says how a pot was missed', () => {
    const miss = { side: 'thick', off: 0.0142, short: null, jaw: 'near', crossing: null } as const
    expect(missWords(miss)).toBe('14 mm thick, near jaw')
    expect(missWords({ ...miss, side: 'left', jaw: null })).toBe('14 mm to the left')
    expect(missWords({ ...miss, short: 0.3 })).toBe('300 mm short of the pocket')
  })
})
