<script setup lang="ts">
import { computed, onUnmounted, ref, watch } from 'vue'
import type { Pocket, Table } from '../api/client'
import { nameOf, pocketName } from '../domain/balls'
import { lengthWords } from '../lib/formats'
import BallFigure from './BallFigure.vue'
import { boundsOf, cushionDepth, rail, useDrawing } from './bed'
import { boxAround, planControl, turnedBox, turnedPoint } from './camera'
import CameraView from './CameraView.vue'
import type { Grip, Hand, Hands } from './hands'
import { between, placeLabels } from './labels'
import type { At, Layer, Point } from './layer'
import TableBed from './TableBed.vue'
import type { Turning } from './turning'

/**
 * What lies and happens on the table, to scale in millimetres, baulk at the left and the yellow's side below (or upright: baulk below).
 * Here are the balls, the aim, the labels and the hands; what is drawn besides comes from layers.
 */
/** z: how high it is off the bed, m. */
type Lying = Point & { id: string; z?: number; turning?: Turning }

/** The light falls aslant: a ball that is off the bed parts from its shadow by so many times its height. */
const shadowSlope = 2
/** Letters are as high as on a plan of this scale, mm for a px of the screen. */
const usualScale = 4.4
const props = defineProps<{
  table: Table | null
  balls: readonly Lying[]
  pockets: readonly Pocket[]
  layers: readonly Layer[]
  /** The ball in hand. */
  selected: string
  /** Balls that were taken together. */
  group?: readonly string[]
  /** The pocket that is played into. */
  wanted?: string | null
  /** From where and in which direction, degrees, the white is aimed; null while it cannot be. */
  aim: (Point & { degrees: number }) | null
  /** The cue behind the white before it is struck: how far back, m; null without a cue. */
  cue?: { back: number; side: number } | null
  /** Another table is looked at: nothing can be taken in hand. */
  isLocked?: boolean
  /** It stands upright, baulk below. */
  isTurned?: boolean
  /** The ball that is laid wherever the plan is touched. */
  laying?: string | null
  /** A drag draws a ring around balls. */
  isLassoing?: boolean
  /** Moves a ball as near as it can rest. */
  drag: (id: string, x: number, y: number) => Promise<void>
  /** Moves the balls that were taken together by so much, m. */
  dragGroup?: (dx: number, dy: number) => Promise<void>
}>()
const emit = defineEmits<{
  take: [id: string]
  aimAt: [degrees: number]
  pocket: [name: string]
  done: []
  lay: [at: Point]
  takeAway: [ids: string[]]
  takeTogether: [ids: string[]]
}>()
const { reference, length, width, radius, sx, sy } = useDrawing()
const bounds = computed(() => boundsOf(reference.value))
const viewer = ref<InstanceType<typeof CameraView>>()
const perPixel = computed(() => viewer.value?.camera.perPixel.value ?? usualScale)
const scale = computed(() => perPixel.value / usualScale)

const onDrawing = (p: Point) => ({ x: sx(p.x), y: sy(p.y) })
const standing = (p: Point) => (props.isTurned ? turnedPoint(onDrawing(p)) : onDrawing(p))
const marks = computed(() => props.layers.flatMap((l) => l.marks?.() ?? []).map((m) => ({ ...m, ...standing(m) })))
const numbered = computed(() => new Set(props.layers.flatMap((l) => l.named?.() ?? [])))
const bedBox = computed(() => {
  const bed = { left: 0, top: 0, width: length.value, height: width.value }
  const b = props.isTurned ? turnedBox(bed) : bed
  const seen = viewer.value?.camera.seen.value
  const box = { left: b.left, top: b.top, right: b.left + b.width, bottom: b.top + b.height }
  if (!seen) return box
  return {
    left: Math.max(box.left, seen.left),
    top: Math.max(box.top, seen.top),
    right: Math.min(box.right, seen.left + seen.width),
    bottom: Math.min(box.bottom, seen.top + seen.height),
  }
})
/** What the drawing calls its lines and marks, each put where it covers least; those that come first choose first. */
const labels = computed(() => {
  const frame = bedBox.value
  const isSeen = (p: Point) => p.x >= frame.left && p.x <= frame.right && p.y >= frame.top && p.y <= frame.bottom
  const namings = props.layers
    .flatMap((l) => l.namings?.() ?? [])
    .map(({ at, size = 56, ...n }) => ({ ...n, size: size * scale.value, ...standing(at) }))
    .filter(isSeen)
  if (!namings.length) return []
  const obstacles = [
    ...props.balls.map(standing),
    ...props.layers
      .flatMap((l) => l.lines?.() ?? [])
      .flatMap((line) => line.flatMap((p, i) => between(standing(p), line[i + 1] && standing(line[i + 1])))),
  ]
  return placeLabels(namings, obstacles, frame, scale.value)
})

