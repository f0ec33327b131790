// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { diagnosisWords } from '../../domain/diagnosis'
import { shortStrokeWords } from '../../domain/words'
import { openedWords } from './goOn'
import { isSameTable, thinned } from './trials'
import { changeWords, instrumentWords, verdictWords } from './trialWords'

describe('a line that a stroke leaves', () => {
  it('is kept with few points, none of them far from the way', () => {
    const way = Array.from({ length: 400 }, (_, i) => ({ x: i / 200, y: 0.3 * Math.sin(i / 120) }))
    const kept = thinned(way)
    expect(kept.length).toBeLessThan(20)
    expect([kept[0], kept[kept.length - 1]]).toEqual([way[0], way[way.length - 1]])
    const off = (p: { x: number; y: number }) =>
      Math.min(
        ...kept.slice(1).map((b, i) => {
          const a = kept[i]
          const [dx, dy] = [b.x - a.x, b.y - a.y]
          const t = Math.max(0, Math.min(1, ((p.x - a.x) * dx + (p.y - a.y) * dy) / (dx * dx + dy * dy)))
          return Math.hypot(p.x - a.x - t * dx, p.y - a.y - t * dy)
        }),
      )
    expect(Math.max(...way.map(off))).toBeLessThan(0.0041)
  })

  it('has a short name', () => {
    expect(shortStrokeWords({ height: -0.5, side: 0, pace: 4 })).toBe('½ low, 4')
    expect(shortStrokeWords({ height: 0, side: 0.25, pace: 3.5 })).toBe('plain, ¼ right, 3.5')
    expect(shortStrokeWords({ height: 1, side: -0.1, pace: 5.1 })).toBe('1 high, touch left, 5.1')
  })

  it('belongs to the balls as they lay, in whatever order they are told', () => {
    const balls = [
      { id: 'white', x: 1, y: 1 },
      { id: 'red-1', x: 2, y: 1 },
    ]
    expect(isSameTable([...balls].reverse(), balls)).toBe(true)
    expect(isSameTable([balls[0], { ...balls[1], x: 2.002 }], balls)).toBe(false)
    expect(isSameTable(balls.slice(1), balls)).toBe(false)
    expect(isSameTable(null, balls)).toBe(true)
    // Hardly moved, its line is still drawn; once a ball is gone it is not.
    expect(isSameTable([balls[0], { ...balls[1], x: 2.1 }], balls, 0.15)).toBe(true)
    expect(isSameTable(balls, balls.slice(0, 1), 0.15)).toBe(false)
  })
})

describe('what a change did', () => {
  const none = { knob: null, by: 0, longer: 0, moved: 0, cushion: null, widerDegrees: 0 }
  it('is said in parts of a tip, millimetres and degrees', () => {
    expect(changeWords({ ...none, knob: 'height', by: -0.5, longer: -0.31, cushion: 'top', widerDegrees: 9 })).toBe(
      'half a tip lower: 310 mm shorter, comes off the top cushion 9° wider',
    )
    expect(changeWords({ ...none, knob: 'pace', by: 0.5, longer: 0.2 })).toBe('0.5 harder: 200 mm farther')
    expect(changeWords({ ...none, knob: 'side', by: 0.25, longer: 0.001, moved: 0.12, cushion: 'yellow-side', widerDegrees: -4 })).toBe(
      'a quarter of a tip more right: stops 120 mm away, comes off the yellow’s side cushion 4° narrower',
    )
  })
  it('is not blamed on one knob where several were turned, and nothing is nothing', () => {
    expect(changeWords({ ...none, longer: 0.2 })).toBe('200 mm farther')
    expect(changeWords(none)).toBe('')
  })
})

describe('the table after a stroke', () => {
  it('says what has opened and what has closed, but not what was potted', () => {
    expect(openedWords(new Set(['red-1', 'red-2', 'pink']), new Set(['pink', 'blue']), new Set(['red-1']))).toBe(
      'Now on: blue. No longer: red 2.',
    )
    expect(openedWords(new Set(['pink']), new Set(['pink']), new Set())).toBe('')
  })
})

describe('what went wrong', () => {
  const cause = (cause: string, direction: string | null, amount: number, inPlayersUnits: number | null, chance: number) => ({
    cause,
    direction,
    amount,
    unit: '',
    chance,
    inPlayersUnits,
    paths: [],
  })
  it('is one thing or another, with its chance', () => {
    const causes = [cause('height', 'low', 0.16, 0.5, 0.62), cause('pace', 'hard', 0.08, 0.3, 0.25), cause('thick', null, 0.1, null, 0.1)]
    expect(diagnosisWords({ causes, explains: 0.98, isUsual: false })).toBe(
      'It was half a tip too low (62 %), or 0.3 too hard (25 %): change one.',
    )
    expect(diagnosisWords({ causes: [cause('thin', null, 0.25, null, 0.9)], explains: 0.9, isUsual: false })).toBe(
      'It was 0.25° too thin (90 %).',
    )
  })
  it('says when nothing should be changed, and when nothing explains it', () => {
    const causes = [cause('side', 'left', 0.08, 0.25, 0.6)]
    expect(diagnosisWords({ causes, explains: 0.98, isUsual: true })).toBe(
      'Within your usual spread: play it again. If anything, it was a quarter of a tip too far left on the white.',
    )
    expect(diagnosisWords({ causes, explains: 0.01, isUsual: false })).toContain('No stroke near the one meant')
    expect(diagnosisWords({ causes: [], explains: 0.9, isUsual: false })).toContain('No stroke near the one meant')
  })
})

describe('several attempts at one stroke', () => {
  const range = { value: -0.08, low: -0.1, high: -0.06 }
  const part = (cause: string, direction: string | null, more: object = {}) => ({
    cause,
    direction,
    error: range,
    unit: 'radius',
    inPlayersUnits: 0.25,
    eachTime: false,
    scatter: 'usual' as const,
    ...more,
  })
  it('have something in common, apart from their scatter', () => {
    const parts = [
      part('thick', null),
      part('pace', 'soft', { scatter: 'more' }),
      part('side', 'left'),
      part('height', 'low', { eachTime: true }),
    ]
    expect(verdictWords({ attempts: 6, parts, notApart: [], unexplained: [2] })).toBe(
      'Over 6 attempts: a quarter of a tip too low each time. Pace scatters more than usual. ' +
        'One attempt left out: no stroke near the one meant does that.',
    )
    // What cannot be told apart is said of what is told, and only of that.
    const notApart = [
      ['pace', 'height'],
      ['direction', 'side'],
    ]
    expect(verdictWords({ attempts: 6, parts, notApart, unexplained: [] })).toContain(
      'Here pace and height leave the same ends: which it was cannot be told.',
    )
  })
  it('have nothing in common where it is scatter', () => {
    expect(verdictWords({ attempts: 4, parts: [part('pace', 'hard')], notApart: [], unexplained: [] })).toBe(
      'Over 4 attempts: nothing that you do each time, it is scatter.',
    )
  })
})

it('a straight pot measures the cueing', () => {
  const error = {
    turnDegrees: { value: 0.03, low: -0.01, high: 0.05 },
    side: { value: 0.08, low: -0.02, high: 0.15 },
    pace: { value: 0, low: 0, high: 0 },
    height: { value: 0, low: 0, high: 0 },
  }
  expect(instrumentWords(error, 0.02625)).toBe(
    'Aim 0.03° left (0.01° right to 0.05° left), unmeant side 2.1 mm right (0.5 mm left to 3.9 mm right).',
  )
})
