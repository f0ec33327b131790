<script setup lang="ts">
import { useDrawing } from '../../table/bed'
import { useMap } from '../read/map'
import { usePlanDrawing } from './planDrawing'

/** Of the plan's drawing: where to be, and the shot of a plan that is looked at. */
const map = useMap()
const { planned, pot, isSetUp } = usePlanDrawing()
const { radius, sx, sy, points, outlinePath } = useDrawing()
</script>

<template>
  <g v-if="map.isOpen && map.map" class="map" data-testid="map">
    <path v-for="b in map.map.bands" :key="b.share" :d="outlinePath(b.outlines)" fill-rule="evenodd"><title>Worth {{ (b.share * 100).toFixed(0) }} % of the best place or more</title></path>
    <g v-if="map.map.best" class="best"><line :x1="sx(map.map.best.x) - 26" :y1="sy(map.map.best.y)" :x2="sx(map.map.best.x) + 26" :y2="sy(map.map.best.y)" /><line :x1="sx(map.map.best.x)" :y1="sy(map.map.best.y) - 26" :x2="sx(map.map.best.x)" :y2="sy(map.map.best.y) + 26" /></g>
  </g>
  <g v-if="planned" class="planned" data-testid="planned">
    <path v-if="planned.area.length" :d="outlinePath([planned.area])" class="area"><title>As good for the next ball as the place that is meant</title></path>
    <template v-if="!isSetUp">
      <line v-if="pot" :x1="sx(pot.x1)" :y1="sy(pot.y1)" :x2="sx(pot.x2)" :y2="sy(pot.y2)" class="potting" />
      <polyline :points="points(planned.path)" />
      <circle :cx="sx(planned.path[planned.path.length - 1].x)" :cy="sy(planned.path[planned.path.length - 1].y)" :r="radius" />
    </template>
  </g>
</template>

<style scoped>
.map path {
  fill: rgb(245 239 220 / 0.1);
  stroke: var(--chalk-soft);
  stroke-width: 3;
  stroke-opacity: 0.7;
}
.best line {
  stroke: var(--brass);
  stroke-width: 7;
}
.area {
  fill: rgb(226 184 90 / 0.2);
  stroke: var(--brass);
  stroke-width: 4;
}
.planned polyline,
.planned circle {
  fill: none;
  stroke: var(--aqua);
  stroke-width: 9;
  stroke-dasharray: 44 12;
  stroke-linejoin: round;
}
.planned circle {
  stroke-dasharray: none;
}
</style>
