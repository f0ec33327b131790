<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import { usePlayback } from '../position/playback'
import { useMap } from '../features/read/map'
import { usePlanDrawing } from '../features/break/planDrawing'
import PlanLayer from '../features/break/PlanLayer.vue'
import { usePlans } from '../features/break/plans'
import { useDecideDrawing } from '../features/safety/decideDrawing'
import DecideLayer from '../features/safety/DecideLayer.vue'
import { useGoal } from '../features/shot/goal'
import { useJudgedDrawing } from '../features/shot/judgedDrawing'
import JudgedLayer from '../features/shot/JudgedLayer.vue'
import { useShotDrawing } from '../features/shot/shotDrawing'
import ShotLayer from '../features/shot/ShotLayer.vue'
import { useWays } from '../features/shot/ways'
import { useAnswer } from '../position/answer'
import { useDraft } from '../position/draft'
import { isRed, lookOf, nameOf, pocketName } from '../domain/balls'
import { useDrawing, viewBoxOf } from './bed'
import { placeLabels } from './labels'

/**
 * What lies and happens on the table, to scale in millimetres, baulk at the left and the yellow's side below; TableBed lies beneath.
 * Here are the balls, the aim, the labels and the hands; what is drawn of a shot, of judgements, plans and decisions comes from a layer each.
 */
const answer = useAnswer()
const position = useDraft()
const playback = usePlayback()
const goals = useGoal()
const ways = useWays()
const plans = usePlans()
const map = useMap()
const { reference, length, width, radius, sx, sy } = useDrawing()
const shotDrawing = useShotDrawing()
const planDrawing = usePlanDrawing()
const judgedDrawing = useJudgedDrawing()
const decideDrawing = useDecideDrawing()
const { white, events } = shotDrawing
const { isDeskHidden } = planDrawing
const { place } = judgedDrawing
const pockets = computed(() => answer.table?.pockets ?? [])

/** Letters are sized in mm of the table for a plan so wide, px; on a narrower one they are larger, so that they can still be read. */
const readableWidth = 850
const svg = ref<SVGSVGElement>()
const { width: drawnWidth } = useElementSize(svg)
const enlarged = computed(() => Math.min(1.7, Math.max(1, readableWidth / (drawnWidth.value || readableWidth))))

/** What the drawing calls its lines and marks, each put where it covers least; those that come first choose first. */
const labels = computed(() => {
  const namings = [shotDrawing.namings, judgedDrawing.namings, planDrawing.namings, decideDrawing.namings, shotDrawing.numbers].flatMap((n) => n.value)
  const obstacles = [
    ...position.content.balls.map((b) => ({ x: sx(b.x), y: sy(b.y) })),
    ...shotDrawing.lines.value.flatMap((line) => line.flatMap((p, i) => between(p, line[i + 1]))),
  ]
  return placeLabels(namings.map(({ at, size = 56, ...n }) => ({ ...n, size: size * enlarged.value, x: sx(at.x), y: sy(at.y) })), obstacles, { left: 0, top: 0, right: length.value, bottom: width.value })
})

/** Points along a line, close enough that no label slips between them. */
function between(a: { x: number; y: number }, b?: { x: number; y: number }) {
  const steps = b ? Math.ceil(Math.hypot(b.x - a.x, b.y - a.y) / 0.04) : 1
  return Array.from({ length: steps }, (_, i) => ({ x: sx(a.x + (i / steps) * ((b ?? a).x - a.x)), y: sy(a.y + (i / steps) * ((b ?? a).y - a.y)) }))
}

// ---- The aim: a line ahead of the white with a handle to drag ----
const aimHandle = computed(() => {
  if (!white.value) return null
  const a = (answer.aim * Math.PI) / 180
  const [dx, dy] = [Math.cos(a), Math.sin(a)]
  // As far as 0.45 m, less if the cushion comes first.
  const room = (p: number, d: number, max: number) => (d > 0 ? (max - p) / d : d < 0 ? -p / d : Infinity)
  const far = Math.max(0.09, Math.min(0.45, room(white.value.x, dx, reference.value.length), room(white.value.y, dy, reference.value.width)))
  return { x: white.value.x + far * dx, y: white.value.y + far * dy }
})

// ---- Hands ----
/** The ball in the hand, drawn where the hand is; the server's word on where it can rest corrects it once the hand lets go. */
const held = ref<{ id: string; x: number; y: number } | null>(null)
let gesture: { kind: 'ball' | 'aim' | 'place' | 'rim'; id: string; moved: boolean; dx: number; dy: number } | null = null

function toTable(e: PointerEvent) {
  const matrix = svg.value!.getScreenCTM()!
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(matrix.inverse())
  return { x: p.x / 1000, y: (width.value - p.y) / 1000, perPixel: 1 / matrix.a / 1000 }
}

