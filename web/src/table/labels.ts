/** Places labels on the plan so that they cover as little as can be. All in mm of the drawing, y down. */
export type Label = { key: string; text: string; x: number; y: number; size: number; kind: string }
/** What a layer wants called by a name: the place it is about, m of the table, and how high the letters are, mm. */
export type Naming = { key: string; kind: string; text: string; at: Point; size?: number }
/** With a leader where it stands too far from its point to be taken for it otherwise. */
export type PlacedLabel = Label & { left: number; baseline: number; leader: { x: number; y: number } | null }
type Box = { left: number; top: number; right: number; bottom: number }
type Point = { x: number; y: number }

/** How far from its point a label may stand, mm of a plan of the usual scale; from the fourth on a line leads to it. */
const gaps = [30, 70, 120, 190, 270]
const led = 3
/** A ball or a ring about the point stays clear of the label, mm. */
const clearOfBall = 30
const around = Array.from({ length: 16 }, (_, i) => (i * Math.PI) / 8)

function overlap(a: Box, b: Box) {
  return (
    Math.max(0, Math.min(a.right, b.right) - Math.max(a.left, b.left)) * Math.max(0, Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top))
  )
}

/**
 * Takes the labels in order. Each goes beside its point, in the direction and at the distance where its box covers the fewest
 * obstacles and none of the labels before it, and stays within the frame.
 * @param scale Of the drawing on the screen against a plan of the usual scale: 2 where 1 px is twice as many mm.
 */
export function placeLabels(labels: Label[], obstacles: Point[], frame: Box, scale = 1): PlacedLabel[] {
  const taken: Box[] = []
  const clear = 14 * scale
  return labels.map((label) => {
    const [w, h] = [label.text.length * label.size * 0.5 + 10 * scale, label.size]
    const near = obstacles.filter((o) => Math.abs(o.x - label.x) < w + 140 * scale && Math.abs(o.y - label.y) < h + 140 * scale)
    let best: Box | null = null
    let bestRing = 0
    let bestCost = Infinity
    for (const [ring, gap] of gaps.map((g) => Math.max(g * scale, clearOfBall)).entries())
      for (const angle of around) {
        const [c, s] = [Math.cos(angle), Math.sin(angle)]
        const cx = label.x + c * (w / 2 + gap)
        const cy = label.y - s * (h / 2 + gap)
        const box = { left: cx - w / 2, right: cx + w / 2, top: cy - h / 2, bottom: cy + h / 2 }
        const outside = box.left < frame.left || box.right > frame.right || box.top < frame.top || box.bottom > frame.bottom
        const covered = near.filter(
          (o) => o.x > box.left - clear && o.x < box.right + clear && o.y > box.top - clear && o.y < box.bottom + clear,
        ).length
        const cost =
          (outside ? 1000 : 0) + taken.reduce((sum, t) => sum + overlap(box, t), 0) / scale ** 2 + covered * 10 + ring * 4 + (c < 0 ? 1 : 0)
        if (cost < bestCost) [best, bestCost, bestRing] = [box, cost, ring]
      }
    taken.push(best!)
    const edge = { x: Math.min(best!.right, Math.max(best!.left, label.x)), y: Math.min(best!.bottom, Math.max(best!.top, label.y)) }
    return { ...label, left: best!.left, baseline: best!.bottom - h * 0.2, leader: bestRing < led ? null : edge }
  })
}

/** Points along a line, close enough that no label slips between them; mm of the drawing. */
export function between(a: Point, b?: Point): Point[] {
  const steps = b ? Math.max(1, Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / 40)) : 1
  return Array.from({ length: steps }, (_, i) => ({ x: a.x + (i / steps) * ((b ?? a).x - a.x), y: a.y + (i / steps) * ((b ?? a).y - a.y) }))
}

const widest = (outlines: readonly Point[][]) => [...outlines].sort((a, b) => b.length - a.length)[0] as Point[] | undefined

/** Where to name an area of several outlines: on the largest, its first point or the one farthest up the drawing. */
export const firstOfWidest = (outlines: readonly Point[][]) => widest(outlines)?.[0]
export const highestOfWidest = (outlines: readonly Point[][]) => widest(outlines)?.reduce((a, b) => (b.y > a.y ? b : a))
