<script setup lang="ts">
import { computed } from 'vue'
import type { Table } from '../api/client'
import { cushionDepth, rail, useDrawing, viewBoxOf } from './bed'
import Ruler from './TableRuler.vue'

/**
 * The table itself with its rulers, in millimetres. A drawing of its own under TablePlan, so that what moves on the table is drawn anew
 * without it.
 */
const props = defineProps<{
  table: Table | null
  /** Which part of the drawing is seen; all of it unless said. */
  part?: string
}>()
const { reference, length, width, radius, sx, sy } = useDrawing()
const noses = computed(() => props.table?.noses ?? [])
const pockets = computed(() => props.table?.pockets ?? [])
</script>

<template>
  <svg class="bed" :viewBox="part ?? viewBoxOf(reference)" aria-hidden="true">
    <rect
      :x="-rail - cushionDepth"
      :y="-rail - cushionDepth"
      :width="length + 2 * (rail + cushionDepth)"
      :height="width + 2 * (rail + cushionDepth)"
      rx="70"
      class="wood"
    />
    <rect :x="-cushionDepth" :y="-cushionDepth" :width="length + 2 * cushionDepth" :height="width + 2 * cushionDepth" class="cloth" />
    <Ruler :length="length" :width="width" :offset="rail + cushionDepth" />

    <circle
      v-for="p in pockets"
      :key="p.name"
      :cx="sx(p.drop.x)"
      :cy="sy(p.drop.y)"
      :r="p.drop.radius * 1000 + radius * 0.35"
      class="hole"
    />
    <g class="cushions">
      <template v-for="p in pockets" :key="p.name">
        <circle
          v-for="(jaw, i) in [p.jawA, p.jawB]"
          :key="i"
          :cx="sx(jaw.x)"
          :cy="sy(jaw.y)"
          :r="jaw.radius * 1000"
          class="jaw"
          :clip-path="`url(#rim)`"
        />
      </template>
      <template v-for="(n, i) in noses" :key="i">
        <rect
          v-if="n.x1 === n.x2"
          :x="n.x1 === 0 ? -cushionDepth : length"
          :y="sy(Math.max(n.y1, n.y2))"
          :width="cushionDepth"
          :height="Math.abs(n.y2 - n.y1) * 1000"
          class="rubber"
        />
        <rect
          v-else
          :x="sx(Math.min(n.x1, n.x2))"
          :y="n.y1 === 0 ? width : -cushionDepth"
          :width="Math.abs(n.x2 - n.x1) * 1000"
          :height="cushionDepth"
          class="rubber"
        />
        <line :x1="sx(n.x1)" :y1="sy(n.y1)" :x2="sx(n.x2)" :y2="sy(n.y2)" class="nose" />
      </template>
    </g>
    <clipPath id="rim">
      <rect :x="-cushionDepth" :y="-cushionDepth" :width="length + 2 * cushionDepth" :height="width + 2 * cushionDepth" />
    </clipPath>

    <g class="markings">
      <line :x1="sx(reference.baulkLineX)" :y1="0" :x2="sx(reference.baulkLineX)" :y2="width" />
      <path
        :d="`M ${sx(reference.baulkLineX)} ${sy(reference.width / 2 - reference.dRadius)} A ${reference.dRadius * 1000} ${reference.dRadius * 1000} 0 0 1 ${sx(reference.baulkLineX)} ${sy(reference.width / 2 + reference.dRadius)}`"
      />
      <circle v-for="s in reference.spots" :key="s.ball" :cx="sx(s.x)" :cy="sy(s.y)" r="6" class="spot" />
    </g>
  </svg>
</template>

<style scoped>
.bed {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  /* A layer of its own for the painter. */
  will-change: transform;
  font-family: var(--font);
}
.wood {
  fill: var(--wood);
}
.cloth {
  fill: var(--cloth);
}
.hole {
  fill: #071012;
}
.rubber,
.jaw {
  fill: var(--cushion);
}
.nose {
  stroke: #3f7f7c;
  stroke-width: 5;
}
.markings line,
.markings path {
  fill: none;
  stroke: var(--chalk-soft);
  stroke-width: 4;
  opacity: 0.75;
}
.spot {
  fill: var(--chalk-soft);
}
</style>
