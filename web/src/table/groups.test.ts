import { describe, expect, it } from 'vitest'
import { nearestCushion } from '../domain/cushions'
import { groupsOf } from './groups'

describe('what attempts are counted by', () => {
  it('begins with those before a change, whenever they were made', () => {
    expect(groupsOf([{ group: 'lower bridge' }, { group: '' }, { group: 'softer' }, {}])).toEqual(['', 'lower bridge', 'softer'])
    expect(groupsOf([{ group: 'softer' }])).toEqual(['softer'])
    expect(groupsOf([])).toEqual([])
  })

  it('finds the cushion that is touched', () => {
    const sizes = { length: 3.569, width: 1.778 }
    expect(nearestCushion({ x: 0.05, y: 0.9 }, sizes)).toBe('baulk')
    expect(nearestCushion({ x: 3.5, y: 0.9 }, sizes)).toBe('top')
    expect(nearestCushion({ x: 2, y: 0.1 }, sizes)).toBe('yellow-side')
    expect(nearestCushion({ x: 2, y: 1.7 }, sizes)).toBe('green-side')
  })
})