// ---- The aim: a line ahead of the white with a handle to drag ----
const aimHandle = computed(() => {
  if (!props.aim) return null
  const a = (props.aim.degrees * Math.PI) / 180
  const [dx, dy] = [Math.cos(a), Math.sin(a)]
  // As far as 0.45 m, less if the cushion comes first; nearer where the plan is looked at closely.
  const room = (p: number, d: number, max: number) => (d > 0 ? (max - p) / d : d < 0 ? -p / d : Infinity)
  const most = 0.45 * Math.min(1, Math.max(0.3, scale.value))
  const far = Math.max(0.09, Math.min(most, room(props.aim.x, dx, reference.value.length), room(props.aim.y, dy, reference.value.width)))
  return { x: props.aim.x + far * dx, y: props.aim.y + far * dy }
})
const cueDrawn = computed(() => {
  const { cue, aim } = props
  if (!cue || !aim) return null
  const tip = radius.value + cue.back * 1000
  return {
    transform: `translate(${sx(aim.x)} ${sy(aim.y)}) rotate(${-aim.degrees})`,
    // Half the breadth of tip and butt, mm.
    shaft: `M ${-tip} ${-4.6 + cue.side} L ${-tip - 1450} ${-14 + cue.side} L ${-tip - 1450} ${14 + cue.side} L ${-tip} ${4.6 + cue.side} Z`,
    ferrule: `M ${-tip} ${-4.6 + cue.side} L ${-tip - 24} ${-4.8 + cue.side} L ${-tip - 24} ${4.8 + cue.side} L ${-tip} ${4.6 + cue.side} Z`,
  }
})

// ---- Hands ----
/** The ball in the hand, drawn where the hand is; the word on where it can rest corrects it once the hand lets go. */
const held = ref<(Lying & { isLeaving?: boolean }) | null>(null)
/** How far the balls that were taken together have been carried, m. */
const carried = ref<Point | null>(null)
/** A ring drawn around balls, m. */
const lasso = ref<Point[] | null>(null)
/** A ball about to be laid. */
const toLay = ref<Point | null>(null)

const onTable = (hand: Point): Point => ({ x: hand.x / 1000, y: (width.value - hand.y) / 1000 })
const atHand = (hand: Hand): At => {
  const touched = hand.isTouch ? 24 : 14
  return { ...onTable(hand), reach: (touched * hand.perPixel) / 1000 }
}
const near = <T extends Point>(list: readonly T[], at: Point) =>
  list.map((t) => ({ t, d: Math.hypot(t.x - at.x, t.y - at.y) })).sort((a, b) => a.d - b.d)[0]
/** In a pocket, or off the wood. */
function isAway(at: Point, hand: Hand) {
  const beyond = (rail + cushionDepth) / 1000
  const { length, width } = reference.value
  return (
    hand.isOutside ||
    at.x < -beyond ||
    at.x > length + beyond ||
    at.y < -beyond ||
    at.y > width + beyond ||
    props.pockets.some((p) => Math.hypot(p.drop.x - at.x, p.drop.y - at.y) < 0.9 * p.drop.radius)
  )
}
/** Where a ball is, for the glass: from the nearest cushion. */
function placeWords(p: Point) {
  const { length, width, ballRadius: r } = reference.value
  const from: [number, string][] = [
    [p.x - r, 'baulk'],
    [length - r - p.x, 'top'],
    [p.y - r, 'side'],
    [width - r - p.y, 'side'],
  ]
  const [far, cushion] = from.sort((a, b) => a[0] - b[0])[0]
  return `${lengthWords(Math.max(0, far))} off the ${cushion}`
}

