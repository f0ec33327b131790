<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Pocket } from '../api/client'
import { isRed, lookOf, nameOf, pocketName } from '../domain/balls'
import { useDrawing, viewBoxOf } from './bed'
import { between, placeLabels } from './labels'
import type { Layer, Point } from './layer'

/**
 * What lies and happens on the table, to scale in millimetres, baulk at the left and the yellow's side below; TableBed lies beneath.
 * Here are the balls, the aim, the labels and the hands; what is drawn besides comes from layers.
 */
/** z: how high it is off the bed, m. */
type Lying = Point & { id: string; z?: number }

/** The light falls aslant: a ball that is off the bed parts from its shadow by so many times its height. */
const shadowSlope = 2
const props = defineProps<{
  balls: readonly Lying[]
  pockets: readonly Pocket[]
  layers: readonly Layer[]
  /** The ball in hand. */
  selected: string
  /** The pocket that is played into. */
  wanted?: string | null
  /** From where and in which direction, degrees, the white is aimed; null while it cannot be. */
  aim: (Point & { degrees: number }) | null
  /** Another table is looked at: nothing can be taken in hand. */
  isLocked?: boolean
  /** Moves a ball as near as it can rest. */
  drag: (id: string, x: number, y: number) => Promise<void>
}>()
const emit = defineEmits<{ take: [id: string]; aimAt: [degrees: number]; pocket: [name: string]; done: [] }>()
const { reference, length, width, radius, sx, sy } = useDrawing()

/** Letters are sized in mm of the table for a plan so wide, px; on a narrower one they are larger, so that they can still be read. */
const readableWidth = 850
const svg = ref<SVGSVGElement>()
const { width: drawnWidth } = useElementSize(svg)
const enlarged = computed(() => Math.min(1.7, Math.max(1, readableWidth / (drawnWidth.value || readableWidth))))

const onDrawing = (p: Point) => ({ x: sx(p.x), y: sy(p.y) })
const marks = computed(() => props.layers.flatMap((l) => l.marks?.() ?? []))
const numbered = computed(() => new Set(props.layers.flatMap((l) => l.named?.() ?? [])))
/** What the drawing calls its lines and marks, each put where it covers least; those that come first choose first. */
const labels = computed(() => {
  const namings = props.layers.flatMap((l) => l.namings?.() ?? [])
  if (!namings.length) return []
  const obstacles = [
    ...props.balls.map(onDrawing),
    ...props.layers
      .flatMap((l) => l.lines?.() ?? [])
      .flatMap((line) => line.flatMap((p, i) => between(onDrawing(p), line[i + 1] && onDrawing(line[i + 1])))),
  ]
  return placeLabels(
    namings.map(({ at, size = 56, ...n }) => ({ ...n, size: size * enlarged.value, ...onDrawing(at) })),
    obstacles,
    { left: 0, top: 0, right: length.value, bottom: width.value },
  )
})

// ---- The aim: a line ahead of the white with a handle to drag ----
const aimHandle = computed(() => {
  if (!props.aim) return null
  const a = (props.aim.degrees * Math.PI) / 180
  const [dx, dy] = [Math.cos(a), Math.sin(a)]
  // As far as 0.45 m, less if the cushion comes first.
  const room = (p: number, d: number, max: number) => (d > 0 ? (max - p) / d : d < 0 ? -p / d : Infinity)
  const far = Math.max(0.09, Math.min(0.45, room(props.aim.x, dx, reference.value.length), room(props.aim.y, dy, reference.value.width)))
  return { x: props.aim.x + far * dx, y: props.aim.y + far * dy }
})

// ---- Hands ----
/** The ball in the hand, drawn where the hand is; the word on where it can rest corrects it once the hand lets go. */
const held = ref<Lying | null>(null)
let gesture: { kind: 'ball' | 'aim' | 'layer'; id: string; moved: boolean; dx: number; dy: number; to?: (at: Point) => void } | null = null

function toTable(e: PointerEvent) {
  const matrix = svg.value!.getScreenCTM()!
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse())
  return { x: p.x / 1000, y: (width.value - p.y) / 1000, perPixel: 1 / matrix.a / 1000 }
}

