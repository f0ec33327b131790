<script setup lang="ts">
import { useDrawing } from '../../table/bed'
import { useTrialsDrawing } from './trialsDrawing'

/** Of the plan's drawing: the lines that strokes have left, those that are compared, and what is guessed. */
const { lines, seenMarks, guesses, spreads, asPlayed } = useTrialsDrawing()
const { radius, sx, sy, points, outlinePath } = useDrawing()
</script>

<template>
  <path v-for="s in spreads" :key="s.key" :d="outlinePath(s.outlines)" class="spread-of-choice" :style="{ stroke: s.colour }" />
  <g v-for="l in lines" :key="l.key" class="trial-line" :data-trial="l.key" data-testid="trial-line">
    <polyline :points="points(l.points)" class="halo" />
    <polyline
      :points="points(l.points)"
      :style="{ stroke: l.colour, strokeDasharray: l.dash.map((d) => `calc(${d}px * var(--u))`).join(' ') || 'none' }"
    />
    <circle :cx="sx(l.end.x)" :cy="sy(l.end.y)" :r="radius" :style="{ stroke: l.colour }" />
  </g>
  <polyline v-if="asPlayed.length > 1" :points="points(asPlayed)" class="as-played" data-testid="as-played" />
  <g v-for="m in seenMarks" :key="m.key" class="seen" data-testid="seen-mark">
    <line :x1="sx(m.from.x)" :y1="sy(m.from.y)" :x2="sx(m.at.x)" :y2="sy(m.at.y)" />
    <circle :cx="sx(m.at.x)" :cy="sy(m.at.y)" :r="radius" />
    <circle :cx="sx(m.at.x)" :cy="sy(m.at.y)" r="6" class="dot" />
  </g>
  <g v-for="g in guesses" :key="g.key" class="guess" data-testid="guess-mark">
    <line v-if="g.answer" :x1="sx(g.at.x)" :y1="sy(g.at.y)" :x2="sx(g.answer.x)" :y2="sy(g.answer.y)" />
    <circle :cx="sx(g.at.x)" :cy="sy(g.at.y)" :r="radius" />
  </g>
</template>

<style scoped>
.trial-line polyline,
.trial-line circle {
  fill: none;
  stroke-width: calc(6px * var(--u));
  stroke-linejoin: round;
}
.trial-line .halo {
  stroke-width: calc(13px * var(--u));
}
.spread-of-choice {
  fill: rgb(245 239 220 / 0.08);
  stroke-width: calc(4px * var(--u));
  stroke-dasharray: calc(10px * var(--u)) calc(8px * var(--u));
}
.as-played {
  fill: none;
  stroke: var(--coral);
  stroke-width: calc(4px * var(--u));
  stroke-linejoin: round;
}
.seen line,
.guess line {
  stroke: var(--coral);
  stroke-width: calc(4px * var(--u));
  stroke-dasharray: calc(5px * var(--u)) calc(8px * var(--u));
}
.seen circle,
.guess circle {
  fill: rgb(255 143 120 / 0.2);
  stroke: var(--coral);
  stroke-width: calc(6px * var(--u));
}
.seen .dot {
  fill: var(--coral);
  stroke: none;
}
</style>
