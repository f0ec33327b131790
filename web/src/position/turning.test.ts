// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { cueBack, turningsOf } from './playback'
import { turnedOn, unturned, visibleMarks } from '../table/turning'

const face = (turning: readonly number[]) => visibleMarks(turning, 26).find((m) => m.isFace)

describe('a ball that rolls', () => {
  it('carries its face over in the direction of the way, and under after a quarter turn', () => {
    // Rolling up the table, +x: ω is along +y (model.md, Motion: (−vy, vx)/R).
    const tenth = turnedOn(unturned, [0, 1, 0], 0.5)
    expect(face(tenth)!.x).toBeCloseTo(26 * 0.97 * Math.sin(0.5), 5)
    expect(face(tenth)!.y).toBeCloseTo(0, 9)
    expect(face(turnedOn(unturned, [0, 1, 0], Math.PI / 2 + 0.1))).toBeUndefined()
    expect(face(turnedOn(unturned, [0, 1, 0], 2 * Math.PI))!.depth).toBeCloseTo(1, 9)
  })

  it('turns the same in one step as in many', () => {
    const w = [3, -2, 5] as const
    let turning = unturned
    for (let i = 0; i < 50; i++) turning = turnedOn(turning, w, 0.01)
    turnedOn(unturned, w, 0.5).forEach((v, i) => expect(turning[i]).toBeCloseTo(v, 9))
  })

  it('turns about the table’s axes and not about its own', () => {
    // Over to +x, and then about the upright axis: the face, at the side, goes round with it.
    const over = turnedOn(unturned, [0, 1, 0], Math.PI / 3)
    const seen = face(turnedOn(over, [0, 0, 1], Math.PI / 2))!
    expect(seen.x).toBeCloseTo(0, 9)
    // Across the table, which is up on the screen.
    expect(seen.y).toBeCloseTo(-26 * 0.97 * Math.sin(Math.PI / 3), 6)
  })

  it('stays a ball: its axes keep their length and their right angles', () => {
    let t = unturned
    for (let i = 0; i < 400; i++) t = turnedOn(t, [20 * Math.sin(i), 15, -9], 0.011)
    for (const [a, b] of [
      [0, 0],
      [0, 1],
      [1, 2],
      [2, 2],
    ])
      expect(t[a * 3] * t[b * 3] + t[a * 3 + 1] * t[b * 3 + 1] + t[a * 3 + 2] * t[b * 3 + 2]).toBeCloseTo(a === b ? 1 : 0, 9)
  })

  it('is turned at every moment as its angular velocity says, which changes evenly', () => {
    const list = turningsOf([{ ball: 'white', spans: [{ from: 0, to: 1, start: [0, 4, 0], end: [0, 0, 0] }] }]).get('white')!
    // ∫ (4 − 4t) dt from 0 to 1 is 2 rad.
    const last = list[list.length - 1]
    turnedOn(unturned, [0, 2, 0], 1).forEach((v, i) => expect(last[i]).toBeCloseTo(v, 3))
    expect(list.length).toBe(91)
  })

  it('is struck by a cue that goes back first and then through', () => {
    expect(cueBack(0.62)).toBeCloseTo(0.02, 6)
    expect(cueBack(0.62 * 0.4)).toBeCloseTo(0.17, 3)
    expect(cueBack(0)).toBeCloseTo(0, 9)
  })
})
