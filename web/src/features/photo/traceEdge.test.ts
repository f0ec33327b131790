import { describe, expect, it } from 'vitest'
import type { Pixels } from './pixels'
import { traceEdge } from './traceEdge'

const [width, height] = [900, 260]
const [from, to] = [
  { u: 30, v: 180 },
  { u: 870, v: 110 },
]
/** An edge that is bent by so much in its middle, px: along the line from corner to corner, and a little beside it. */
const edge = (u: number, bend: number, beside: number) => {
  const t = (u - from.u) / (to.u - from.u)
  return from.v + t * (to.v - from.v) + beside + 4 * bend * t * (1 - t)
}

/** Cloth below, wood above, a strip of shadow between, a pocket, a ball on the edge, and noise; lens and sensor as in findBall's pictures. */
function draw(bend: number): Pixels {
  const data = new Uint8ClampedArray(4 * width * height)
  let state = 99
  const noise = () => ((state = (state * 48271) % 2147483647) / 2147483647 - 0.5) * 16
  const soft = (d: number) => 1 / (1 + Math.exp(-2 * d))
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      const [u, v] = [i + 0.5, j + 0.5]
      const [wood, shade] = [soft(edge(u, bend, -6) - v), soft(v - edge(u, bend, 0)) * soft(edge(u, bend, 5) - v)]
      const hidden = Math.hypot(u - 450, v - edge(450, bend, 0)) < 22 || Math.hypot(u - 700, v - edge(700, bend, 3)) < 9
      const colour = [38 + 60 * wood - 18 * shade, 108 - 50 * wood - 45 * shade, 62 - 30 * wood - 28 * shade]
      for (let n = 0; n < 3; n++) data[4 * (j * width + i) + n] = (hidden ? 20 : colour[n]) + noise()
    }
  return { data, width, height }
}

describe('an edge of a cushion in a picture', () => {
  it.each([-9, 0, 7])('is followed where the lens bends it by %i px, past a pocket and a ball', (bend) => {
    const places = traceEdge(draw(bend), { u: from.u + 1.5, v: from.v - 1 }, { u: to.u - 1, v: to.v + 1.5 })!
    expect(places.length).toBeGreaterThan(18)
    // Whichever of the edges it is, all of its places are on that one.
    const which = [-6, 0, 5].map((beside) => Math.max(...places.map((p) => Math.abs(p.v - edge(p.u, bend, beside)))))
    expect(Math.min(...which)).toBeLessThan(1.6)
  })
  it('is not found on plain cloth', () => {
    const data = new Uint8ClampedArray(4 * width * height).fill(90)
    expect(traceEdge({ data, width, height }, from, to)).toBeNull()
  })
})
