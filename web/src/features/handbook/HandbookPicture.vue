<script setup lang="ts">
import { computed } from 'vue'
import type { Topic } from '../../domain/handbook'
import { useDraft } from '../../position/draft'
import PlanPicture from '../../table/PlanPicture.vue'
import BallFace from '../../ui/BallFace.vue'
import CutPicture from '../../ui/CutPicture.vue'

/** A small picture to a paragraph, where one says more than words. */
const props = defineProps<{ topic: Topic }>()
const position = useDraft()
const balls = [
  { id: 'white', x: 2.72, y: 1.05 },
  { id: 'red-1', x: 2.95, y: 0.5 },
  { id: 'pink', x: 2.4, y: 1.3 },
]
const ghost = { x: 2.915, y: 0.54 }
const pot = [
  { x: 2.95, y: 0.5 },
  { x: 3.56, y: 0.02 },
]
const way = [balls[0], ghost, { x: 2.74, y: 0.03 }, { x: 2.58, y: 0.45 }]
/** How often a pot goes in by its distance: drawn by the shape alone, for players of four standards. */
const curves = [0.2, 0.5, 1, 2.2].map((k) =>
  Array.from({ length: 21 }, (_, i) => `${8 + i * 6},${74 - 62 * (1 - Math.exp(-2.2 / (0.05 + k * (i / 20) ** 2 * 3)))}`).join(' '),
)
const isPlan = computed(() => ['spread', 'lines', 'map', 'points', 'safety', 'guess', 'compare'].includes(props.topic))
const areas = computed(() =>
  props.topic === 'spread' || props.topic === 'guess'
    ? [
        { x: 2.58, y: 0.45, radius: 0.13 },
        { x: 2.58, y: 0.45, radius: 0.26 },
      ]
    : props.topic === 'map'
      ? [
          { x: 2.7, y: 0.75, radius: 0.3 },
          { x: 2.7, y: 0.75, radius: 0.15 },
        ]
      : [],
)
</script>

<template>
  <PlanPicture
    v-if="isPlan && position.reference"
    :balls="balls"
    :reference="position.reference"
    :white="topic === 'map' ? [] : way"
    :pot="pot"
    :areas="areas"
  />
  <CutPicture
    v-else-if="topic === 'fullness' || topic === 'window'"
    :offset="topic === 'fullness' ? 0.02625 : 0.012"
    :radius="0.02625"
    ball="red-1"
  />
  <svg
    v-else-if="topic === 'chance' || topic === 'skill'"
    viewBox="0 0 140 90"
    class="curves"
    role="img"
    aria-label="The farther, the less often it goes in"
  >
    <line x1="8" x2="134" y1="74" y2="74" />
    <line x1="8" x2="8" y1="8" y2="74" />
    <polyline v-for="(c, i) in curves" :key="i" :points="c" :style="{ strokeDasharray: ['none', '7 3', '3 3', '1 3'][i] }" />
    <text x="134" y="86" text-anchor="end">farther</text>
  </svg>
  <BallFace
    v-else-if="topic === 'tip'"
    class="face"
    :side="0"
    :height="-0.5"
    :patch="0.26"
    has-rings
    role="img"
    aria-label="Half a tip low on the face of the white"
  />
  <span v-else></span>
</template>

<style scoped>
.curves {
  width: 100%;
  max-width: 220px;
}
.curves line {
  stroke: var(--edge);
}
.curves polyline {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.6;
}
.curves text {
  font-size: 9px;
  fill: var(--text-soft);
}
.face {
  width: 110px;
}
</style>
