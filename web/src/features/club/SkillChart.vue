<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { percentWords } from '../../lib/formats'
import { curveWords } from './words'

/** How a chance falls as one thing is changed; the number behind every point. */
const props = defineProps<{ curve: Schemas['SkillCurve'] }>()
const words = computed(() => curveWords[props.curve.kind])
const box = { width: 260, height: 132, left: 34, right: 12, top: 12, bottom: 22 }
// Miscues are rare: their scale ends where they do.
const top = computed(() => {
  if (props.curve.kind !== 'miscue') return 1
  const most = Math.max(...props.curve.points.map((p) => p.share.value))
  return [0.02, 0.05, 0.1, 0.25, 0.5, 1].find((t) => t >= most) ?? 1
})
const from = computed(() => props.curve.points[0].x)
const to = computed(() => props.curve.points[props.curve.points.length - 1].x)
const sx = (x: number) => box.left + ((x - from.value) / (to.value - from.value || 1)) * (box.width - box.left - box.right)
const sy = (share: number) => box.top + (1 - share / top.value) * (box.height - box.top - box.bottom)
const line = computed(() => props.curve.points.map((p) => `${sx(p.x).toFixed(1)},${sy(p.share.value).toFixed(1)}`).join(' '))
const told = computed(() => props.curve.points.map((p) => `${words.value.at(p.x)} ${percentWords(p.share.value)}`).join('; '))
/** Points whose place on the scale is written: none over another. */
const labelled = computed(() => {
  const kept: typeof props.curve.points = []
  for (const p of props.curve.points) if (!kept.length || sx(p.x) - sx(kept[kept.length - 1].x) > 26) kept.push(p)
  return kept
})
const grid = computed(() => [0, top.value / 2, top.value])
const gridWords = (share: number) => `${+(share * 100).toFixed(1)} %`
</script>

<template>
  <figure>
    <figcaption>{{ words.title }}</figcaption>
    <svg :viewBox="`0 0 ${box.width} ${box.height}`" role="img" :aria-label="`${words.title}: ${told}`">
      <g class="grid">
        <template v-for="g in grid" :key="g">
          <line :x1="box.left" :x2="box.width - box.right" :y1="sy(g)" :y2="sy(g)" />
          <text :x="box.left - 5" :y="sy(g) + 4" text-anchor="end">{{ gridWords(g) }}</text>
        </template>
        <text v-for="p in labelled" :key="p.x" :x="sx(p.x)" :y="box.height - 7" text-anchor="middle">
          {{ p.x }}
        </text>
      </g>
      <polyline :points="line" />
      <circle v-for="p in curve.points" :key="p.x" :cx="sx(p.x)" :cy="sy(p.share.value)" r="3.2">
        <title>{{ words.at(p.x) }}: {{ percentWords(p.share.value) }}</title>
      </circle>
    </svg>
    <p class="soft">{{ words.scale }}</p>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
figcaption {
  font-weight: 600;
}
svg {
  display: block;
  width: 100%;
}
.grid line {
  stroke: var(--edge);
}
.grid text {
  fill: var(--text-soft);
  font-size: 11px;
  font-variant-numeric: tabular-nums;
}
polyline {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
circle {
  fill: var(--accent);
}
p {
  margin: 0;
  font-size: 13px;
}
</style>
