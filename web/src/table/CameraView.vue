<script setup lang="ts">
import { useElementSize, useEventListener } from '@vueuse/core'
import { computed, provide, ref, useId } from 'vue'
import { cameraKey, turnedPoint, unturnedPoint, useCamera, type Box } from './camera'
import type { Grip, Hand, Hands } from './hands'
import type { Point } from './layer'

/**
 * A drawing looked at through a camera: wheel, pinch, double tap and drag move it; what else the hands do is the drawing's own. Slots: `bed`
 * (drawn by itself beneath, so that what moves does not paint it anew), the drawing, and `over`, which stays upright.
 */
const props = defineProps<{
  bounds: Box
  /** Whether it stands upright. */
  isTurned?: boolean
  hands?: Hands
  /** The wheel scrolls the page unless Ctrl is held. */
  isInPage?: boolean
  /** A drag with nothing in hand belongs to the drawing, so that it cannot scroll the page. */
  isHeld?: boolean
}>()
const frame = ref<HTMLElement>()
const surface = ref<SVGSVGElement>()
const { width, height } = useElementSize(frame)
const camera = useCamera(
  computed(() => props.bounds),
  computed(() => !!props.isTurned),
  { width, height },
)
provide(cameraKey, camera)
const id = useId()
const turn = computed(() => (props.isTurned ? 'rotate(-90)' : undefined))

/** Where a point of the screen is, in units of the drawing as it stands. */
function standingAt(clientX: number, clientY: number): Point {
  const box = frame.value!.getBoundingClientRect()
  const { left, top } = camera.seen.value
  const unit = camera.perPixel.value
  return { x: left + (clientX - box.left) * unit, y: top + (clientY - box.top) * unit }
}
function handAt(e: { clientX: number; clientY: number; pointerType?: string; shiftKey?: boolean }): Hand {
  const at = standingAt(e.clientX, e.clientY)
  const box = frame.value!.getBoundingClientRect()
  return {
    ...(props.isTurned ? unturnedPoint(at) : at),
    perPixel: camera.perPixel.value,
    isTouch: e.pointerType === 'touch',
    isShifted: !!e.shiftKey,
    isOutside: e.clientX < box.left || e.clientX > box.right || e.clientY < box.top || e.clientY > box.bottom,
  }
}

// ---- Hands: one holds something or moves the camera, two pinch ----
const pointers = new Map<number, { x: number; y: number }>()
let grip: Grip | null = null
let panning: { x: number; y: number; isMoved: boolean } | null = null
let pinch: { apart: number; x: number; y: number } | null = null
let lastTap: { time: number; x: number; y: number } | null = null
/** What the hand is over, while a finger would cover it. */
const glassOver = ref<(Point & { words: string }) | null>(null)

const tapSlop = 6
function pinchOf() {
  const [a, b] = [...pointers.values()]
  return { apart: Math.hypot(a.x - b.x, a.y - b.y), x: (a.x + b.x) / 2, y: (a.y + b.y) / 2 }
}

function down(e: PointerEvent) {
  if (e.pointerType === 'touch') {
    pointers.set(e.pointerId, { x: e.clientX, y: e.clientY })
    if (pointers.size === 2) {
      grip?.cancel?.()
      grip = panning = null
      glassOver.value = null
      pinch = pinchOf()
      surface.value!.setPointerCapture(e.pointerId)
      return
    }
    if (pointers.size > 2) return
  }
  if (e.button !== 0 && e.button !== 1) return
  const hand = handAt(e)
  grip = e.button === 0 ? (props.hands?.down(hand) ?? null) : null
  if (grip) {
    glass(hand)
    // By the hand: the ring around what has the focus is for the keyboard.
    surface.value!.focus({ preventScroll: true, focusVisible: false } as FocusOptions)
    e.preventDefault()
  } else if (isDoubleTap(e)) {
    if (camera.isWhole.value) camera.zoomBy(2.6, standingAt(e.clientX, e.clientY))
    else camera.showWhole()
    e.preventDefault()
    return
  } else if (!camera.isWhole.value || e.button === 1) panning = { x: e.clientX, y: e.clientY, isMoved: false }
  else return
  surface.value!.setPointerCapture(e.pointerId)
}
function isDoubleTap(e: PointerEvent) {
  const tap = { time: e.timeStamp, x: e.clientX, y: e.clientY }
  const isSecond = !!lastTap && tap.time - lastTap.time < 320 && Math.hypot(tap.x - lastTap.x, tap.y - lastTap.y) < 24
  lastTap = isSecond ? null : tap
  return isSecond
}

function move(e: PointerEvent) {
  if (pointers.has(e.pointerId)) pointers.set(e.pointerId, { x: e.clientX, y: e.clientY })
  if (pinch && pointers.size === 2) {
    const now = pinchOf()
    camera.panBy(now.x - pinch.x, now.y - pinch.y)
    if (pinch.apart > 0) camera.zoomBy(now.apart / pinch.apart, standingAt(now.x, now.y), false)
    pinch = now
    return
  }
  if (grip) {
    const hand = handAt(e)
    grip.move(hand)
    return glass(hand)
  }
  if (!panning) return props.hands?.hover?.(handAt(e))
  const [dx, dy] = [e.clientX - panning.x, e.clientY - panning.y]
  if (!panning.isMoved && Math.hypot(dx, dy) < tapSlop) return
  panning = { x: e.clientX, y: e.clientY, isMoved: true }
  camera.panBy(dx, dy)
}

