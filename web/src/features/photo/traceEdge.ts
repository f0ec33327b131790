import { changeOf, peaks, type Pixels, type Place } from './pixels'

const stations = 36
/** The corners are left out: there are pockets. */
const [first, last] = [0.12, 0.88]
/** An edge is looked for so far beside the line from corner to corner, over its length: a lens bends it, marks are off. */
const reach = 0.016
/** Of the stations, so many must lie on it. */
const enough = 0.5

/**
 * An edge that is straight on the table, found beside the line from one corner to the next: the arc on which most of the places lie where
 * colours change. Which edge it is, of nose or wood or shadow, does not matter: each is straight, and how it is bent in the picture tells
 * of the lens.
 * @returns Places along it; nothing, where no edge goes through.
 */
export function traceEdge(pixels: Pixels, from: Place, to: Place): Place[] | null {
  const change = changeOf(pixels)
  const length = Math.hypot(to.u - from.u, to.v - from.v)
  const along = { u: (to.u - from.u) / length, v: (to.v - from.v) / length }
  const aside = { u: -along.v, v: along.u }
  const far = Math.max(8, reach * length)
  const wide = Math.max(1, length / 900)
  const at = (t: number, off: number, on = 0) => ({
    u: from.u + t * (to.u - from.u) + off * aside.u + on * along.u,
    v: from.v + t * (to.v - from.v) + off * aside.v + on * along.v,
  })
  const found = Array.from({ length: stations }, (_, i) => first + ((last - first) * i) / (stations - 1)).flatMap((t) =>
    // Some pixels along the line together: a ball's or a mark's edge is short.
    peaks((off) => [-2, -1, 0, 1, 2].reduce((sum, k) => sum + change(at(t, off, k * wide), aside, wide), 0) / 5, -far, far, 0.5).map(
      (peak) => ({ t, off: peak.at }),
    ),
  )
  const near = Math.max(0.8, length / 1200)
  const third = (k: number) => found.filter((f) => Math.floor((3 * (f.t - first)) / (last - first + 1e-9)) === k)
  // Not each with each: every third place of a third is enough to hit the arc more than once.
  const some = (list: typeof found) => list.filter((_, i) => i % 2 === 0)
  let best: typeof found = []
  for (const a of some(third(0)))
    for (const b of some(third(1)))
      for (const c of some(third(2))) {
        const arc = arcThrough(a, b, c)
        if (Math.abs(arc.sagitta) > far) continue
        const on = found.filter((f) => Math.abs(f.off - arc.off(f.t)) < near)
        if (on.length > best.length) best = on
      }
  // One place of a station.
  const places = best.filter((f, i) => f.t !== best[i - 1]?.t)
  return places.length >= enough * stations ? places.map((f) => at(f.t, f.off)) : null
}

/** The parabola through three places, by Lagrange. */
function arcThrough(...[a, b, c]: { t: number; off: number }[]) {
  const ka = a.off / ((a.t - b.t) * (a.t - c.t))
  const kb = b.off / ((b.t - a.t) * (b.t - c.t))
  const kc = c.off / ((c.t - a.t) * (c.t - b.t))
  return {
    off: (t: number) => ka * (t - b.t) * (t - c.t) + kb * (t - a.t) * (t - c.t) + kc * (t - a.t) * (t - b.t),
    sagitta: (ka + kb + kc) * ((last - first) / 2) ** 2,
  }
}
