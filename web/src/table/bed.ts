import { computed, inject, provide, type ComputedRef, type InjectionKey } from 'vue'
import type { Reference } from '../api/client'

/** How far the drawing goes beyond the noses, mm: rubber, then wood. */
export const cushionDepth = 46
export const rail = 76
/** The middle pockets stand out a little beyond the rail. */
const margin = 14

/** The whole drawing: millimetres, y down, the noses' corner at the origin. */
export function boundsOf(r: Pick<Reference, 'length' | 'width'>) {
  const edge = rail + cushionDepth + margin
  return { left: -edge, top: -edge, width: r.length * 1000 + 2 * edge, height: r.width * 1000 + 2 * edge }
}

/** Width over height of the whole drawing of a table of full size. */
export const aspect = (3569 + 2 * (rail + cushionDepth + margin)) / (1778 + 2 * (rail + cushionDepth + margin))

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
