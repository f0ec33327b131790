<script setup lang="ts">
import { useDrawing } from '../../table/bed'
import { usePlanDrawing } from './planDrawing'
import { usePlans } from './plans'

/** Of the plan's drawing: the shots of a plan, the one that is looked at strong. */
const plans = usePlans()
const { present, others, next } = usePlanDrawing()
const { radius, sx, sy, points, outlinePath } = useDrawing()
</script>

<template>
  <g v-for="s in others" :key="s.number" class="other-shot" :data-shot="s.number">
    <polyline v-if="s.pot.length" :points="points(s.pot)" class="potting" />
    <polyline :points="points(s.path)" class="white" />
    <circle :cx="sx(s.path[s.path.length - 1].x)" :cy="sy(s.path[s.path.length - 1].y)" :r="radius" class="white" />
  </g>
  <g v-if="present" class="planned" data-testid="planned">
    <path v-if="present.area.length" :d="outlinePath([present.area])" class="area"><title>Good for the next ball as well</title></path>
    <template v-if="!plans.isSetUp">
      <polyline v-if="present.pot.length" :points="points(present.pot)" class="potting" />
      <polyline :points="points(present.path)" class="white" />
      <circle
        :cx="sx(present.path[present.path.length - 1].x)"
        :cy="sy(present.path[present.path.length - 1].y)"
        :r="radius"
        class="white"
      />
    </template>
  </g>
  <g v-if="next" class="planned" data-testid="next-drawn">
    <path v-if="next.area.length" :d="outlinePath([next.area])" class="area"><title>Good for this ball as well</title></path>
    <polyline :points="points(next.path)" class="white" stroke-dasharray="26 14" />
  </g>
</template>

<style scoped>
.area {
  fill: rgb(226 184 90 / 0.2);
  stroke: var(--brass);
  stroke-width: calc(4px * var(--u));
}
polyline {
  fill: none;
}
.planned .white {
  fill: none;
  stroke: var(--aqua);
  stroke-width: calc(8px * var(--u));
}
.other-shot .white {
  fill: none;
  stroke: var(--aqua);
  stroke-width: calc(3px * var(--u));
  stroke-opacity: 0.75;
}
.other-shot .potting {
  stroke-width: calc(3px * var(--u));
  stroke-opacity: 0.8;
}
</style>
