<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { countWords } from '../../lib/formats'
import BallRun from '../../ui/BallRun.vue'
import { breakRuns, steps } from './curve'

/** A frame as its two scores rise, shot by shot, with the breaks worth telling as blocks of their balls. */
const props = defineProps<{ shots: readonly Schemas['StoryShotResult'][]; names: readonly string[] }>()
const [width, height, left, bottom] = [560, 190, 30, 22]
const most = computed(() => Math.max(20, ...props.shots.flatMap((s) => [s.first, s.second])))
const count = computed(() => Math.max(1, props.shots.length))
const sx = (n: number) => left + (n / count.value) * (width - left - 8)
const sy = (score: number) => 8 + (1 - score / most.value) * (height - 8 - bottom)
const line = (scores: readonly number[]) =>
  steps(scores)
    .map((p) => `${sx(p.x).toFixed(1)},${sy(p.y).toFixed(1)}`)
    .join(' ')
const lines = computed(() => [line(props.shots.map((s) => s.first)), line(props.shots.map((s) => s.second))])
const grid = computed(() => {
  const step = most.value > 90 ? 40 : most.value > 40 ? 20 : 10
  return Array.from({ length: Math.floor(most.value / step) + 1 }, (_, i) => i * step)
})
/** Shorter breaks are in the list. */
const worthTelling = 8
const blocks = computed(() =>
  breakRuns(props.shots)
    .filter((r) => r.points >= worthTelling)
    .map((r) => ({ ...r, x: sx(r.from), width: Math.max(6, sx(r.to + 1) - sx(r.from)) })),
)
const last = computed(() => props.shots[props.shots.length - 1])
const label = computed(() =>
  last.value
    ? `${props.names[0]} ${last.value.first}, ${props.names[1]} ${last.value.second}, ${countWords(props.shots.length, 'shot')}`
    : '',
)
</script>

<template>
  <figure v-if="shots.length > 1" class="curve" data-testid="frame-curve">
    <svg :viewBox="`0 0 ${width} ${height}`" role="img" :aria-label="label">
      <g class="grid">
        <template v-for="g in grid" :key="g">
          <line :x1="left" :x2="width - 8" :y1="sy(g)" :y2="sy(g)" />
          <text :x="left - 5" :y="sy(g) + 4" text-anchor="end">{{ g }}</text>
        </template>
        <text :x="width - 8" :y="height - 5" text-anchor="end">shot {{ shots.length }}</text>
      </g>
      <g v-for="(b, i) in blocks" :key="i" :class="`p${b.player}`">
        <rect :x="b.x" :width="b.width" y="8" :height="height - 8 - bottom" class="block" />
        <text :x="b.x + 3" y="20" class="points">{{ b.points }}</text>
      </g>
      <polyline v-for="(l, i) in lines" :key="i" :points="l" :class="`line p${i}`" />
    </svg>
    <figcaption>
      <span v-for="(n, i) in names" :key="i" :class="`p${i}`"><i></i>{{ n }}</span>
    </figcaption>
    <ul v-if="blocks.length" class="blocks" aria-label="Breaks, ball by ball">
      <li v-for="(b, i) in blocks" :key="i" :class="`p${b.player}`">
        <strong class="figure">{{ b.points }}</strong>
        <BallRun :balls="b.balls" />
        <span class="soft">{{ names[b.player] }}</span>
      </li>
    </ul>
  </figure>
</template>

<style scoped>
.curve {
  margin: 0;
}
svg {
  max-width: 100%;
}
.grid line {
  stroke: var(--edge);
}
.grid text {
  font-size: 11px;
  fill: var(--text-soft);
}
.line {
  fill: none;
  stroke-width: 2.6;
  stroke-linejoin: round;
}
.line.p0 {
  stroke: var(--accent);
}
.line.p1 {
  stroke: var(--text);
  stroke-dasharray: 6 3;
}
.p0 .block {
  fill: var(--accent);
  opacity: 0.16;
}
.p1 .block {
  fill: var(--text);
  opacity: 0.1;
}
.points {
  font-size: 11px;
  font-weight: 650;
  fill: var(--text);
}
figcaption {
  display: flex;
  gap: var(--space-5);
  font-size: var(--type-2);
}
figcaption i {
  display: inline-block;
  width: 22px;
  border-top: 3px solid var(--accent);
  margin-right: var(--space-2);
  vertical-align: 4px;
}
figcaption .p1 i {
  border-top: 3px dashed var(--text);
}
.blocks {
  list-style: none;
  margin: var(--space-2) 0 0;
  padding: 0;
}
.blocks li {
  display: flex;
  gap: var(--space-3);
  align-items: center;
  padding: var(--space-1) 0;
  overflow: hidden;
}
.blocks strong {
  min-width: 2.2em;
  text-align: right;
}
.blocks .soft {
  white-space: nowrap;
}
</style>
