<script setup lang="ts">
import { useDrawing } from '../../table/bed'
import { useGoal } from '../../position/goal'
import { useJudgedDrawing } from './judgedDrawing'
import { useJudgements } from './judgements'
import { useWays } from './ways'

/** Of the plan's drawing: where the white may stop, the pot that is pointed at, the place that is wanted with the ways to it, and the fan of the same pot played otherwise. */
const judgements = useJudgements()
const goals = useGoal()
const ways = useWays()
const { shownWays, place } = useJudgedDrawing()
const { radius, sx, sy, points, outlinePath } = useDrawing()
const fanDashes = ['18 12', '40 10 8 10', '6 10', '60 16', '26 8 4 8']
</script>

<template>
  <g v-if="ways.isOpen" class="mirror" data-testid="way-mirror">
    <polyline v-for="w in shownWays.filter((w) => w.mirror.length)" :key="w.key" :points="points(w.mirror)"
      ><title>As in a mirror, from the contact to where the white stops</title></polyline
    >
  </g>
  <g v-if="judgements.spread" class="spread" :class="{ stale: judgements.isSpreadStale }" data-testid="spread-outline">
    <path :d="outlinePath(judgements.spread.nearly)" class="nearly"><title>95 % of strokes leave the white in here</title></path>
    <path :d="outlinePath(judgements.spread.likely)" class="likely"><title>68 % of strokes leave the white in here</title></path>
    <path :d="outlinePath(judgements.spread.thickLeaves)" class="missed"
      ><title>Missed thick: 68 % leave the object ball in here</title></path
    >
    <path :d="outlinePath(judgements.spread.thinLeaves)" class="missed thin"
      ><title>Missed thin: 68 % leave the object ball in here</title></path
    >
  </g>
  <circle v-if="place" :cx="sx(place.x)" :cy="sy(place.y)" :r="goals.goal.radius * 1000" class="goal" data-testid="goal" />
  <g class="ways">
    <g v-for="w in shownWays" :key="w.key" :class="w.key" :data-way="w.key">
      <polyline :points="points(w.points)" />
      <circle :cx="sx(w.end.x)" :cy="sy(w.end.y)" :r="radius" />
    </g>
  </g>
  <g class="fan" :class="{ stale: judgements.isFanStale }">
    <g v-for="(f, i) in judgements.fan" :key="f.key" :data-fan="f.key">
      <polyline :points="points(f.points)" :stroke-dasharray="fanDashes[i % fanDashes.length]" />
      <circle :cx="sx(f.points[f.points.length - 1].x)" :cy="sy(f.points[f.points.length - 1].y)" r="14" />
    </g>
  </g>
</template>

<style scoped>
.missed {
  fill: rgb(255 143 120 / 0.12);
}
.spread .missed {
  stroke: var(--coral);
  stroke-width: calc(5px * var(--u));
  stroke-dasharray: calc(4px * var(--u)) calc(10px * var(--u));
}
.spread .missed.thin {
  stroke-dasharray: calc(22px * var(--u)) calc(8px * var(--u));
}
.goal {
  fill: rgb(226 184 90 / 0.14);
  stroke: var(--brass);
  stroke-width: calc(7px * var(--u));
  stroke-dasharray: calc(20px * var(--u)) calc(12px * var(--u));
  cursor: move;
}
.ways polyline,
.ways circle {
  fill: none;
  stroke: var(--aqua);
  stroke-width: calc(8px * var(--u));
}
.ways .a polyline {
  stroke-dasharray: calc(44px * var(--u)) calc(12px * var(--u));
}
.ways .b polyline {
  stroke-dasharray: calc(12px * var(--u)) calc(12px * var(--u));
}
.fan polyline {
  fill: none;
  stroke: var(--aqua);
  stroke-width: calc(6px * var(--u));
}
.fan circle {
  fill: var(--aqua);
}
</style>
