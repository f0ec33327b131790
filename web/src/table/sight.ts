import type { Point } from './layer'

/** A point in space: m of the table, z above the bed. */
export type Place = Point & { z: number }
/** A point on the picture, and how far it is from the eye, m. */
export type Seen = { x: number; y: number; depth: number }

/** The picture's size; its middle is (0, 0), y down. */
export const picture = { width: 360, height: 122 }
/** Units of the picture for a slope of one: the picture takes in some 36°. */
const focal = 560
/** The eye is so far behind the white, over the cue, m. */
const behind = 0.6
/** Nearer than this nothing is drawn, m. */
const nearest = 0.12
/** The white stands so far below the middle of the picture. */
const whiteBelow = 34

/** How a player who is down on the shot sees the table: over the cue, its height by his own. */
export function sightOf(white: Point, aimDegrees: number, playerHeight: number, ballRadius: number) {
  const a = (aimDegrees * Math.PI) / 180
  const [dx, dy] = [Math.cos(a), Math.sin(a)]
  // With the chin on the cue: about a tenth of his height above the bed. Common practice, no source.
  const eye = { x: white.x - behind * dx, y: white.y - behind * dy, z: 0.095 * playerHeight }
  const pitch = Math.atan2(eye.z - ballRadius, behind) - Math.atan2(whiteBelow, focal)
  const [c, s] = [Math.cos(pitch), Math.sin(pitch)]

  /** Where a place is seen; its depth is negative behind the eye. */
  function see({ x, y, z }: Place): Seen {
    const [px, py, pz] = [x - eye.x, y - eye.y, z - eye.z]
    const ahead = px * dx + py * dy
    const right = px * dy - py * dx
    const depth = ahead * c - pz * s
    const up = ahead * s + pz * c
    return { x: (right / depth) * focal, y: (-up / depth) * focal, depth }
  }
  const radiusAt = (depth: number) => (ballRadius / depth) * focal

  /** A polygon on the picture, cut where it comes behind the eye; empty if all of it is there. */
  function polygon(corners: readonly Place[]): Seen[] {
    const depthOf = (p: Place) => see(p).depth - nearest
    const kept = corners.flatMap((p, i) => {
      const q = corners[(i + 1) % corners.length]
      const [dp, dq] = [depthOf(p), depthOf(q)]
      const list: Place[] = dp > 0 ? [p] : []
      if (dp > 0 !== dq > 0) {
        const t = dp / (dp - dq)
        list.push({ x: p.x + t * (q.x - p.x), y: p.y + t * (q.y - p.y), z: p.z + t * (q.z - p.z) })
      }
      return list
    })
    return kept.map(see)
  }
  return { see, radiusAt, polygon, isAhead: (p: Place) => see(p).depth > nearest }
}
