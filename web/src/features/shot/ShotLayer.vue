<script setup lang="ts">
import { computed } from 'vue'
import { lookOf } from '../../domain/balls'
import { useDrawing } from '../../table/bed'
import { useCameraHere } from '../../table/camera'
import type { Point } from '../../table/layer'
import { taperedPath } from '../../table/tapered'
import { useDraft } from '../../position/draft'
import { useShot } from '../../position/shot'
import { useJudgements } from './judgements'
import { useShotDrawing } from './shotDrawing'
import { spinWords } from './words'

/** Of the plan's drawing: what the shot that is set up does. */
const position = useDraft()
const answer = useShot()
const { cut, whitePath, otherPaths, finals } = useShotDrawing()
const { radius, sx, sy, points } = useDrawing()
const camera = useCameraHere()
const judgements = useJudgements()
/** Follow as a stroke ahead, screw as one back, side as one aside: a ball's width and a half for all of a rolling ball's spin. */
const full = 80
const spins = computed(() =>
  answer.asked && answer.shot
    ? answer.shot.spins.map((m, i) => ({
        key: i,
        x: m.x,
        y: m.y,
        // The plan's y grows downwards.
        turn: -m.directionDegrees,
        follow: Math.max(-1.5, Math.min(1.5, m.follow)) * full,
        // Right-hand side to the right of the way.
        side: m.side * full * 0.6,
        words: spinWords(m),
      }))
    : [],
)
/** The white's way: thin as it leaves, broad from the contact on, and thinner to where it stops. */
const tapered = (list: readonly Point[], start: number, end: number) => {
  const unit = camera.perPixel.value
  return taperedPath(
    list.map((p) => ({ x: sx(p.x), y: sy(p.y) })),
    start * unit,
    end * unit,
  )
}
</script>

<template>
  <g class="lines" :class="{ refused: !!position.problem }">
    <polyline v-for="p in otherPaths" :key="`${p.id}-halo`" :points="points(p.points)" class="halo thin" />
    <polyline
      v-for="p in otherPaths"
      :key="p.id"
      :points="points(p.points)"
      class="path other"
      :style="{ stroke: p.id === 'black' ? '#9aa3a0' : lookOf(p.id).fill }"
    />
    <template v-if="cut && position.ball(cut.ball)">
      <line v-for="(l, i) in cut.legs" :key="i" :x1="sx(l.fromX)" :y1="sy(l.fromY)" :x2="sx(l.toX)" :y2="sy(l.toY)" class="potting" />
      <circle :cx="sx(cut.ghostX)" :cy="sy(cut.ghostY)" :r="radius" class="ghost" />
    </template>
    <polyline :points="points(whitePath.before)" class="halo" />
    <polyline :points="points(whitePath.after)" class="halo" />
    <path :d="tapered(whitePath.before, 0.9, 2)" class="white" data-testid="white-before" />
    <path :d="tapered(whitePath.after, 3, 1.5)" class="white" data-testid="white-after" />
    <g v-if="judgements.spinOpen" class="spins" data-testid="spins">
      <g v-for="m in spins" :key="m.key" :transform="`translate(${sx(m.x)} ${sy(m.y)}) rotate(${m.turn})`">
        <title>{{ m.words }}</title>
        <line x1="0" y1="0" :x2="m.follow" y2="0" :class="m.follow < 0 ? 'screw' : 'follow'" />
        <circle :cx="m.follow" cy="0" r="7" :class="m.follow < 0 ? 'screw' : 'follow'" />
        <line v-if="m.side" x1="0" y1="0" x2="0" :y2="m.side" class="side" />
      </g>
    </g>
    <!-- Where a missed ball crosses the mouth of its pocket. -->
    <path
      v-if="answer.shot?.miss?.crossing"
      :d="`M ${sx(answer.shot.miss.crossing.x) - radius} ${sy(answer.shot.miss.crossing.y) - radius} l ${2 * radius} ${2 * radius} m ${-2 * radius} 0 l ${2 * radius} ${-2 * radius}`"
      class="crossing"
      data-testid="crossing"
    />
    <circle
      v-for="f in finals"
      :key="f.id"
      :cx="sx(f.x)"
      :cy="sy(f.y)"
      :r="radius"
      class="rest"
      :class="{ 'rest-white': f.id === 'white' }"
    />
  </g>
</template>

<style scoped>
.crossing {
  fill: none;
  stroke: var(--danger);
  stroke-width: 2;
  vector-effect: non-scaling-stroke;
}
.path {
  fill: none;
  stroke-linejoin: round;
}
.white {
  fill: var(--chalk);
}
.halo {
  stroke-width: calc(20px * var(--u));
}
.halo.thin {
  stroke-width: calc(14px * var(--u));
}
.path.other {
  stroke-width: calc(6px * var(--u));
  stroke-dasharray: calc(5px * var(--u)) calc(13px * var(--u));
  stroke-linecap: round;
}
.refused {
  opacity: 0.25;
}
.ghost {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(6px * var(--u));
}
.rest {
  fill: none;
  stroke: var(--chalk-soft);
  stroke-width: calc(5px * var(--u));
  stroke-dasharray: calc(9px * var(--u)) calc(9px * var(--u));
}
.rest-white {
  stroke: var(--chalk);
  stroke-width: calc(9px * var(--u));
  stroke-dasharray: none;
}
.spins line {
  stroke-width: calc(7px * var(--u));
}
.spins .follow {
  stroke: var(--brass);
  fill: var(--brass);
}
.spins .screw {
  stroke: var(--aqua);
  fill: var(--aqua);
}
.spins .side {
  stroke: var(--coral);
}
</style>
