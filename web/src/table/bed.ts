import type { Reference } from '../api/client'

/** How far the drawing goes beyond the noses, mm. */
export const cushionDepth = 46
export const rail = 62
const ruler = 92
/** The middle pockets stand out a little beyond the rail. */
const margin = 34

/** Of the two drawings that lie on one another: the table, and what is on it. Millimetres, the screen's y down. */
export function viewBoxOf(r: Pick<Reference, 'length' | 'width'>) {
  const edge = rail + cushionDepth
  return `${-edge - ruler} ${-edge - margin} ${r.length * 1000 + 2 * edge + ruler + 4} ${r.width * 1000 + 2 * edge + margin + ruler}`
}