function up(e: PointerEvent) {
  pointers.delete(e.pointerId)
  if (pointers.size < 2) pinch = null
  panning = null
  glassOver.value = null
  const held = grip
  grip = null
  if (e.type === 'pointercancel') held?.cancel?.()
  else held?.up(handAt(e))
}

function glass(hand: Hand) {
  glassOver.value = grip?.glass && hand.isTouch ? { x: hand.x, y: hand.y, words: grip.glass(hand) } : null
}
/** Above the finger; where there is no room, beside it. All in units of the drawing as it stands. */
const glassDrawn = computed(() => {
  const over = glassOver.value
  if (!over) return null
  const unit = camera.perPixel.value
  const at = props.isTurned ? turnedPoint(over) : over
  const { left, top, width } = camera.seen.value
  const r = 54 * unit
  const isAbove = at.y - 152 * unit > top
  const x = isAbove ? at.x : at.x + (at.x - left > width / 2 ? -1 : 1) * 116 * unit
  return {
    at,
    words: over.words,
    r,
    x: Math.min(left + width - r, Math.max(left + r, x)),
    y: Math.max(top + r, isAbove ? at.y - 98 * unit : at.y),
    unit,
  }
})
const glassZoom = 2.4

function wheel(e: WheelEvent) {
  if (props.isInPage && !e.ctrlKey && !e.metaKey) return
  e.preventDefault()
  const lines = e.deltaMode === 1 ? 18 : 1
  camera.zoomBy(Math.exp(-e.deltaY * lines * (e.ctrlKey ? 0.008 : 0.0018)), standingAt(e.clientX, e.clientY), false)
}
useEventListener(frame, 'wheel', wheel, { passive: false })

const leave = () => props.hands?.hover?.(null)

defineExpose({
  camera,
  focus: () => surface.value?.focus({ preventScroll: true }),
  /** Where a point of the screen is in the drawing; null beside it. */
  handUnder(clientX: number, clientY: number) {
    const hand = handAt({ clientX, clientY })
    return hand.isOutside ? null : hand
  },
})
defineOptions({ inheritAttrs: false })
</script>

<template>
  <div ref="frame" class="camera-view">
    <svg v-if="$slots.bed" class="bed" :viewBox="camera.viewBox.value" aria-hidden="true">
      <g :id="`${id}-bed`" :transform="turn"><slot name="bed" /></g>
    </svg>
    <svg
      ref="surface"
      v-bind="$attrs"
      class="surface"
      :class="{ held: isHeld || !camera.isWhole.value, moves: !camera.isWhole.value }"
      :viewBox="camera.viewBox.value"
      :style="{ '--u': (camera.perPixel.value / 4.4).toFixed(4) }"
      @touchstart="(isHeld || !camera.isWhole.value) && $event.cancelable && $event.preventDefault()"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="up"
      @pointerleave="leave"
    >
      <g :id="`${id}-drawing`" :transform="turn"><slot /></g>
      <slot name="over" />
      <g v-if="glassDrawn" class="glass" data-testid="glass">
        <clipPath :id="`${id}-glass`"><circle :cx="glassDrawn.x" :cy="glassDrawn.y" :r="glassDrawn.r" /></clipPath>
        <circle :cx="glassDrawn.x" :cy="glassDrawn.y" :r="glassDrawn.r" class="ground" />
        <g :clip-path="`url(#${id}-glass)`">
          <g
            :transform="`translate(${glassDrawn.x - glassZoom * glassDrawn.at.x} ${glassDrawn.y - glassZoom * glassDrawn.at.y}) scale(${glassZoom})`"
          >
            <use v-if="$slots.bed" :href="`#${id}-bed`" />
            <use :href="`#${id}-drawing`" />
          </g>
        </g>
        <circle :cx="glassDrawn.x" :cy="glassDrawn.y" :r="glassDrawn.r" class="rim" />
        <text :x="glassDrawn.x" :y="glassDrawn.y + 42 * glassDrawn.unit" :font-size="11.5 * glassDrawn.unit">{{ glassDrawn.words }}</text>
      </g>
    </svg>
  </div>
</template>

<style scoped>
.camera-view {
  position: absolute;
  inset: 0;
  overflow: hidden;
}
.bed,
.surface {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  font-family: var(--font);
}
.bed {
  /* A layer of its own for the painter. */
  will-change: transform;
}
.surface {
  user-select: none;
  touch-action: pan-y;
}
.surface.held {
  touch-action: none;
}
.surface.moves {
  cursor: grab;
}
.surface:focus-visible {
  outline-offset: -2px;
}
.glass {
  pointer-events: none;
}
.glass .ground {
  fill: var(--cloth);
}
.glass .rim {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(10px * var(--u));
}
.glass text {
  fill: var(--chalk);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--cloth-deep);
  stroke-width: calc(14px * var(--u));
  font-weight: 650;
}
</style>
