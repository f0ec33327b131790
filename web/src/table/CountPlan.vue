<script setup lang="ts">
import { computed, ref, watch } from 'vue'
import type { Table } from '../api/client'
import { countWords } from '../lib/formats'
import BallFigure from './BallFigure.vue'
import { boundsOf, useDrawing } from './bed'
import { boxAround } from './camera'
import CameraView from './CameraView.vue'
import { groupsOf } from './groups'
import type { Hand, Hands } from './hands'
import TableBed from './TableBed.vue'

/**
 * The plan at the table side: the layout, the areas, where attempts ended, and a place that the thumb points at. It opens at the part of the
 * table that matters; the camera shows the rest.
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
  /** Whether it opens at the part of the table that matters. */
  isClose?: boolean
  /** Whether the thumb points at places. */
  canPoint?: boolean
}>()
const emit = defineEmits<{ point: [at: Point, done: boolean] }>()
const { reference, radius, sx, sy, points, outlinePath } = useDrawing()
const viewer = ref<InstanceType<typeof CameraView>>()
const bounds = computed(() => boundsOf(reference.value))

const matters = computed(() =>
  [
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
  ].map((p) => ({ x: sx(p.x), y: sy(p.y) })),
)
/** With room around what matters, and never less than two fifths of the table. */
const close = computed(() => {
  const box = props.isClose ? boxAround(matters.value, 160) : null
  if (!box) return null
  const width = Math.max(box.width, 400 * reference.value.length)
  if (width > 900 * reference.value.length) return null
  return { ...box, left: box.left + (box.width - width) / 2, width }
})
watch([viewer, () => JSON.stringify(close.value)], () => viewer.value?.camera.openAt(close.value), { flush: 'post' })
/** Letters and rings keep their size on the screen, mm of the table for a pixel. */
const perPixel = computed(() => viewer.value?.camera.perPixel.value ?? 8)
const mark = computed(() => 8.5 * perPixel.value)

function placeOf(hand: Hand): Point {
  const r = reference.value
  const within = (v: number, most: number) => Math.min(most - r.ballRadius, Math.max(r.ballRadius, v))
  return { x: within(hand.x / 1000, r.length), y: within(r.width - hand.y / 1000, r.width) }
}
const hands: Hands = {
  down(first) {
    if (!props.canPoint) return null
    emit('point', placeOf(first), false)
    let last = placeOf(first)
    return {
      move: (hand) => emit('point', (last = placeOf(hand)), false),
      up: (hand) => emit('point', placeOf(hand), true),
      cancel: () => emit('point', last, false),
      glass: () => 'the white',
    }
  },
}
const groups = computed(() => groupsOf(props.trials ?? []))
const groupOf = (t: Trial) => `g${groups.value.indexOf(t.group) % 4}`
</script>

<template>
  <div class="count-plan">
    <CameraView
      ref="viewer"
      :bounds="bounds"
      :hands="hands"
      is-in-page
      :is-held="canPoint"
      class="over"
      :class="{ points: canPoint }"
      role="img"
      :aria-label="`Plan with ${countWords(balls.length, 'ball')} and ${countWords(trials?.length ?? 0, 'attempt')}`"
      data-testid="count-plan"
    >
      <template #bed><TableBed :table="table" /></template>
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
      <g v-for="b in balls" :key="b.id" :transform="`translate(${sx(b.x).toFixed(1)} ${sy(b.y).toFixed(1)})`" :data-ball="b.id">
        <BallFigure :id="b.id" :radius="radius" is-numbered />
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
    </CameraView>
    <ul v-if="groups.length > 1" class="legend" aria-label="Colours of the attempts" data-testid="legend">
      <li v-for="(g, i) in groups" :key="g" :class="`g${i % 4}`"><i></i>{{ g || 'before' }}</li>
    </ul>
  </div>
</template>

<style scoped>
.count-plan {
  position: relative;
  aspect-ratio: 3841 / 2050;
  width: 100%;
}
.legend {
  position: absolute;
  left: 8px;
  bottom: 6px;
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1) var(--space-4);
  margin: 0;
  padding: var(--space-1) var(--space-3);
  list-style: none;
  font-size: var(--type-2);
  color: var(--chalk);
  background: rgb(3 25 27 / 0.72);
  border-radius: 6px;
  pointer-events: none;
}
.legend i {
  display: inline-block;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  margin-right: var(--space-2);
  background: var(--chalk);
}
.legend .g1 i {
  background: var(--group-1);
}
.legend .g2 i {
  background: var(--group-2);
}
.legend .g3 i {
  background: var(--group-3);
}
.areas circle,
.areas rect {
  fill: rgb(226 184 90 / 0.14);
  stroke: var(--brass);
  stroke-width: calc(6px * var(--u));
  stroke-dasharray: calc(22px * var(--u)) calc(14px * var(--u));
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
  stroke-width: calc(5px * var(--u));
}
.pot-line {
  stroke: var(--brass);
  stroke-dasharray: calc(26px * var(--u)) calc(14px * var(--u));
}
.skill {
  fill: rgb(159 216 208 / 0.1);
  stroke: var(--aqua);
  stroke-width: calc(4px * var(--u));
  stroke-dasharray: calc(6px * var(--u)) calc(10px * var(--u));
}
.spread {
  fill: none;
  stroke: var(--chalk);
  stroke-width: calc(5px * var(--u));
}
.trial circle {
  fill: var(--cloth-deep);
  stroke: var(--coral);
  stroke-width: calc(6px * var(--u));
  stroke-dasharray: calc(8px * var(--u)) calc(7px * var(--u));
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
  fill: var(--group-1);
  stroke: var(--group-1);
}
.trial.g2.done circle:not(.chosen) {
  fill: var(--group-2);
  stroke: var(--group-2);
}
.trial.g3.done circle:not(.chosen) {
  fill: var(--group-3);
  stroke: var(--group-3);
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
  stroke-width: calc(7px * var(--u));
}
</style>

<style>
.count-plan .over.points {
  cursor: crosshair;
}
</style>
