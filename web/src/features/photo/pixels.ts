/** Part of a picture, as a canvas gives it: four bytes for a pixel, line by line. */
export type Pixels = { data: ArrayLike<number>; width: number; height: number }
export type Place = { u: number; v: number }

/** Colours that change by less, of 255, are nothing. */
export const least = 8

/** What stands out of a picture's noise: of changes taken anywhere, most are noise alone. Three times their third lowest tenth. */
export function aboveNoise(changes: number[]) {
  const inOrder = [...changes].sort((a, b) => a - b)
  return Math.max(least, 3 * (inOrder[Math.floor(0.3 * inOrder.length)] ?? 0))
}

/** How much colours change at a place, in a direction: across so many pixels either way. */
export function changeOf(pixels: Pixels) {
  const colour = colourOf(pixels)
  return ({ u, v }: Place, along: Place, wide: number) => {
    const before = colour(u - wide * along.u, v - wide * along.v)
    const after = colour(u + wide * along.u, v + wide * along.v)
    return before && after ? Math.hypot(before[0] - after[0], before[1] - after[1], before[2] - after[2]) : 0
  }
}

/** Between the pixels, whose middles lie at halves; nothing outside of the picture. */
function colourOf({ data, width, height }: Pixels) {
  return (u: number, v: number): [number, number, number] | null => {
    const [x, y] = [u - 0.5, v - 0.5]
    const [i, j] = [Math.floor(x), Math.floor(y)]
    if (i < 0 || j < 0 || i + 1 >= width || j + 1 >= height) return null
    const [fx, fy] = [x - i, y - j]
    const at = 4 * (j * width + i)
    const below = at + 4 * width
    const mix = (k: number) =>
      (1 - fy) * ((1 - fx) * data[at + k] + fx * data[at + 4 + k]) + fy * ((1 - fx) * data[below + k] + fx * data[below + 4 + k])
    return [mix(0), mix(1), mix(2)]
  }
}

/** Where a figure has its greatest peaks, the greatest first, each to a part of the step by the parabola through its neighbours. */
export function peaks(of: (r: number) => number, from: number, to: number, step: number, floor = least) {
  const values: number[] = []
  for (let r = from; r <= to; r += step) values.push(of(r))
  return values
    .flatMap((height, i) => {
      const [before, after] = [values[i - 1], values[i + 1]]
      if (before === undefined || after === undefined || height < floor || height < before || height <= after) return []
      return [{ at: from + (i + (0.5 * (before - after)) / (before - 2 * height + after)) * step, height }]
    })
    .sort((a, b) => b.height - a.height)
    .slice(0, 3)
}
