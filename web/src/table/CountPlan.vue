<script setup lang="ts">
import { useElementSize } from '@vueuse/core'
import { computed, ref } from 'vue'
import type { Table } from '../api/client'
import { isRed, lookOf, nameOf } from '../domain/balls'
import { useDrawing, viewBoxOf } from './bed'
import TableBed from './TableBed.vue'

/**
 * The plan at the table side: the layout, the areas, where attempts ended, and a place that the thumb points at. On a small screen only
 * the part of the table that matters, as large as it gets.
 */
type Point = { x: number; y: number }
export type PlanArea = Point & { key: string; radius?: number | null; toX?: number | null; toY?: number | null; label?: string }
export type Trial = Point & {
  key: string
  number: number
  isDone: boolean
  isStrong: boolean
  group: string
  isWaiting?: boolean
  isChosen?: boolean
  /** How it was meant. */
  words?: string
}
const props = defineProps<{
  balls: readonly (Point & { id: string })[]
  table: Table | null
  areas?: readonly PlanArea[]
  /** The white's way as it is meant. */
  way?: readonly Point[]
  /** The line of the pot: from the ball to its pocket. */
  potLine?: readonly Point[] | null
  outlines?: readonly (readonly Point[])[]
  ellipse?: { centre: Point; longer: number; shorter: number; degrees: number } | null
  trials?: readonly Trial[]
  /** Pointed at and not counted yet. */
  white?: Point | null
  ball?: Point | null
  /** Whether only the part of the table that matters is shown. */
  isClose?: boolean
  /** Whether the thumb points at places. */
  canPoint?: boolean
}>()
const emit = defineEmits<{ point: [at: Point, done: boolean] }>()
const { reference, radius, sx, sy, points, outlinePath } = useDrawing()
const svg = ref<SVGSVGElement>()
const { width: wide } = useElementSize(svg)

const matters = computed(() => [
  ...props.balls,
  ...(props.areas ?? []).flatMap((a) =>
    a.radius
      ? [
          { x: a.x - a.radius, y: a.y - a.radius },
          { x: a.x + a.radius, y: a.y + a.radius },
        ]
      : [
          { x: a.x, y: a.y },
          { x: a.toX!, y: a.toY! },
        ],
  ),
  ...(props.trials ?? []).filter((t) => t.isStrong),
  ...(props.way ?? []),
  ...(props.potLine ?? []),
])
/** The part of the drawing that is seen: with room around what matters, never less than two fifths of the table, in the table's shape. */
const part = computed(() => {
  const r = reference.value
  if (!props.isClose || !matters.value.length) return viewBoxOf(r)
  const margin = 0.16
  const [x1, x2] = [Math.min(...matters.value.map((p) => p.x)) - margin, Math.max(...matters.value.map((p) => p.x)) + margin]
  const [y1, y2] = [Math.min(...matters.value.map((p) => p.y)) - margin, Math.max(...matters.value.map((p) => p.y)) + margin]
  const shape = 3881 / 2120
  const w = Math.max(x2 - x1, (y2 - y1) * shape, 0.4 * r.length)
  if (w > 0.9 * r.length) return viewBoxOf(r)
  const h = w / shape
  const within = (middle: number, size: number, most: number) => Math.min(most + 0.1 - size, Math.max(-0.1, middle - size / 2))
  const left = within((x1 + x2) / 2, w, r.length)
  const low = within((y1 + y2) / 2, h, r.width)
  return `${sx(left)} ${sy(low + h)} ${w * 1000} ${h * 1000}`
})
/** Letters and rings keep their size on the screen, mm of the table for a pixel. */
const perPixel = computed(() => Number(part.value.split(' ')[2]) / (wide.value || 390))
const mark = computed(() => 8.5 * perPixel.value)

function toTable(e: PointerEvent): Point {
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.value!.getScreenCTM()!.inverse())
  const r = reference.value
  const within = (v: number, most: number) => Math.min(most - r.ballRadius, Math.max(r.ballRadius, v))
  return { x: within(p.x / 1000, r.length), y: within(r.width - p.y / 1000, r.width) }
}
let pointing = false
function down(e: PointerEvent) {
  if (!props.canPoint || e.button !== 0) return
  pointing = true
  svg.value!.setPointerCapture(e.pointerId)
  emit('point', toTable(e), false)
}
const move = (e: PointerEvent) => pointing && emit('point', toTable(e), false)
function up(e: PointerEvent) {
  if (!pointing) return
  pointing = false
  emit('point', toTable(e), true)
}
const groups = computed(() => [...new Set((props.trials ?? []).map((t) => t.group))])
const groupOf = (t: Trial) => `g${groups.value.indexOf(t.group) % 4}`
</script>

