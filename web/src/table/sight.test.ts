// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { sightOf } from './sight'

const r = 0.02625
const white = { x: 1, y: 0.9 }
const on = (x: number, y: number, z = r) => ({ x, y, z })

describe('the shot as the player sees it', () => {
  it('has all that lies on the line of aim in the middle, the farther the higher and the smaller', () => {
    const sight = sightOf(white, 0, 1.75, r)
    const seen = [1, 1.5, 2.5, 3.5].map((x) => sight.see(on(x, 0.9)))
    for (const p of seen) expect(p.x).toBeCloseTo(0, 9)
    expect(seen[0].y).toBeCloseTo(34, 6)
    for (let i = 1; i < seen.length; i++) {
      expect(seen[i].y).toBeLessThan(seen[i - 1].y)
      expect(sight.radiusAt(seen[i].depth)).toBeLessThan(sight.radiusAt(seen[i - 1].depth))
    }
  })

  it('sees what lies to the left at the left, whichever way it looks', () => {
    // Looking up the table the green's side is at the left; looking down it, at the right.
    expect(sightOf(white, 0, 1.75, r).see(on(2, 1.2)).x).toBeLessThan(0)
    expect(sightOf({ x: 3, y: 0.9 }, 180, 1.75, r).see(on(2, 1.2)).x).toBeGreaterThan(0)
  })

  it('sees a ball twice as far half as large, as perspective has it', () => {
    const sight = sightOf(white, 30, 1.8, r)
    expect(sight.radiusAt(2) / sight.radiusAt(4)).toBeCloseTo(2, 9)
  })

  it('sees a taller player’s table from higher up: more of it between near and far', () => {
    const between = (height: number) => {
      const sight = sightOf(white, 0, height, r)
      return sight.see(on(1.2, 0.9)).y - sight.see(on(3.4, 0.9)).y
    }
    expect(between(1.95)).toBeGreaterThan(between(1.6))
  })

  it('cuts off what is behind the eye', () => {
    const sight = sightOf(white, 0, 1.75, r)
    const bed = [on(0, 0, 0), on(3.569, 0, 0), on(3.569, 1.778, 0), on(0, 1.778, 0)]
    const seen = sight.polygon(bed)
    expect(seen.length).toBe(4)
    for (const p of seen) expect(p.depth).toBeGreaterThan(0.1199)
    expect(sight.polygon([on(0, 0, 0), on(0.1, 0, 0), on(0, 0.1, 0)])).toEqual([])
  })
})
