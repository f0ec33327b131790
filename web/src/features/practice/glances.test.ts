import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { stepGlances } from './glances'

const step = (label: string, withStroke = true): Schemas['Step'] => ({
  label,
  balls: [{ id: 'white', x: 1, y: 0.5 }],
  stroke: withStroke ? { aim: 10, side: 0, height: -0.5, pace: 4, pot: null, free: false } : undefined,
  demands: [{ kind: 'whiteIn', area: { x: 1, y: 1, radius: 0.1 } }],
})

describe('a session at a glance', () => {
  it('shows every step that has a stroke, and begins with the one that is played', () => {
    const { items, first } = stepGlances('Stop shots', [step('1 m'), step('free', false), step('2 m')], 1, {})
    expect(items.map((i) => i.title)).toEqual(['Stop shots, 1 m', 'Stop shots, 2 m'])
    expect(first).toBe(1)
    expect(items[0].content.stroke).toMatchObject({ height: -0.5, pot: null, elevation: null })
    expect(items[0].note).toMatch(/^[A-Z].*\.$/)
  })

  it('says the name alone where there is one step', () => {
    expect(stepGlances('Long pots', [step('')], 0, {}).items[0].title).toBe('Long pots')
  })
})
