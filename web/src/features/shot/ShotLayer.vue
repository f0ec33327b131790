<script setup lang="ts">
import { lookOf } from '../../domain/balls'
import { useDrawing } from '../../table/bed'
import { useDraft } from '../../position/draft'
import { useShotDrawing } from './shotDrawing'

/** Of the plan's drawing: what the shot that is set up does. */
const position = useDraft()
const { cut, whitePath, otherPaths, finals } = useShotDrawing()
const { radius, sx, sy, points } = useDrawing()
</script>

<template>
  <g class="lines" :class="{ refused: !!position.problem }">
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
    <polyline :points="points(whitePath.before)" class="path before" data-testid="white-before" />
    <polyline :points="points(whitePath.after)" class="path after" data-testid="white-after" />
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
.path {
  fill: none;
  stroke-linejoin: round;
}
.path.before {
  stroke: var(--chalk);
  stroke-width: 7;
}
.path.after {
  stroke: var(--chalk);
  stroke-width: 11;
  stroke-dasharray: 38 12;
}
.path.other {
  stroke-width: 6;
  stroke-dasharray: 5 13;
  stroke-linecap: round;
}
.refused {
  opacity: 0.25;
}
.ghost {
  fill: none;
  stroke: var(--brass);
  stroke-width: 6;
}
.rest {
  fill: none;
  stroke: var(--chalk-soft);
  stroke-width: 5;
  stroke-dasharray: 9 9;
}
.rest-white {
  stroke: var(--chalk);
  stroke-width: 9;
  stroke-dasharray: none;
}
</style>
