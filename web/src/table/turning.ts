/** How a ball lies turned: its own axes in the table's (x up the table, y across, z up), a matrix of nine by rows. */
export type Turning = readonly number[]

export const unturned: Turning = [1, 0, 0, 0, 1, 0, 0, 0, 1]

/** Turned on by an angular velocity (rad/s, in the table's axes) for a while, s: the exact rotation about its axis. */
export function turnedOn(turning: Turning, w: readonly [number, number, number], seconds: number): Turning {
  const rate = Math.hypot(...w)
  const angle = rate * seconds
  if (angle < 1e-9) return turning
  const [x, y, z] = w.map((v) => v / rate)
  const [c, s] = [Math.cos(angle), Math.sin(angle)]
  const t = 1 - c
  const r = [
    t * x * x + c,
    t * x * y - s * z,
    t * x * z + s * y,
    t * x * y + s * z,
    t * y * y + c,
    t * y * z - s * x,
    t * x * z - s * y,
    t * y * z + s * x,
    t * z * z + c,
  ]
  return Array.from({ length: 9 }, (_, i) => {
    const [row, column] = [Math.floor(i / 3) * 3, i % 3]
    return r[row] * turning[column] + r[row + 1] * turning[column + 3] + r[row + 2] * turning[column + 6]
  })
}

/** A mark on a ball: six of them, where its axes come out; the face is the one that is up while it lies. */
export type SeenMark = { key: string; isFace: boolean; x: number; y: number; degrees: number; depth: number }

/** Those that are on the upper half, in the drawing's mm with y down, foreshortened towards the rim. */
export function visibleMarks(turning: Turning, radius: number): SeenMark[] {
  const marks: SeenMark[] = []
  for (const [axis, name] of ['x', 'y', 'z'].entries())
    for (const sign of [1, -1]) {
      const [x, y, z] = [turning[axis] * sign, turning[3 + axis] * sign, turning[6 + axis] * sign]
      if (z <= 0.04) continue
      marks.push({
        key: `${name}${sign}`,
        isFace: axis === 2 && sign === 1,
        x: x * radius * 0.97,
        y: -y * radius * 0.97,
        degrees: (Math.atan2(-y, x) * 180) / Math.PI,
        depth: z,
      })
    }
  return marks
}