function down(e: PointerEvent) {
  if (e.button !== 0 || props.isLocked) return
  const at = toTable(e)
  const reach = (e.pointerType === 'touch' ? 24 : 14) * at.perPixel
  const near = <T extends Point>(list: readonly T[]) =>
    list.map((t) => ({ t, d: Math.hypot(t.x - at.x, t.y - at.y) })).sort((a, b) => a.d - b.d)[0]
  const ball = near(props.balls)
  const handle = aimHandle.value && Math.hypot(aimHandle.value.x - at.x, aimHandle.value.y - at.y)
  if (ball && ball.d < Math.max(reach, reference.value.ballRadius) && !(handle !== null && handle < ball.d)) {
    emit('take', ball.t.id)
    gesture = { kind: 'ball', id: ball.t.id, moved: false, dx: ball.t.x - at.x, dy: ball.t.y - at.y }
  } else if (handle !== null && handle < reach * 1.4) {
    gesture = { kind: 'aim', id: '', moved: false, dx: 0, dy: 0 }
  } else {
    const to = props.layers.map((l) => l.grip?.({ ...at, reach })).find(Boolean)
    if (!to) {
      const pocket = near(props.pockets.map((p) => ({ ...p.drop, name: p.name })))
      if (pocket && pocket.d < 0.13) emit('pocket', pocket.t.name)
      return
    }
    gesture = { kind: 'layer', id: '', moved: true, dx: 0, dy: 0, to }
    to(at)
  }
  svg.value!.setPointerCapture(e.pointerId)
  svg.value!.focus({ preventScroll: true })
  e.preventDefault()
}

const hover = (at: Point | null) => props.layers.forEach((l) => l.hover?.(at))

function move(e: PointerEvent) {
  const at = toTable(e)
  if (!gesture) return hover(at)
  if (gesture.kind === 'aim') {
    gesture.moved = true
    emit('aimAt', (Math.atan2(at.y - props.aim!.y, at.x - props.aim!.x) * 180) / Math.PI)
    return
  }
  if (gesture.kind === 'layer') return gesture.to!(at)
  const { id } = gesture
  const ball = props.balls.find((b) => b.id === id)
  const to = { x: at.x + gesture.dx, y: at.y + gesture.dy }
  if (!ball || (!gesture.moved && Math.hypot(to.x - ball.x, to.y - ball.y) < 3 * at.perPixel)) return
  gesture.moved = true
  held.value = { id, ...onBed(to) }
  void props.drag(id, to.x, to.y)
}

async function up(e: PointerEvent) {
  if (!gesture) return
  const { kind, id, moved, dx, dy } = gesture
  gesture = null
  if (kind === 'ball' && moved) {
    const at = toTable(e)
    const letGo = held.value
    await props.drag(id, at.x + dx, at.y + dy)
    // Unless the next one is in hand by now.
    if (held.value === letGo) held.value = null
  }
  if (moved) emit('done')
}

/** The nearest place on the bed. */
function onBed(p: Point) {
  const { ballRadius, length, width } = reference.value
  const within = (v: number, most: number) => Math.min(most - ballRadius, Math.max(ballRadius, v))
  return { x: within(p.x, length), y: within(p.y, width) }
}

const shownBalls = computed(() => props.balls.map((b) => (b.id === held.value?.id ? held.value : b)))
const description = computed(
  () =>
    `Table plan with ${props.balls.length} balls. Arrow keys move the ${nameOf(props.selected)}, comma and full stop choose another ball.`,
)
</script>

