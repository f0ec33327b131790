<script setup lang="ts">
import { computed } from 'vue'
import type { Timing } from './words'

/** The cue's speed over time, strokes laid over one another at their contact; of the last one its parts are shaded. */
const props = defineProps<{ strokes: readonly { id: string; timing: Timing }[] }>()
const [width, height, left, bottom, top] = [640, 240, 44, 26, 18]
/** The contact, or the greatest speed, is nought of the time. */
const zeroOf = (t: Timing) => t.contact?.value ?? t.curve.reduce((a, p) => (p[1] > a[1] ? p : a), t.curve[0])[0]
const [before, after] = [1.4, 0.45]
const fastest = computed(() => Math.max(1, ...props.strokes.flatMap((s) => s.timing.curve.map((p) => p[1]))) * 1.08)
const slowest = computed(() => Math.min(-0.2, ...props.strokes.flatMap((s) => s.timing.curve.map((p) => p[1]))) * 1.08)
const sx = (time: number) => left + ((time + before) / (before + after)) * (width - left - 8)
const sy = (speed: number) => top + ((fastest.value - speed) / (fastest.value - slowest.value)) * (height - top - bottom)
const lines = computed(() =>
  props.strokes.map(({ id, timing }, i) => ({
    id,
    place: i,
    isStrong: i === props.strokes.length - 1,
    points: timing.curve
      .map((p) => ({ t: p[0] - zeroOf(timing), v: p[1] }))
      .filter((p) => p.t >= -before && p.t <= after)
      .map((p) => `${sx(p.t).toFixed(1)},${sy(p.v).toFixed(1)}`)
      .join(' '),
  })),
)
const last = computed(() => props.strokes[props.strokes.length - 1]?.timing)
const phases = computed(() => {
  const t = last.value
  if (!t) return []
  const zero = zeroOf(t)
  return (['backswing', 'pause', 'delivery', 'followThrough'] as const).flatMap((name) => {
    const p = t[name]
    if (!p) return []
    const [from, to] = [Math.max(-before, p.from - zero), Math.min(after, p.to - zero)]
    if (to <= from) return []
    const label = name === 'followThrough' ? 'follow-through' : name
    return [{ name, x: sx(from), width: sx(to) - sx(from), label: sx(to) - sx(from) > label.length * 6.5 ? label : '' }]
  })
})
const peak = computed(() => {
  const t = last.value
  return t?.atContact === 'pastPeak' && t.peakBefore ? sx(-t.peakBefore.value) : null
})
const grid = computed(() => [-1, 0, 1, 2, 3, 4, 5, 6].filter((v) => v > slowest.value && v < fastest.value))
const times = [-1.2, -0.8, -0.4, 0, 0.4]
</script>

<template>
  <svg :viewBox="`0 0 ${width} ${height}`" role="img" aria-label="Speed of the cue over time" class="timing" data-testid="timing-chart">
    <g v-for="p in phases" :key="p.name">
      <rect :x="p.x" :y="top" :width="p.width" :height="height - top - bottom" :class="['phase', p.name]" />
      <text v-if="p.label" :x="p.x + p.width / 2" :y="top - 5" text-anchor="middle" class="label">{{ p.label }}</text>
    </g>
    <g class="grid">
      <template v-for="v in grid" :key="v">
        <line :x1="left" :x2="width - 8" :y1="sy(v)" :y2="sy(v)" :class="{ zero: v === 0 }" />
        <text :x="left - 6" :y="sy(v) + 4" text-anchor="end">{{ v }}</text>
      </template>
      <text v-for="t in times" :key="t" :x="sx(t)" :y="height - 8" text-anchor="middle">{{ t === 0 ? 'contact' : `${t} s` }}</text>
      <text :x="4" :y="top - 5">m/s</text>
    </g>
    <line :x1="sx(0)" :x2="sx(0)" :y1="top" :y2="height - bottom" class="contact" />
    <line v-if="peak" :x1="peak" :x2="peak" :y1="top" :y2="height - bottom" class="peak" />
    <polyline v-for="l in lines" :key="l.id" :points="l.points" :class="['line', `place-${l.place}`, { strong: l.isStrong }]" />
  </svg>
</template>

<style scoped>
.timing {
  display: block;
  width: 100%;
}
text {
  font-size: 11px;
  fill: var(--text-soft);
}
.grid line {
  stroke: var(--edge);
}
.grid .zero {
  stroke: var(--text-soft);
}
.phase {
  fill: var(--text-soft);
  opacity: 0.07;
}
.phase.pause {
  opacity: 0.16;
}
.phase.delivery {
  fill: var(--accent);
  opacity: 0.14;
}
.contact {
  stroke: var(--text);
  stroke-width: 1.5;
}
.peak {
  stroke: var(--brass);
  stroke-width: 1.5;
  stroke-dasharray: 4 3;
}
.line {
  fill: none;
  stroke: var(--text-soft);
  stroke-width: 1.4;
  opacity: 0.7;
}
.place-1 {
  stroke-dasharray: 7 3;
}
.place-2 {
  stroke-dasharray: 2 3;
}
.place-3 {
  stroke-dasharray: 9 3 2 3;
}
.line.strong {
  stroke: var(--accent);
  stroke-width: 2.4;
  stroke-dasharray: none;
  opacity: 1;
}
</style>
