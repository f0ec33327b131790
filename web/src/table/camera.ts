import { useMediaQuery, useRafFn } from '@vueuse/core'
import { computed, inject, ref, shallowRef, type ComputedRef, type InjectionKey, type Ref } from 'vue'
import type { Point } from './layer'

/** A part of a drawing, in its own units (mm of the table, px of a photograph), y down. */
export type Box = { left: number; top: number; width: number; height: number }
/** What the camera looks at: the middle, in units of the drawing as it stands on the screen, and how much closer than the whole. */
export type View = { x: number; y: number; zoom: number }

/** The whole drawing is zoom 1; nobody needs a ball larger than at the closest. */
export const closest = 10
const glideSeconds = 0.24

/** A drawing that is turned upright: its left end is below, its lower side at the right. */
export const turnedPoint = (p: Point): Point => ({ x: p.y, y: -p.x })
export const unturnedPoint = (p: Point): Point => ({ x: -p.y, y: p.x })
export const turnedBox = (b: Box): Box => ({ left: b.top, top: -(b.left + b.width), width: b.height, height: b.width })

/** The smallest box around points; null without any. */
export function boxAround(points: readonly Point[], margin = 0): Box | null {
  if (!points.length) return null
  const [xs, ys] = [points.map((p) => p.x), points.map((p) => p.y)]
  const [left, top] = [Math.min(...xs) - margin, Math.min(...ys) - margin]
  return { left, top, width: Math.max(...xs) + margin - left, height: Math.max(...ys) + margin - top }
}

/** Units of the drawing for a px of the screen when all of it is seen. */
export const wholePerPixel = (bounds: Box, size: { width: number; height: number }) =>
  Math.max(bounds.width / Math.max(1, size.width), bounds.height / Math.max(1, size.height))

/** A view that shows nothing but the drawing where it is larger than the frame, and has it in the middle where it is smaller. */
export function within(view: View, bounds: Box, size: { width: number; height: number }): View {
  const zoom = Math.min(closest, Math.max(1, view.zoom))
  const unit = wholePerPixel(bounds, size) / zoom
  const held = (v: number, start: number, length: number, seen: number) =>
    seen >= length ? start + length / 2 : Math.min(start + length - seen / 2, Math.max(start + seen / 2, v))
  return {
    zoom,
    x: held(view.x, bounds.left, bounds.width, size.width * unit),
    y: held(view.y, bounds.top, bounds.height, size.height * unit),
  }
}

/** The view in which a box fills the frame. */
export function viewOf(box: Box, bounds: Box, size: { width: number; height: number }): View {
  const zoom = wholePerPixel(bounds, size) / wholePerPixel(box, size)
  return within({ x: box.left + box.width / 2, y: box.top + box.height / 2, zoom }, bounds, size)
}

/** The view after looking closer by a factor, with the same point of the drawing under the pointer. */
export function zoomedAt(view: View, factor: number, at: Point, bounds: Box, size: { width: number; height: number }): View {
  const zoom = Math.min(closest, Math.max(1, view.zoom * factor))
  const share = view.zoom / zoom
  return within({ zoom, x: at.x + (view.x - at.x) * share, y: at.y + (view.y - at.y) * share }, bounds, size)
}

/** A camera over a drawing. Points and boxes are in the drawing's own units, unturned. */
export function useCamera(bounds: ComputedRef<Box>, isTurned: ComputedRef<boolean>, size: { width: Ref<number>; height: Ref<number> }) {
  const standing = computed(() => (isTurned.value ? turnedBox(bounds.value) : bounds.value))
  const frame = computed(() => ({ width: size.width.value || 800, height: size.height.value || 430 }))
  const wanted = ref<View | null>(null)
  const isCalm = useMediaQuery('(prefers-reduced-motion: reduce)')

  const whole = computed<View>(() => within({ x: 0, y: 0, zoom: 1 }, standing.value, frame.value))
  const view = computed(() => (wanted.value ? within(wanted.value, standing.value, frame.value) : whole.value))
  const perPixel = computed(() => wholePerPixel(standing.value, frame.value) / view.value.zoom)
  /** What is seen, in units of the drawing as it stands. */
  const seen = computed<Box>(() => {
    const [width, height] = [frame.value.width * perPixel.value, frame.value.height * perPixel.value]
    return { left: view.value.x - width / 2, top: view.value.y - height / 2, width, height }
  })
  const viewBox = computed(() => [seen.value.left, seen.value.top, seen.value.width, seen.value.height].map((v) => v.toFixed(2)).join(' '))
  const isWhole = computed(() => view.value.zoom < 1.001)

  const place = (p: Point) => (isTurned.value ? turnedPoint(p) : p)

  let from: View | null = null
  let to: View | null = null
  let elapsed = 0
  const glide = useRafFn(
    ({ delta }) => {
      if (!from || !to) return glide.pause()
      elapsed += Math.min(delta, 50) / 1000
      const t = Math.min(1, elapsed / glideSeconds)
      const ease = 1 - (1 - t) ** 3
      wanted.value = {
        x: from.x + (to.x - from.x) * ease,
        y: from.y + (to.y - from.y) * ease,
        zoom: from.zoom * (to.zoom / from.zoom) ** ease,
      }
      if (t < 1) return
      wanted.value = to.zoom < 1.001 ? null : to
      from = to = null
      glide.pause()
    },
    { immediate: false },
  )
  function stop() {
    glide.pause()
    from = to = null
  }
  /** Moves smoothly, and at once where motion is not wanted. */
  function go(target: View) {
    stop()
    if (isCalm.value) return void (wanted.value = target.zoom < 1.001 ? null : target)
    ;[from, to, elapsed] = [view.value, target, 0]
    glide.resume()
  }

  /** Looks closer by a factor at a point of the drawing as it stands; its middle unless said. */
  function zoomBy(factor: number, at: Point = view.value, isGliding = true) {
    const target = zoomedAt(view.value, factor, at, standing.value, frame.value)
    if (isGliding) return go(target)
    stop()
    wanted.value = target.zoom < 1.001 ? null : target
  }
  /** Moves what is seen with the hand, px of the screen. */
  function panBy(dx: number, dy: number) {
    stop()
    wanted.value = within(
      { ...view.value, x: view.value.x - dx * perPixel.value, y: view.value.y - dy * perPixel.value },
      standing.value,
      frame.value,
    )
  }
  const show = (box: Box) => go(viewOf(isTurned.value ? turnedBox(box) : box, standing.value, frame.value))
  const showWhole = () => go(whole.value)
  /** Shows a box without gliding: as a drawing is opened. */
  function openAt(box: Box | null) {
    stop()
    wanted.value = box && viewOf(isTurned.value ? turnedBox(box) : box, standing.value, frame.value)
  }

  return { view, seen, viewBox, perPixel, isWhole, isTurned, place, zoomBy, panBy, show, showWhole, openAt }
}
export type Camera = ReturnType<typeof useCamera>

export const cameraKey: InjectionKey<Camera> = Symbol('camera')
/** The camera over the drawing that this is part of. */
export const useCameraHere = () => inject(cameraKey)!

/** What the plan of the table offers to commands and to what is carried onto it from outside. */
export type PlanControl = {
  camera: Camera
  /** Frames the balls and lines of the step. */
  showWhatMatters: () => void
  /** Looks closer by a factor, about a place on the table (m), or about the middle of what is seen. */
  lookAt: (factor: number, place: Point | null) => void
  /** The place under a point of the screen, m; null beside the plan. */
  placeUnder: (clientX: number, clientY: number) => Point | null
}
export const planControl = shallowRef<PlanControl | null>(null)
