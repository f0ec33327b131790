import type { Point } from './layer'

const figure = (v: number) => v.toFixed(1)

/**
 * The outline of a line whose breadth changes evenly along its way, as a path: a piece between every two points, a disc at every bend. All in
 * units of the drawing.
 */
export function taperedPath(points: readonly Point[], breadthAtStart: number, breadthAtEnd: number): string {
  const lengths = points.slice(1).map((p, i) => Math.hypot(p.x - points[i].x, p.y - points[i].y))
  const whole = lengths.reduce((sum, l) => sum + l, 0)
  if (!whole) return ''
  const half = (gone: number) => (breadthAtStart + (breadthAtEnd - breadthAtStart) * (gone / whole)) / 2
  const pieces: string[] = []
  let gone = 0
  lengths.forEach((length, i) => {
    const [a, b] = [points[i], points[i + 1]]
    const [ra, rb] = [half(gone), half(gone + length)]
    gone += length
    if (!length) return
    const [nx, ny] = [-(b.y - a.y) / length, (b.x - a.x) / length]
    const corner = (p: Point, r: number) => `${figure(p.x + nx * r)} ${figure(p.y + ny * r)}`
    pieces.push(`M${corner(a, ra)}L${corner(b, rb)}L${corner(b, -rb)}L${corner(a, -ra)}Z`)
    pieces.push(
      `M${figure(b.x - rb)} ${figure(b.y)}a${figure(rb)} ${figure(rb)} 0 1 0 ${figure(2 * rb)} 0a${figure(rb)} ${figure(rb)} 0 1 0 ${figure(-2 * rb)} 0Z`,
    )
  })
  return pieces.join('')
}
