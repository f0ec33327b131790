import { describe, expect, it } from 'vitest'
import { countedWords, formWords, tasks, type Page } from './playerPage'

const form = (name: string, difference: number, verdict: 'better' | 'worse' | 'notYet') => ({
  routine: name.toLowerCase(),
  name,
  now: { done: 12, of: 20, low: 0.39, high: 0.78 },
  change: { difference, low: difference - 0.1, high: difference + 0.1, needed: null, verdict },
})
const page = (change: Partial<Page>): Page => ({
  id: 'p',
  name: 'Tilda',
  attempts: 412,
  sessions: 9,
  since: '2026-11-04T18:00:00Z',
  frames: 1,
  breaks: [],
  runs: [],
  up: [],
  down: [],
  causes: [],
  ends: [],
  ...change,
})

describe('a player’s page', () => {
  it('says which way a routine goes, and whether that is more than chance', () => {
    expect(formWords(form('Stop', 0.14, 'better'))).toBe('60 %, up 14 points')
    expect(formWords(form('Stop', -0.01, 'notYet'))).toBe('60 %, down 1 point, could be chance')
  })

  it('says how much it stands on', () => {
    expect(countedWords(page({}))).toBe('412 attempts in 9 sessions since 4 Nov, 1 frame')
    expect(countedWords(page({ attempts: 0, sessions: 0, since: null, frames: 0 }))).toBe('0 attempts in 0 sessions')
  })

  it('puts what has clearly slipped before reasons, and what may be chance last', () => {
    const told = page({
      down: [form('Zones', -0.05, 'notYet'), form('Long pots', -0.3, 'worse')],
      causes: [{ reason: 'thick', times: 9, missed: 20 }],
    })
    expect(tasks(told).map((t) => t.what)).toEqual(['Long pots', 'Too thick', 'Zones'])
  })

  it('keeps silent about a reason given once, and names where turns end', () => {
    expect(tasks(page({ causes: [{ reason: 'thick', times: 2, missed: 20 }] }))).toEqual([])
    const ends: Page['ends'] = [
      { on: 'colour', why: null, count: 4, of: 9 },
      { on: 'black', why: 'outOfPosition', count: 3, of: 9 },
    ]
    expect(tasks(page({ ends }))).toEqual([{ what: 'Out of position on the black', why: 'ended 3 of 9 turns in frames' }])
  })
})