<template>
  <div class="count-plan">
    <TableBed :table="table" :part="part" />
    <svg
      ref="svg"
      class="over"
      :class="{ points: canPoint }"
      :viewBox="part"
      role="img"
      :aria-label="`Plan with ${balls.length} balls and ${trials?.length ?? 0} attempts`"
      data-testid="count-plan"
      @touchstart="canPoint && $event.preventDefault()"
      @pointerdown="down"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="pointing = false"
    >
      <g class="areas">
        <template v-for="a in areas" :key="a.key">
          <circle v-if="a.radius" :cx="sx(a.x)" :cy="sy(a.y)" :r="a.radius * 1000" />
          <rect v-else :x="sx(a.x)" :y="sy(a.toY!)" :width="(a.toX! - a.x) * 1000" :height="(a.toY! - a.y) * 1000" />
          <text
            v-if="a.label"
            :x="sx(a.radius ? a.x : (a.x + a.toX!) / 2)"
            :y="sy(a.radius ? a.y + a.radius : a.toY!) + (a.radius ? -6 : 16) * perPixel"
            :font-size="13 * perPixel"
          >
            {{ a.label }}
          </text>
        </template>
      </g>
      <path v-if="outlines?.length" :d="outlinePath(outlines)" class="skill" />
      <ellipse
        v-if="ellipse"
        class="spread"
        :rx="ellipse.longer * 1000"
        :ry="ellipse.shorter * 1000"
        :transform="`translate(${sx(ellipse.centre.x)} ${sy(ellipse.centre.y)}) rotate(${-ellipse.degrees})`"
      />
      <polyline v-if="potLine" :points="points(potLine)" class="pot-line" />
      <polyline v-if="way?.length" :points="points(way)" class="way" />
      <g
        v-for="b in balls"
        :key="b.id"
        class="ball"
        :transform="`translate(${sx(b.x).toFixed(1)} ${sy(b.y).toFixed(1)})`"
        :data-ball="b.id"
      >
        <circle :r="radius" :fill="lookOf(b.id).fill" :class="{ dark: b.id === 'black' }" />
        <text v-if="!isRed(b.id)" :fill="lookOf(b.id).ink">{{ lookOf(b.id).mark }}</text>
        <text v-else fill="#fff">{{ b.id.slice(4) }}</text>
        <title>{{ nameOf(b.id) }}</title>
      </g>
      <g
        v-for="t in trials"
        :key="t.key"
        class="trial"
        :class="[groupOf(t), { done: t.isDone, weak: !t.isStrong && !t.isChosen, waiting: t.isWaiting }]"
        :transform="`translate(${sx(t.x).toFixed(1)} ${sy(t.y).toFixed(1)})`"
        data-testid="trial"
      >
        <circle v-if="t.isChosen" :r="mark * 1.7" class="chosen" />
        <circle :r="t.isStrong ? mark : mark * 0.55" />
        <text v-if="t.isStrong || t.isChosen" :font-size="11 * perPixel">{{ t.number }}</text>
        <title>
          {{ `Attempt ${t.number}, ${t.isDone ? 'done' : 'not done'}${t.words ? `: ${t.words}` : ''}${t.group ? `, ${t.group}` : ''}` }}
        </title>
      </g>
      <g v-if="ball" class="pointed object" :transform="`translate(${sx(ball.x)} ${sy(ball.y)})`"><circle :r="radius" /></g>
      <g v-if="white" class="pointed" :transform="`translate(${sx(white.x)} ${sy(white.y)})`" data-testid="pointed">
        <circle :r="radius" />
        <circle :r="radius + 14 * perPixel" class="ring" />
      </g>
    </svg>
  </div>
</template>

<style scoped>
.count-plan {
  position: relative;
  aspect-ratio: 3881 / 2120;
  width: 100%;
  overflow: hidden;
}
.over {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  user-select: none;
  font-family: var(--font);
}
.over.points {
  touch-action: none;
  cursor: crosshair;
}
.areas circle,
.areas rect {
  fill: rgb(226 184 90 / 0.14);
  stroke: var(--brass);
  stroke-width: 6;
  stroke-dasharray: 22 14;
}
.areas text {
  fill: var(--brass);
  text-anchor: middle;
  paint-order: stroke;
  stroke: var(--cloth-deep);
  stroke-width: 8px;
}
.way,
.pot-line {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 5;
}
.pot-line {
  stroke: var(--brass);
  stroke-dasharray: 26 14;
}
.skill {
  fill: rgb(159 216 208 / 0.1);
  stroke: var(--aqua);
  stroke-width: 4;
  stroke-dasharray: 6 10;
}
.spread {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 5;
}
.ball circle {
  stroke: #06181a;
  stroke-width: 3;
}
.ball circle.dark {
  stroke: #b9c2ba;
}
.ball text {
  font-size: 34px;
  font-weight: 700;
  text-anchor: middle;
  dominant-baseline: central;
}
.trial circle {
  fill: var(--cloth-deep);
  stroke: var(--coral);
  stroke-width: 6;
  stroke-dasharray: 8 7;
}
.trial.done circle:not(.chosen) {
  fill: var(--chalk);
  stroke: var(--chalk);
  stroke-dasharray: none;
}
.trial circle.chosen {
  fill: none;
  stroke: var(--brass);
  stroke-dasharray: none;
}
.trial text {
  fill: var(--coral);
  font-weight: 650;
  text-anchor: middle;
  dominant-baseline: central;
}
.trial.done text {
  fill: var(--cloth-deep);
}
.trial.weak {
  opacity: 0.55;
}
.trial.g1.done circle:not(.chosen) {
  fill: var(--aqua);
  stroke: var(--aqua);
}
.trial.g2.done circle:not(.chosen) {
  fill: var(--brass);
  stroke: var(--brass);
}
.trial.g3.done circle:not(.chosen) {
  fill: #d7b8e8;
  stroke: #d7b8e8;
}
.pointed circle {
  fill: var(--chalk);
  opacity: 0.85;
}
.pointed.object circle {
  fill: #c22b33;
}
.pointed .ring {
  fill: none;
  stroke: var(--brass);
  stroke-width: 7;
}
</style>