<template>
  <svg
    ref="svg"
    class="plan"
    :viewBox="viewBoxOf(reference)"
    role="application"
    tabindex="0"
    :aria-label="description"
    data-testid="plan"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
    @pointerleave="hover(null)"
  >
    <g v-for="p in pockets" :key="p.name" class="pocket" :class="{ wanted: wanted === p.name }">
      <circle :cx="sx(p.drop.x)" :cy="sy(p.drop.y)" :r="p.drop.radius * 1000 + radius * 0.35" />
      <title>{{ pocketName(p.name) }} pocket</title>
    </g>

    <component :is="l.component" v-for="l in layers" :key="l.key" />
    <g v-if="aim && aimHandle" class="aim">
      <line :x1="sx(aim.x)" :y1="sy(aim.y)" :x2="sx(aimHandle.x)" :y2="sy(aimHandle.y)" />
      <rect
        :x="sx(aimHandle.x) - 17"
        :y="sy(aimHandle.y) - 17"
        width="34"
        height="34"
        :transform="`rotate(45 ${sx(aimHandle.x)} ${sy(aimHandle.y)})`"
        data-testid="aim-handle"
      />
    </g>
    <g class="balls">
      <g v-for="b in shownBalls" :key="b.id" :transform="`translate(${sx(b.x).toFixed(2)} ${sy(b.y).toFixed(2)})`" :data-ball="b.id">
        <circle v-if="b.z" :cx="1000 * shadowSlope * b.z" :cy="1000 * shadowSlope * b.z" :r="radius" class="shadow" data-testid="shadow" />
        <circle v-if="b.id === selected" :r="radius + 14" class="selected" />
        <circle :r="radius" :fill="lookOf(b.id).fill" class="ball" :class="{ dark: b.id === 'black' }" />
        <text v-if="!isRed(b.id)" :fill="lookOf(b.id).ink">{{ lookOf(b.id).mark }}</text>
        <text v-else-if="numbered.has(b.id)" fill="#fff">{{ b.id.slice(4) }}</text>
        <circle v-else r="6" fill="#fff" />
        <title>{{ nameOf(b.id) }}</title>
      </g>
    </g>
    <g class="labels">
      <circle v-for="m in marks" :key="m.key" :cx="sx(m.x)" :cy="sy(m.y)" r="9" class="mark" />
      <template v-for="l in labels" :key="`${l.key}-leader`">
        <line v-if="l.leader" :x1="l.x" :y1="l.y" :x2="l.leader.x" :y2="l.leader.y" class="leader" />
      </template>
      <text v-for="l in labels" :key="l.key" :x="l.left" :y="l.baseline" :class="l.kind" :font-size="l.size">{{ l.text }}</text>
    </g>
  </svg>
</template>

<style scoped>
.plan {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  touch-action: none;
  user-select: none;
  font-family: var(--font);
}
.plan:focus-visible {
  outline-offset: -2px;
}
.pocket {
  cursor: pointer;
  fill: transparent;
}
.pocket:hover circle,
.pocket.wanted circle {
  stroke: var(--brass);
  stroke-width: 9;
}
.labels text.missed {
  fill: #ffb3a2;
}
.aim line {
  stroke: var(--brass);
  stroke-width: 5;
}
.aim rect {
  fill: var(--brass);
  stroke: #231a05;
  stroke-width: 4;
  cursor: grab;
}
.ball {
  stroke: #06181a;
  stroke-width: 3;
  cursor: grab;
}
.shadow {
  fill: rgb(0 0 0 / 0.45);
}
.ball.dark {
  stroke: #b9c2ba;
}
.balls text {
  font-size: 38px;
  font-weight: 700;
  text-anchor: middle;
  dominant-baseline: central;
  pointer-events: none;
}
.selected {
  fill: none;
  stroke: var(--brass);
  stroke-width: 7;
}
.labels {
  pointer-events: none;
}
.leader {
  stroke: var(--chalk-soft);
  stroke-width: 3;
  stroke-dasharray: 4 6;
}
.mark {
  fill: var(--cloth-deep);
  stroke: var(--chalk);
  stroke-width: 5;
}
.labels text {
  fill: var(--chalk);
  paint-order: stroke;
  stroke: var(--cloth-deep);
  stroke-width: 11px;
  stroke-linejoin: round;
}
.labels text.brass {
  fill: var(--brass);
}
.labels text.fan {
  fill: #b8ebe4;
}
.labels text.strong,
.labels text.number {
  font-weight: 650;
}
</style>

<!-- What more than one layer draws alike. -->
<style>
.plan .spread path {
  stroke: var(--chalk);
}
.plan .nearly {
  fill: rgb(245 239 220 / 0.1);
  stroke-width: 4;
  stroke-dasharray: 10 10;
}
.plan .likely {
  fill: rgb(245 239 220 / 0.2);
  stroke-width: 5;
}
.plan .mirror polyline,
.plan .mirror line {
  fill: none;
  stroke: var(--brass);
  stroke-width: 5;
  stroke-dasharray: 8 12;
}
.plan .potting {
  stroke: var(--brass);
  stroke-width: 6;
  stroke-dasharray: 26 14;
}
</style>
