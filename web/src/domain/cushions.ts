type Point = { x: number; y: number }
type Sizes = { length: number; width: number }

/** How far a place is from each cushion's nose, m. */
export const cushionDistances = ({ x, y }: Point, { length, width }: Sizes): Record<string, number> => ({
  baulk: x,
  top: length - x,
  'yellow-side': y,
  'green-side': width - y,
})

/** The cushion that a place is nearest to. */
export const nearestCushion = (at: Point, sizes: Sizes) =>
  Object.entries(cushionDistances(at, sizes)).reduce((nearest, one) => (one[1] < nearest[1] ? one : nearest))[0]