function down(hand: Hand): Grip | null {
  if (props.isLocked) return null
  const at = atHand(hand)
  const asked = props.layers.find((l) => l.asksForPlace?.())?.grip?.(at)
  if (asked) return layerGrip(asked, at)
  const ball = near(props.balls, at)
  const isOnBall = !!ball && ball.d < reference.value.ballRadius
  if (props.laying && !isOnBall) return layGrip(at)
  if (hand.isShifted || (props.isLassoing && !(isOnBall && props.group?.includes(ball.t.id)))) return lassoGrip(at)
  const handle = aimHandle.value && Math.hypot(aimHandle.value.x - at.x, aimHandle.value.y - at.y)
  if (ball && ball.d < Math.max(at.reach, reference.value.ballRadius) && !(handle !== null && handle < ball.d)) {
    if (props.group?.includes(ball.t.id) && props.group.length > 1) return groupGrip(at)
    return ballGrip(ball.t, at)
  }
  if (handle !== null && handle < at.reach * 1.4) return aimGrip()
  const to = props.layers.map((l) => l.grip?.(at)).find(Boolean)
  if (to) return layerGrip(to, at)
  if (props.group?.length) emit('takeTogether', [])
  const pocket = near(
    props.pockets.map((p) => ({ ...p.drop, name: p.name })),
    at,
  )
  if (pocket && pocket.d < 0.13) emit('pocket', pocket.t.name)
  return null
}

function ballGrip(ball: Lying, from: At): Grip {
  const { id } = ball
  const [dx, dy] = [ball.x - from.x, ball.y - from.y]
  let isMoved = false
  emit('take', id)
  return {
    move(hand) {
      const at = atHand(hand)
      const to = { x: at.x + dx, y: at.y + dy }
      if (!isMoved && Math.hypot(to.x - ball.x, to.y - ball.y) < (3 * hand.perPixel) / 1000) return
      isMoved = true
      if (isAway(at, hand)) {
        held.value = { id, ...at, isLeaving: true }
        return
      }
      held.value = { id, ...onBed(to) }
      void props.drag(id, to.x, to.y)
    },
    async up(hand) {
      if (!isMoved) return
      const at = atHand(hand)
      if (isAway(at, hand)) {
        held.value = null
        emit('takeAway', [id])
        return
      }
      const letGo = held.value
      await props.drag(id, at.x + dx, at.y + dy)
      // Unless the next one is in hand by now.
      if (held.value === letGo) held.value = null
      emit('done')
    },
    cancel: () => (held.value = null),
    glass: () => (held.value?.isLeaving ? 'off the table' : placeWords(held.value ?? ball)),
  }
}

function groupGrip(from: At): Grip {
  return {
    move: (hand) => {
      const at = atHand(hand)
      carried.value = { x: at.x - from.x, y: at.y - from.y }
    },
    async up(hand) {
      const by = carried.value
      const at = atHand(hand)
      if (!by) return
      if (isAway(at, hand)) for (const id of props.group ?? []) emit('takeAway', [id])
      else await props.dragGroup?.(by.x, by.y)
      carried.value = null
      emit('done')
    },
    cancel: () => (carried.value = null),
  }
}

function aimGrip(): Grip {
  return {
    move(hand) {
      const at = onTable(hand)
      emit('aimAt', (Math.atan2(at.y - props.aim!.y, at.x - props.aim!.x) * 180) / Math.PI)
    },
    up: () => emit('done'),
  }
}

function layerGrip(to: NonNullable<ReturnType<NonNullable<Layer['grip']>>>, at: At): Grip {
  const grip = typeof to === 'function' ? { move: to } : to
  grip.move(at)
  return {
    move: (hand) => grip.move(onTable(hand)),
    up() {
      grip.done?.()
      emit('done')
    },
    glass: grip.words && ((hand) => grip.words!(onTable(hand))),
  }
}

function layGrip(from: At): Grip {
  toLay.value = onBed(from)
  return {
    move: (hand) => (toLay.value = onBed(onTable(hand))),
    up(hand) {
      toLay.value = null
      const at = onTable(hand)
      if (!isAway(at, hand)) emit('lay', at)
    },
    cancel: () => (toLay.value = null),
    glass: () => placeWords(toLay.value ?? from),
  }
}

function lassoGrip(from: At): Grip {
  lasso.value = [from]
  return {
    move: (hand) => (lasso.value = [...(lasso.value ?? []), onTable(hand)]),
    up() {
      const ring = lasso.value ?? []
      lasso.value = null
      const caught = props.balls.filter((b) => isWithin(b, ring)).map((b) => b.id)
      // Pressed on a ball without drawing: it joins, or leaves.
      const on = ring.length < 4 ? near(props.balls, from) : undefined
      const had = props.group ?? []
      if (on && on.d < Math.max(from.reach, reference.value.ballRadius))
        emit('takeTogether', had.includes(on.t.id) ? had.filter((id) => id !== on.t.id) : [...had, on.t.id])
      else emit('takeTogether', caught)
    },
    cancel: () => (lasso.value = null),
  }
}
/** Whether a point lies in a ring: an odd number of its sides lie to the right. */
function isWithin(p: Point, ring: readonly Point[]) {
  let isIn = false
  ring.forEach((a, i) => {
    const b = ring[(i + 1) % ring.length]
    if (a.y > p.y !== b.y > p.y && p.x < ((b.x - a.x) * (p.y - a.y)) / (b.y - a.y) + a.x) isIn = !isIn
  })
  return isIn
}

