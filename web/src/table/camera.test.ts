// @vitest-environment node
import { describe, expect, it } from 'vitest'
import { boxAround, turnedBox, turnedPoint, unturnedPoint, viewOf, wholePerPixel, within, zoomedAt, type View } from './camera'

const bounds = { left: -136, top: -136, width: 3841, height: 2050 }
const size = { width: 860, height: 460 }
/** What is seen of the drawing in a view. */
const seen = (view: View) => {
  const unit = wholePerPixel(bounds, size) / view.zoom
  return { left: view.x - (size.width * unit) / 2, top: view.y - (size.height * unit) / 2, unit }
}
/** Where a point of the drawing is on the screen, px. */
const onScreen = (view: View, p: { x: number; y: number }) => {
  const { left, top, unit } = seen(view)
  return { x: (p.x - left) / unit, y: (p.y - top) / unit }
}
const whole = within({ x: 0, y: 0, zoom: 1 }, bounds, size)

describe('the camera', () => {
  it('shows all of the drawing in the middle of the frame at first', () => {
    const { left, top, unit } = seen(whole)
    expect(left).toBeLessThanOrEqual(bounds.left + 1e-6)
    expect(top).toBeLessThanOrEqual(bounds.top + 1e-6)
    expect(left + size.width * unit).toBeGreaterThanOrEqual(bounds.left + bounds.width - 1e-6)
    expect(whole.x).toBeCloseTo(bounds.left + bounds.width / 2)
  })

  it('keeps the point under the pointer where it is while it looks closer and back', () => {
    const at = { x: 2600, y: 700 }
    let view = zoomedAt(whole, 2, at, bounds, size)
    const there = onScreen(view, at)
    for (const factor of [1.7, 1.3, 0.9]) {
      view = zoomedAt(view, factor, at, bounds, size)
      expect(onScreen(view, at).x).toBeCloseTo(there.x, 6)
      expect(onScreen(view, at).y).toBeCloseTo(there.y, 6)
    }
  })

  it('never shows what is beside the drawing where it is larger than the frame', () => {
    for (const [x, y] of [
      [-9000, -9000],
      [9000, 9000],
      [0, 9000],
    ]) {
      const view = within({ x, y, zoom: 3 }, bounds, size)
      const { left, top, unit } = seen(view)
      expect(left).toBeGreaterThanOrEqual(bounds.left - 1e-6)
      expect(top).toBeGreaterThanOrEqual(bounds.top - 1e-6)
      expect(left + size.width * unit).toBeLessThanOrEqual(bounds.left + bounds.width + 1e-6)
      expect(top + size.height * unit).toBeLessThanOrEqual(bounds.top + bounds.height + 1e-6)
    }
  })

  it('goes no farther off than the whole and no closer than a ball that fills a tenth of the frame', () => {
    expect(within({ x: 0, y: 0, zoom: 0.2 }, bounds, size).zoom).toBe(1)
    expect(within({ x: 0, y: 0, zoom: 99 }, bounds, size).zoom).toBe(10)
  })

  it('frames what matters: all of it in sight, and as large as fits', () => {
    const box = boxAround(
      [
        { x: 2200, y: 400 },
        { x: 2900, y: 800 },
      ],
      100,
    )!
    const view = viewOf(box, bounds, size)
    const [a, b] = [onScreen(view, { x: box.left, y: box.top }), onScreen(view, { x: box.left + box.width, y: box.top + box.height })]
    expect(Math.min(a.x, a.y)).toBeGreaterThanOrEqual(-1e-6)
    expect(b.x).toBeLessThanOrEqual(size.width + 1e-6)
    expect(b.y).toBeLessThanOrEqual(size.height + 1e-6)
    expect(Math.max((b.x - a.x) / size.width, (b.y - a.y) / size.height)).toBeCloseTo(1, 6)
    expect(boxAround([])).toBeNull()
  })

  it('stands upright with baulk below and the yellow at the right, and finds its way back', () => {
    // The yellow's spot, the green's, and the black's, in the drawing's mm with y down.
    const [yellow, green, black] = [
      { x: 737, y: 1181 },
      { x: 737, y: 597 },
      { x: 3245, y: 889 },
    ].map(turnedPoint)
    expect(yellow.x).toBeGreaterThan(green.x)
    expect(yellow.y).toBeCloseTo(green.y)
    expect(black.y).toBeLessThan(green.y)
    expect(unturnedPoint(turnedPoint({ x: 12, y: 34 }))).toEqual({ x: 12, y: 34 })
    const box = turnedBox(bounds)
    expect([box.width, box.height]).toEqual([bounds.height, bounds.width])
    expect(yellow.x).toBeLessThan(box.left + box.width)
    expect(black.y).toBeGreaterThan(box.top)
  })
})
