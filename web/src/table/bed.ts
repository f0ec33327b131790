import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue'
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

/** The drawings' measures: millimetres, the screen's y down, of the table's metres with y up. */
export function drawingOf(reference: ComputedRef<Reference>) {
  const length = computed(() => reference.value.length * 1000)
  const width = computed(() => reference.value.width * 1000)
  const radius = computed(() => reference.value.ballRadius * 1000)
  const sx = (x: number) => x * 1000
  const sy = (y: number) => width.value - y * 1000
  const points = (list: readonly { x: number; y: number }[]) => list.map((p) => `${sx(p.x).toFixed(1)},${sy(p.y).toFixed(1)}`).join(' ')
  const outlinePath = (outlines: readonly (readonly { x: number; y: number }[])[]) => outlines.map((o) => `M ${points(o)} Z`).join(' ')
  return { reference, length, width, radius, sx, sy, points, outlinePath }
}

const key: InjectionKey<ReturnType<typeof drawingOf>> = Symbol('drawing')

/** For all drawings within: the table they are of. */
export const provideDrawing = (reference: ComputedRef<Reference>) => provide(key, drawingOf(reference))
export const useDrawing = () => inject(key)!
