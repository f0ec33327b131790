<script setup lang="ts">
import { computed } from 'vue'
import type { BallEntry, Reference } from '../api/client'
import { lightOn, lookOf, isRed } from '../domain/balls'
import type { Point } from './layer'

/** A plan to know a table by in a gallery: balls with their colours and marks, the white's way, the line of the pot, areas. Not to be touched. */
type Area = Point & { radius?: number | null; toX?: number | null; toY?: number | null }
const props = defineProps<{
  balls: readonly BallEntry[]
  reference: Pick<Reference, 'length' | 'width' | 'baulkLineX' | 'dRadius' | 'ballRadius'>
  white?: readonly Point[]
  pot?: readonly Point[]
  areas?: readonly Area[]
}>()
const edge = 0.12
const r = computed(() => props.reference)
const y = (v: number) => r.value.width - v
const line = (points: readonly Point[] = []) => points.map((p) => `${p.x.toFixed(3)},${y(p.y).toFixed(3)}`).join(' ')
const box = computed(() => `${-edge} ${-edge} ${r.value.length + 2 * edge} ${r.value.width + 2 * edge}`)
const holes = computed(() => {
  const { length, width } = r.value
  const corner = 0.02
  return [0, length / 2, length].flatMap((x) => [
    { x: x === 0 ? -corner : x === length ? length + corner : x, y: x === length / 2 ? -0.045 : -corner },
    { x: x === 0 ? -corner : x === length ? length + corner : x, y: x === length / 2 ? width + 0.045 : width + corner },
  ])
})
/** So that a ball can be known at a tenth of a screen, it is drawn somewhat larger than it is. */
const ballRadius = computed(() => r.value.ballRadius * 1.45)
const end = computed(() => (props.white?.length ? props.white[props.white.length - 1] : null))
</script>

<template>
  <svg :viewBox="box" class="plan-picture" aria-hidden="true">
    <rect :x="-edge" :y="-edge" :width="r.length + 2 * edge" :height="r.width + 2 * edge" rx="0.07" fill="url(#wood-grain)" />
    <rect x="-0.046" y="-0.046" :width="r.length + 0.092" :height="r.width + 0.092" fill="#0b3a3b" />
    <rect :width="r.length" :height="r.width" fill="url(#cloth-light)" />
    <circle v-for="(h, i) in holes" :key="i" :cx="h.x" :cy="h.y" r="0.062" class="hole" />
    <g class="marks">
      <line :x1="r.baulkLineX" :x2="r.baulkLineX" y1="0" :y2="r.width" />
      <path
        :d="`M ${r.baulkLineX} ${r.width / 2 + r.dRadius} A ${r.dRadius} ${r.dRadius} 0 0 1 ${r.baulkLineX} ${r.width / 2 - r.dRadius}`"
      />
    </g>
    <template v-for="(a, i) in areas ?? []" :key="i">
      <circle v-if="a.radius" :cx="a.x" :cy="y(a.y)" :r="a.radius" class="area" />
      <rect v-else :x="a.x" :y="y(a.toY!)" :width="a.toX! - a.x" :height="a.toY! - a.y" class="area" />
    </template>
    <polyline v-if="pot?.length" :points="line(pot)" class="pot" />
    <polyline v-if="white?.length" :points="line(white)" class="way" />
    <circle v-if="end" :cx="end.x" :cy="y(end.y)" :r="ballRadius" class="end" />
    <g v-for="b in balls" :key="b.id" :transform="`translate(${b.x} ${y(b.y)})`">
      <circle :r="ballRadius" :fill="lightOn(b.id)" class="ball" />
      <text v-if="!isRed(b.id) && b.id !== 'white'" :fill="lookOf(b.id).ink">{{ lookOf(b.id).mark }}</text>
    </g>
  </svg>
</template>

<style scoped>
.plan-picture {
  display: block;
  width: 100%;
}
.hole {
  fill: #030708;
  stroke: #2b1a11;
  stroke-width: 0.018;
}
.marks {
  fill: none;
  stroke: var(--chalk-soft);
  stroke-width: 0.009;
  opacity: 0.7;
}
.area {
  fill: rgb(226 184 90 / 0.22);
  stroke: var(--brass);
  stroke-width: 0.013;
}
.way {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 0.018;
  stroke-linejoin: round;
}
.end {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 0.014;
}
.pot {
  fill: none;
  stroke: var(--brass);
  stroke-width: 0.014;
  stroke-dasharray: 0.05 0.035;
}
.ball {
  stroke: #06181a;
  stroke-width: 0.006;
}
text {
  font: 700 0.05px var(--font);
  text-anchor: middle;
  dominant-baseline: central;
}
</style>
