<script setup lang="ts">
import { useDrawing } from '../../table/bed'
import { useJudgedDrawing } from './judgedDrawing'
import { useJudgements } from './judgements'
import { useWays } from './ways'
import { useWhatIf } from './whatIf'

/** Of the plan's drawing: where the white may stop, the pot that is pointed at, the place that is wanted with the ways to it, and the fan of the same pot played otherwise. */
const judgements = useJudgements()
const ways = useWays()
const { shownWays, places, wanted, fan, aimLines } = useJudgedDrawing()
const whatIf = useWhatIf()
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
  <circle v-for="(p, i) in places" :key="i" :cx="sx(p.x)" :cy="sy(p.y)" :r="p.radius * 1000" class="goal" data-testid="goal" />
  <polyline v-for="(w, i) in wanted" :key="`wanted${i}`" :points="points(w)" class="wanted" data-testid="wanted" />
  <g class="ways">
    <g v-for="w in shownWays" :key="w.key" :class="w.key" :data-way="w.key">
      <polyline :points="points(w.points)" />
      <circle :cx="sx(w.end.x)" :cy="sy(w.end.y)" :r="radius" />
    </g>
  </g>
  <g class="fan" :class="{ stale: judgements.isFanStale }">
    <g v-for="a in aimLines" :key="a.key" class="aims">
      <line :x1="sx(a.from.x)" :y1="sy(a.from.y)" :x2="sx(a.kept.x)" :y2="sy(a.kept.y)"><title>Where it is aimed</title></line>
      <line :x1="sx(a.from.x)" :y1="sy(a.from.y)" :x2="sx(a.pots.x)" :y2="sy(a.pots.y)" class="pots"
        ><title>Where it would have to be aimed</title></line
      >
    </g>
    <g
      v-for="({ line, isPointed, does, isMissed }, i) in fan"
      :key="line.key"
      :data-fan="line.key"
      :class="{ pointed: isPointed, dimmed: judgements.pointedLine && !isPointed, does, missed: isMissed }"
    >
      <polyline :points="points(line.points)" :stroke-dasharray="fanDashes[i % fanDashes.length]" />
      <polyline
        v-if="isPointed && line.ballPoints.length"
        :points="points(line.ballPoints)"
        :stroke-dasharray="fanDashes[i % fanDashes.length]"
      />
      <circle :cx="sx(line.points[line.points.length - 1].x)" :cy="sy(line.points[line.points.length - 1].y)" :r="does ? 24 : 14" />
    </g>
  </g>
  <g v-if="whatIf.isOpen && whatIf.part === 'chart' && whatIf.chart" class="chart" data-testid="chart-places">
    <template v-for="c in [...whatIf.chart.byPart, ...whatIf.chart.bySide]" :key="`${c.row}/${c.pace}`">
      <circle v-if="c.end?.white && c.potted" :cx="sx(c.end.white.x)" :cy="sy(c.end.white.y)" r="9" />
    </template>
    <circle
      v-if="whatIf.pointed?.end?.white"
      :cx="sx(whatIf.pointed.end.white.x)"
      :cy="sy(whatIf.pointed.end.white.y)"
      :r="radius"
      class="at"
    />
    <template v-for="m in whatIf.chart.missed" :key="`${m.pace}${m.isThick}`">
      <path
        v-if="m.ball"
        :d="`M ${sx(m.ball.x) - 12} ${sy(m.ball.y) - 12} l 24 24 m -24 0 l 24 -24`"
        class="left"
        :class="{ thin: !m.isThick }"
        ><title>The ball, missed {{ m.isThick ? 'thick' : 'thin' }} at pace {{ m.pace.toFixed(1) }}</title></path
      >
    </template>
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
.wanted {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(9px * var(--u));
  stroke-dasharray: calc(20px * var(--u)) calc(12px * var(--u));
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
.fan .dimmed {
  opacity: 0.35;
}
.fan .pointed polyline {
  stroke-width: calc(10px * var(--u));
}
.fan .missed circle {
  fill: var(--coral);
}
.fan .does circle {
  fill: var(--brass);
}
.aims line {
  stroke: var(--chalk);
  stroke-width: calc(3px * var(--u));
  stroke-dasharray: calc(6px * var(--u)) calc(8px * var(--u));
}
.aims .pots {
  stroke: var(--brass);
  stroke-dasharray: none;
}
.chart circle {
  fill: var(--aqua);
  opacity: 0.7;
}
.chart .at {
  fill: none;
  opacity: 1;
  stroke: var(--brass);
  stroke-width: calc(8px * var(--u));
}
.chart .left {
  fill: none;
  stroke: var(--coral);
  stroke-width: calc(6px * var(--u));
}
.chart .left.thin {
  stroke-dasharray: calc(6px * var(--u)) calc(5px * var(--u));
}
</style>
