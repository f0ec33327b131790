// @vitest-environment node
import { describe, expect, it } from 'vitest'
import type { Schemas } from '../../api/client'
import { breakRuns, presentRun, steps } from './curve'

type Shot = Schemas['StoryShotResult']
const shot = (player: number, points: number, potted: string[] = []): Shot => ({
  player,
  points,
  shot: { kind: points ? 'pot' : 'miss', potted },
  on: 'red',
  penalty: 0,
  first: 0,
  second: 0,
})

describe('a frame as a picture', () => {
  const shots = [
    shot(0, 1, ['red']),
    shot(0, 7, ['black']),
    shot(0, 0),
    shot(1, 1, ['red']),
    shot(1, 0),
    shot(0, 2, ['red', 'red']),
    shot(0, 5, ['blue']),
  ]
  it('has a break from pot to pot of one player, with its balls in order', () => {
    expect(breakRuns(shots).map((r) => [r.player, r.points, r.from, r.to, r.balls.join()])).toEqual([
      [0, 8, 0, 1, 'red,black'],
      [1, 1, 3, 3, 'red'],
      [0, 7, 5, 6, 'red,red,blue'],
    ])
  })
  it('has a break under way only while the last shot scored', () => {
    expect(presentRun(shots)?.points).toBe(7)
    expect(presentRun(shots.slice(0, 5))).toBeNull()
    expect(presentRun([])).toBeNull()
  })
  it('rises in steps, flat while nothing is scored', () => {
    expect(steps([1, 1, 8])).toEqual([
      { x: 0, y: 0 },
      { x: 1, y: 0 },
      { x: 1, y: 1 },
      { x: 2, y: 1 },
      { x: 3, y: 1 },
      { x: 3, y: 8 },
    ])
  })
})