function down(e: PointerEvent) {
  if (e.button !== 0 || plans.ahead) return
  const at = toTable(e)
  const reach = (e.pointerType === 'touch' ? 24 : 14) * at.perPixel
  const near = <T extends { x: number; y: number }>(list: T[]) =>
    list.map((t) => ({ t, d: Math.hypot(t.x - at.x, t.y - at.y) })).sort((a, b) => a.d - b.d)[0]
  const ball = near(position.content.balls)
  const handle = aimHandle.value && Math.hypot(aimHandle.value.x - at.x, aimHandle.value.y - at.y)
  if (ball && ball.d < Math.max(reach, reference.value.ballRadius) && !(handle !== null && handle < ball.d)) {
    playback.rewind()
    position.selected = ball.t.id
    gesture = { kind: 'ball', id: ball.t.id, moved: false, dx: ball.t.x - at.x, dy: ball.t.y - at.y }
  } else if (handle !== null && handle < reach * 1.4) {
    gesture = { kind: 'aim', id: '', moved: false, dx: 0, dy: 0 }
  } else if (place.value && Math.abs(Math.hypot(place.value.x - at.x, place.value.y - at.y) - goals.goal.radius) < reach * 0.7) {
    gesture = { kind: 'rim', id: '', moved: false, dx: 0, dy: 0 }
  } else if (ways.isOpen && goals.goal.kind === 'stop' && at.x > 0 && at.x < reference.value.length && at.y > 0 && at.y < reference.value.width) {
    // Within the circle it is taken as it lies under the hand; elsewhere it comes there.
    const inside = place.value && Math.hypot(place.value.x - at.x, place.value.y - at.y) < goals.goal.radius
    gesture = { kind: 'place', id: '', moved: false, dx: inside ? place.value!.x - at.x : 0, dy: inside ? place.value!.y - at.y : 0 }
    if (!inside) move(e)
  } else {
    const pocket = near(pockets.value.map((p) => ({ ...p.drop, name: p.name })))
    if (pocket && pocket.d < 0.13) position.potInto(pocket.t.name)
    return
  }
  svg.value!.setPointerCapture(e.pointerId)
  svg.value!.focus({ preventScroll: true })
  e.preventDefault()
}

function move(e: PointerEvent) {
  if (map.isOpen) map.pointAt(toTable(e))
  if (!gesture) return
  const at = toTable(e)
  if (gesture.kind === 'aim') {
    gesture.moved = true
    position.aimFreely((Math.atan2(at.y - white.value!.y, at.x - white.value!.x) * 180) / Math.PI)
    return
  }
  if (gesture.kind === 'place') {
    const keep = (v: number, most: number) => Math.round(Math.min(most, Math.max(0, v)) * 1000) / 1000
    goals.goal.place = { x: keep(at.x + gesture.dx, reference.value.length), y: keep(at.y + gesture.dy, reference.value.width) }
    return
  }
  if (gesture.kind === 'rim') {
    goals.goal.radius = Math.round(Math.min(1, Math.max(0.03, Math.hypot(at.x - place.value!.x, at.y - place.value!.y))) * 200) / 200
    return
  }
  const ball = position.ball(gesture.id)
  const to = { x: at.x + gesture.dx, y: at.y + gesture.dy }
  if (!ball || (!gesture.moved && Math.hypot(to.x - ball.x, to.y - ball.y) < 3 * at.perPixel)) return
  gesture.moved = true
  held.value = { id: gesture.id, ...onBed(to) }
  void position.drag(gesture.id, to.x, to.y)
}

async function up(e: PointerEvent) {
  if (!gesture) return
  const { kind, id, moved, dx, dy } = gesture
  gesture = null
  if (kind === 'ball' && moved) {
    const at = toTable(e)
    const letGo = held.value
    await position.drag(id, at.x + dx, at.y + dy)
    // Unless the next one is in hand by now.
    if (held.value === letGo) held.value = null
  }
  if (moved) position.commit()
}

/** The nearest place on the bed. */
function onBed(p: { x: number; y: number }) {
  const { ballRadius, length, width } = reference.value
  const within = (v: number, most: number) => Math.min(most - ballRadius, Math.max(ballRadius, v))
  return { x: within(p.x, length), y: within(p.y, width) }
}

const lying = computed(() => (plans.ahead ? plans.ahead.content.balls.map((b) => ({ ...b })) : [...playback.balls].filter(([, at]) => at !== null).map(([id, at]) => ({ id, x: at!.x, y: at!.y }))))
const shownBalls = computed(() => lying.value.map((b) => (b.id === held.value?.id ? held.value : b)))
const description = computed(() => `Table plan with ${position.content.balls.length} balls. Arrow keys move the ${nameOf(position.selected)}, comma and full stop choose another ball.`)
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
    @pointerleave="map.pointAt(null)"
  >
    <g v-for="p in pockets" :key="p.name" class="pocket" :class="{ wanted: position.stroke.pot?.pocket === p.name }">
      <circle :cx="sx(p.drop.x)" :cy="sy(p.drop.y)" :r="p.drop.radius * 1000 + radius * 0.35" />
      <title>{{ pocketName(p.name) }} pocket</title>
    </g>

    <PlanLayer />
    <DecideLayer />
    <JudgedLayer />
    <ShotLayer />
    <g v-if="aimHandle && white && !playback.isPlaying && !isDeskHidden" class="aim">
      <line :x1="sx(white.x)" :y1="sy(white.y)" :x2="sx(aimHandle.x)" :y2="sy(aimHandle.y)" />
      <rect :x="sx(aimHandle.x) - 17" :y="sy(aimHandle.y) - 17" width="34" height="34" :transform="`rotate(45 ${sx(aimHandle.x)} ${sy(aimHandle.y)})`" data-testid="aim-handle" />
    </g>
    <g class="balls">
      <g v-for="b in shownBalls" :key="b.id" :transform="`translate(${sx(b.x).toFixed(2)} ${sy(b.y).toFixed(2)})`" :data-ball="b.id">
        <circle v-if="b.id === position.selected" :r="radius + 14" class="selected" />
        <circle :r="radius" :fill="lookOf(b.id).fill" class="ball" :class="{ dark: b.id === 'black' }" />
        <text v-if="!isRed(b.id)" :fill="lookOf(b.id).ink">{{ lookOf(b.id).mark }}</text>
        <circle v-else r="6" fill="#fff" />
        <title>{{ nameOf(b.id) }}</title>
      </g>
    </g>
    <g class="labels">
      <circle v-for="e in events" :key="e.number" :cx="sx(e.event.x)" :cy="sy(e.event.y)" r="9" class="mark" />
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
