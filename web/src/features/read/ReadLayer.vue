<script setup lang="ts">
import { percentWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useDrawing } from '../../table/bed'
import { useMap } from './map'
import { useReading } from './reading'

/** Of the plan's drawing: where to be for the next ball, and the pot that is pointed at in the list. */
const map = useMap()
const reading = useReading()
const position = useDraft()
const { radius, sx, sy, outlinePath } = useDrawing()
</script>

<template>
  <g v-if="map.isOpen && map.map" class="map" data-testid="map">
    <path v-for="b in map.map.bands" :key="b.share" :d="outlinePath(b.outlines)" fill-rule="evenodd"
      ><title>Worth {{ percentWords(b.share) }} of the best place or more</title></path
    >
    <g v-if="map.map.best" class="best"
      ><line :x1="sx(map.map.best.x) - 26" :y1="sy(map.map.best.y)" :x2="sx(map.map.best.x) + 26" :y2="sy(map.map.best.y)" /><line
        :x1="sx(map.map.best.x)"
        :y1="sy(map.map.best.y) - 26"
        :x2="sx(map.map.best.x)"
        :y2="sy(map.map.best.y) + 26"
    /></g>
    <circle v-if="map.place" :cx="sx(map.place.x)" :cy="sy(map.place.y)" :r="radius" class="place" />
  </g>
  <g v-if="reading.pointed" class="pointed" data-testid="pointed">
    <template v-for="c in [reading.pointed.cut]" :key="c.ball + c.pocket">
      <line
        v-if="position.ball('white')"
        :x1="sx(position.ball('white')!.x)"
        :y1="sy(position.ball('white')!.y)"
        :x2="sx(c.ghostX)"
        :y2="sy(c.ghostY)"
      />
      <line v-for="(l, i) in c.legs" :key="i" :x1="sx(l.fromX)" :y1="sy(l.fromY)" :x2="sx(l.toX)" :y2="sy(l.toY)" />
      <circle :cx="sx(c.ghostX)" :cy="sy(c.ghostY)" :r="radius" />
    </template>
  </g>
</template>

<style scoped>
.map path {
  fill: rgb(245 239 220 / 0.1);
  stroke: var(--chalk-soft);
  stroke-width: calc(3px * var(--u));
  stroke-opacity: 0.7;
}
.place {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(5px * var(--u));
}
.best line {
  stroke: var(--brass);
  stroke-width: calc(7px * var(--u));
}
.pointed line,
.pointed circle {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(9px * var(--u));
  opacity: 0.75;
}
</style>
