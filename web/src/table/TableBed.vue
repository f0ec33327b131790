<script setup lang="ts">
import { computed } from 'vue'
import type { Table } from '../api/client'
import { cushionDepth, rail, useDrawing } from './bed'
import Ruler from './TableRuler.vue'

/** The table itself with its ruler, mm: rails, rubber, pockets, cloth and the marks on it. Drawn beneath what moves. */
const props = defineProps<{ table: Table | null; isTurned?: boolean; hasRuler?: boolean }>()
const { reference, length, width, radius, sx, sy } = useDrawing()
const pockets = computed(() => props.table?.pockets ?? [])
/** How far the shadow of a cushion falls on the cloth, mm. */
const shadow = 34
/** Each nose with its rubber behind it and its shadow before it. */
const cushions = computed(() =>
  (props.table?.noses ?? []).map((n) => {
    const isEnd = n.x1 === n.x2
    const side = isEnd ? (n.x1 === 0 ? 'left' : 'right') : n.y1 === 0 ? 'bottom' : 'top'
    const [left, right] = [sx(Math.min(n.x1, n.x2)), sx(Math.max(n.x1, n.x2))]
    const [top, bottom] = [sy(Math.max(n.y1, n.y2)), sy(Math.min(n.y1, n.y2))]
    const strip = (depth: number, isBehind: boolean) =>
      isEnd
        ? { x: (side === 'left') === isBehind ? left - depth : left, y: top, width: depth, height: bottom - top }
        : { x: left, y: (side === 'top') === isBehind ? top - depth : top, width: right - left, height: depth }
    return { side, rubber: strip(cushionDepth, true), shade: strip(shadow, false), nose: { x1: left, y1: top, x2: right, y2: bottom } }
  }),
)
const edge = rail + cushionDepth
</script>

<template>
  <g class="table-bed">
    <rect :x="-edge" :y="-edge" :width="length + 2 * edge" :height="width + 2 * edge" rx="64" class="wood" />
    <rect
      v-for="inset in [10, rail - 8]"
      :key="inset"
      :x="-edge + inset"
      :y="-edge + inset"
      :width="length + 2 * (edge - inset)"
      :height="width + 2 * (edge - inset)"
      :rx="inset < 20 ? 56 : 18"
      class="inlay"
    />
    <rect :x="-cushionDepth" :y="-cushionDepth" :width="length + 2 * cushionDepth" :height="width + 2 * cushionDepth" class="cloth" />
    <rect v-for="(c, i) in cushions" :key="i" v-bind="c.shade" :fill="`url(#shade-${c.side})`" />
    <Ruler v-if="hasRuler" :length="length" :width="width" :offset="edge" :is-turned="isTurned" />

    <g v-for="p in pockets" :key="p.name">
      <circle :cx="sx(p.drop.x)" :cy="sy(p.drop.y)" :r="p.drop.radius * 1000 + radius * 0.35" class="hole" />
    </g>
    <template v-for="p in pockets" :key="p.name">
      <circle
        v-for="(jaw, i) in [p.jawA, p.jawB]"
        :key="i"
        :cx="sx(jaw.x)"
        :cy="sy(jaw.y)"
        :r="jaw.radius * 1000"
        class="jaw"
        clip-path="url(#rim)"
      />
    </template>
    <template v-for="(c, i) in cushions" :key="i">
      <rect v-bind="c.rubber" :fill="`url(#rubber-${c.side})`" />
      <line v-bind="c.nose" class="nose" />
    </template>
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
  </g>
</template>

<style scoped>
.wood {
  fill: url(#wood-grain);
  stroke: #22140d;
  stroke-width: 6;
}
.inlay {
  fill: none;
  stroke: #8a6540;
  stroke-width: 3;
  stroke-opacity: 0.55;
}
.cloth {
  fill: url(#cloth-light);
}
.hole {
  fill: url(#hole-depth);
  stroke: #2b1a11;
  stroke-width: 13;
}
.jaw {
  fill: #0b3a3b;
}
.nose {
  stroke: #4d918b;
  stroke-width: 4.5;
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