const hands: Hands = { down, hover: (hand) => props.layers.forEach((l) => l.hover?.(hand && onTable(hand))) }

/** The nearest place on the bed. */
function onBed(p: Point) {
  const { ballRadius, length, width } = reference.value
  const within = (v: number, most: number) => Math.min(most - ballRadius, Math.max(ballRadius, v))
  return { x: within(p.x, length), y: within(p.y, width) }
}

const shownBalls = computed<(Lying & { isLeaving?: boolean })[]>(() =>
  props.balls.map((b) => {
    if (b.id === held.value?.id) return held.value
    return carried.value && props.group?.includes(b.id) ? { ...b, ...onBed({ x: b.x + carried.value.x, y: b.y + carried.value.y }) } : b
  }),
)

// ---- The camera, for keys and for what is carried onto the plan ----
function matters(): Point[] {
  const drawn = props.layers.flatMap((l) => l.matters?.() ?? l.lines?.().flat() ?? [])
  const moved = drawn.length ? drawn : props.balls
  return [...moved, ...props.balls.filter((b) => b.id === 'white' || b.id === props.selected || numbered.value.has(b.id))]
}
function showWhatMatters() {
  const box = boxAround(matters().map(onDrawing), 150)
  if (box) viewer.value?.camera.show(box)
}
watch(
  viewer,
  (v) => {
    planControl.value = v
      ? {
          camera: v.camera,
          showWhatMatters,
          lookAt: (factor, place) => v.camera.zoomBy(factor, place ? standing(place) : undefined),
          placeUnder: (x, y) => {
            const hand = v.handUnder(x, y)
            return hand && onTable(hand)
          },
        }
      : null
  },
  { flush: 'post' },
)
onUnmounted(() => (planControl.value = null))

const description = computed(
  () =>
    `Table plan with ${props.balls.length} balls. Arrow keys move the ${nameOf(props.selected)}, comma and full stop choose another ball.`,
)
</script>

<template>
  <CameraView
    ref="viewer"
    :bounds="bounds"
    :is-turned="isTurned"
    :hands="hands"
    is-held
    class="plan"
    :class="{ lays: laying, lassoes: isLassoing }"
    role="application"
    tabindex="0"
    :aria-label="description"
    data-testid="plan"
  >
    <template #bed><TableBed :table="table" :is-turned="isTurned" has-ruler /></template>
    <g v-for="p in pockets" :key="p.name" class="pocket" :class="{ wanted: wanted === p.name }">
      <circle :cx="sx(p.drop.x)" :cy="sy(p.drop.y)" :r="p.drop.radius * 1000 + radius * 0.35" />
      <title>{{ pocketName(p.name) }} pocket</title>
    </g>

    <component :is="l.component" v-for="l in layers" :key="l.key" />
    <g v-if="cueDrawn" class="cue" :transform="cueDrawn.transform" data-testid="cue">
      <path :d="cueDrawn.shaft" class="shaft" />
      <path :d="cueDrawn.ferrule" class="ferrule" />
    </g>
    <g v-if="aim && aimHandle && !cueDrawn" class="aim">
      <line :x1="sx(aim.x)" :y1="sy(aim.y)" :x2="sx(aimHandle.x)" :y2="sy(aimHandle.y)" />
      <g :transform="`translate(${sx(aimHandle.x)} ${sy(aimHandle.y)}) rotate(45) scale(${Math.max(0.4, scale)})`">
        <rect x="-15" y="-15" width="30" height="30" data-testid="aim-handle" />
      </g>
    </g>
    <g class="balls">
      <g
        v-for="b in shownBalls"
        :key="b.id"
        :transform="`translate(${sx(b.x).toFixed(2)} ${sy(b.y).toFixed(2)})`"
        :class="{ leaving: b.isLeaving }"
        :data-ball="b.id"
      >
        <circle v-if="b.z" :cx="1000 * shadowSlope * b.z" :cy="1000 * shadowSlope * b.z" :r="radius" class="shadow" data-testid="shadow" />
        <circle v-if="b.id === selected || group?.includes(b.id)" :r="radius + 11 * Math.max(0.5, scale)" class="selected" />
        <BallFigure :id="b.id" :radius="radius" :is-numbered="numbered.has(b.id)" :is-turned="isTurned" :turning="b.turning" />
      </g>
      <g v-if="toLay && laying" :transform="`translate(${sx(toLay.x)} ${sy(toLay.y)})`" class="to-lay">
        <BallFigure :id="laying" :radius="radius" :is-turned="isTurned" />
      </g>
    </g>
    <polygon v-if="lasso" :points="lasso.map((p) => `${sx(p.x)},${sy(p.y)}`).join(' ')" class="lasso" data-testid="lasso" />
    <template #over>
      <g class="labels">
        <circle v-for="m in marks" :key="m.key" :cx="m.x" :cy="m.y" :r="9 * Math.min(1.3, scale)" class="mark" />
        <template v-for="l in labels" :key="`${l.key}-leader`">
          <line v-if="l.leader" :x1="l.x" :y1="l.y" :x2="l.leader.x" :y2="l.leader.y" class="leader" />
        </template>
        <text v-for="l in labels" :key="l.key" :x="l.left" :y="l.baseline" :class="l.kind" :font-size="l.size">{{ l.text }}</text>
      </g>
    </template>
  </CameraView>
