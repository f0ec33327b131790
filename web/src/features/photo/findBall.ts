import { Matrix, solve } from 'ml-matrix'
import { aboveNoise, changeOf, peaks, type Pixels, type Place } from './pixels'

/** A ball's middle and radius, px; the error is what it may be off by, in 19 cases of 20. */
export type Found = Place & { radius: number; error: number }

const angles = 64
const rays = Array.from({ length: angles }, (_, i) => (2 * Math.PI * i) / angles)
/** Radii that are tried, over the one that is expected: marks and lens are not exact yet, and a ball seen aslant is drawn longer. */
const scales = [0.85, 0.9, 0.95, 1, 1.05, 1.1, 1.15, 1.2]
/** So far from the touch, over the radius, the middle is looked for: a thumb is on the ball that it means. */
const reach = 0.8
/** An edge counts so much at most, so that no lamp's reflection decides. */
const most = 40

/**
 * The middle of the ball that somebody touched: the circle on which most edges of colour lie, and then the ellipse through them, to a
 * part of a pixel. Others may hide some of it.
 * @param expected Its radius, px.
 * @returns Nothing, where no circle stands out.
 */
export function findBall(pixels: Pixels, touch: Place, expected: number): Found | null {
  const wide = Math.max(0.6, 0.06 * expected)
  const changeAt = changeOf(pixels)
  const change = (middle: Place, angle: number, r: number) => {
    const ray = { u: Math.cos(angle), v: Math.sin(angle) }
    return changeAt({ u: middle.u + r * ray.u, v: middle.v + r * ray.v }, ray, wide)
  }
  const [nearest, farthest, apart] = [0.15 * expected, 2 * expected, Math.max(0.25, 0.04 * expected)]
  const floor = aboveNoise(rays.flatMap((angle) => [0.3, 0.6, 1.3, 1.6, 1.9].map((r) => change(touch, angle, r * expected))))
  const edges = rays.flatMap((angle) =>
    peaks((r) => change(touch, angle, r), nearest, farthest, apart, floor).map(({ at, height }) => ({
      u: touch.u + at * Math.cos(angle),
      v: touch.v + at * Math.sin(angle),
      weight: Math.min(most, height),
    })),
  )
  const near = 0.12 * expected
  let best = { ...touch, radius: expected, score: 0 }
  const far = Math.max(3, reach * expected)
  const step = Math.max(0.4, expected / 14)
  for (let dv = -far; dv <= far; dv += step)
    for (let du = -far; du <= far; du += step) {
      const away = Math.hypot(du, dv) / far
      if (away > 1) continue
      const middle = { u: touch.u + du, v: touch.v + dv }
      const off = edges.map((e) => ({ r: Math.hypot(e.u - middle.u, e.v - middle.v), weight: e.weight }))
      for (const scale of scales) {
        let score = 0
        for (const e of off) score += e.weight * Math.max(0, 1 - ((e.r - scale * expected) / near) ** 2)
        // The nearer to the touch and to the size that is expected, the likelier.
        score *= (1 - 0.25 * away ** 2) * (1 - 3 * (scale - 1) ** 2)
        if (score > best.score) best = { ...middle, radius: scale * expected, score }
      }
    }
  if (best.score < 0.3 * angles * Math.min(most, floor)) return null
  return fitted(best, expected, change)
}

/** From a circle that is nearly right, the ellipse through where colours change most along each ray, those left out that lie off it. */
function fitted(start: Place & { radius: number }, expected: number, change: (m: Place, angle: number, r: number) => number): Found | null {
  let { u, v, radius } = start
  let error = 0
  for (let pass = 0; pass < 4; pass++) {
    const edges = rays.flatMap((angle) => {
      const all = peaks((r) => change({ u, v }, angle, r), 0.75 * radius, 1.25 * radius, 0.03 * radius)
      return all.length ? [{ angle, r: all[0].at }] : []
    })
    let kept = edges.filter((e) => Math.abs(e.r - radius) < 0.15 * radius)
    let by: number[] = []
    for (let i = 0; i < 6; i++) {
      if (kept.length < angles / 4) return null
      by = ellipseOf(kept, expected)
      const off = (e: { angle: number; r: number }) => Math.abs(e.r - shape(e.angle).reduce((sum, s, k) => sum + s * by[k], 0))
      const typical = kept.map(off).sort((a, b) => a - b)[kept.length >> 1]
      const next = edges.filter((e) => off(e) <= Math.max(0.02 * radius, 3 * typical))
      // Of edges that lie well, the middle is off by some tenths of a pixel; where few are seen, by more.
      error = 0.35 + (4 * typical) / Math.sqrt(kept.length / 4)
      if (next.length === kept.length && next.every((e, k) => e === kept[k])) break
      kept = next
    }
    const [r, a, b] = by
    if (Math.hypot(a, b) > 0.5 * radius || r < 0.86 * expected || r > 1.25 * expected) return null
    ;[u, v, radius] = [u + a, v + b, r]
    if (kept.length < 0.8 * angles) error *= 2
  }
  return error > 0.2 * radius ? null : { u, v, radius, error }
}

/** r(θ) = r₀ + a·cos θ + b·sin θ + c·cos 2θ + d·sin 2θ: a and b are how far the middle is off, c and d how long the ellipse is. */
const shape = (angle: number) => [1, Math.cos(angle), Math.sin(angle), Math.cos(2 * angle), Math.sin(2 * angle)]

/** By least squares, with what is known before, which tells where much is hidden: its size to 6 %, its length to 6 %, edges to 3 %. */
function ellipseOf(edges: { angle: number; r: number }[], expected: number): number[] {
  const known = 0.5
  const rows = [...edges.map((e) => shape(e.angle)), [known, 0, 0, 0, 0], [0, 0, 0, known, 0], [0, 0, 0, 0, known]]
  return solve(new Matrix(rows), Matrix.columnVector([...edges.map((e) => e.r), known * expected, 0, 0])).to1DArray()
}
