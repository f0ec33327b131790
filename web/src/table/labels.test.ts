// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { placeLabels, type Label } from './labels'

const frame = { left: 0, top: 0, right: 3569, bottom: 1778 }
const label = (key: string, x: number, y: number): Label => ({ key, text: 'white stops', x, y, size: 56, kind: '' })
const box = (l: { left: number; baseline: number; text: string; size: number }) => ({
  l: l.left,
  r: l.left + l.text.length * l.size * 0.5,
  t: l.baseline - l.size * 0.8,
  b: l.baseline + l.size * 0.2,
})

describe('labels', () => {
  it('stay on the table, even for what lies in a corner', () => {
    for (const [x, y] of [
      [5, 5],
      [3560, 5],
      [3560, 1770],
      [5, 1770],
    ]) {
      const b = box(placeLabels([label('a', x, y)], [], frame)[0])
      expect(b.l).toBeGreaterThanOrEqual(0)
      expect(b.r).toBeLessThanOrEqual(3569)
      expect(b.t).toBeGreaterThanOrEqual(-1)
      expect(b.b).toBeLessThanOrEqual(1779)
    }
  })

  it('do not cover one another', () => {
    const placed = placeLabels([label('a', 1000, 900), label('b', 1010, 905), label('c', 990, 895)], [], frame).map(box)
    for (let i = 0; i < 3; i++)
      for (let j = 0; j < i; j++) {
        const [a, b] = [placed[i], placed[j]]
        expect(a.r <= b.l || b.r <= a.l || a.b <= b.t || b.b <= a.t).toBe(true)
      }
  })

  it('keep off balls and lines where there is room', () => {
    const line = Array.from({ length: 40 }, (_, i) => ({ x: 1000 + i * 25, y: 900 }))
    const b = box(placeLabels([label('a', 1000, 900)], line, frame)[0])
    expect(line.some((p) => p.x > b.l && p.x < b.r && p.y > b.t && p.y < b.b)).toBe(false)
  })
})