</template>

<style scoped>
.pocket {
  cursor: pointer;
  fill: transparent;
}
.pocket:hover circle,
.pocket.wanted circle {
  stroke: var(--brass);
  stroke-width: calc(9px * var(--u));
}
.labels text.missed {
  fill: #ffb3a2;
}
.aim line {
  stroke: var(--brass);
  stroke-width: calc(5px * var(--u));
}
.aim rect {
  fill: var(--brass);
  stroke: #231a05;
  stroke-width: 4;
  cursor: grab;
}
.cue .shaft {
  fill: #d9b98a;
  stroke: #3b2413;
  stroke-width: 2;
}
.cue .ferrule {
  fill: #f4efe2;
}
.balls > g {
  cursor: grab;
}
.balls .leaving {
  opacity: 0.45;
}
.balls .to-lay {
  opacity: 0.8;
}
.shadow {
  fill: rgb(0 0 0 / 0.45);
}
.selected {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(6px * var(--u));
}
.lasso {
  fill: rgb(226 184 90 / 0.12);
  stroke: var(--brass);
  stroke-width: calc(6px * var(--u));
  stroke-dasharray: calc(18px * var(--u)) calc(12px * var(--u));
}
.labels {
  pointer-events: none;
}
.leader {
  stroke: var(--chalk-soft);
  stroke-width: calc(3px * var(--u));
  stroke-dasharray: 4 6;
}
.mark {
  fill: var(--cloth-deep);
  stroke: var(--chalk);
  stroke-width: calc(5px * var(--u));
}
.labels text {
  fill: var(--chalk);
  paint-order: stroke;
  stroke: var(--cloth-deep);
  stroke-width: calc(11px * var(--u));
  stroke-linejoin: round;
}
.labels text.brass {
  fill: var(--brass);
}
.labels text.fan {
  fill: #b8ebe4;
}
.labels text.trial {
  fill: #cfe3dc;
}
.labels text.strong,
.labels text.number {
  font-weight: 650;
}
</style>

<!-- What more than one layer draws alike. -->
<style>
.plan.lays,
.plan.lassoes {
  cursor: crosshair;
}
.plan .spread path {
  stroke: var(--chalk);
}
.plan .nearly {
  fill: rgb(245 239 220 / 0.1);
  stroke-width: calc(4px * var(--u));
  stroke-dasharray: 10 10;
}
.plan .likely {
  fill: rgb(245 239 220 / 0.2);
  stroke-width: calc(5px * var(--u));
}
.plan .mirror polyline,
.plan .mirror line {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(5px * var(--u));
  stroke-dasharray: 8 12;
}
.plan .potting {
  stroke: var(--brass);
  stroke-width: calc(6px * var(--u));
  stroke-dasharray: calc(26px * var(--u)) calc(14px * var(--u));
}
/* A line parts from the cloth by a darker one beneath it. */
.plan .halo {
  fill: none;
  stroke: rgb(3 25 27 / 0.55);
  stroke-linejoin: round;
  stroke-linecap: round;
}
</style>
