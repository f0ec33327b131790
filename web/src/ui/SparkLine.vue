<script setup lang="ts">
import { computed } from 'vue'

/** How something has gone lately, as a small line with its last point: shares, or figures from 0 to their highest. */
const props = defineProps<{ values: readonly number[]; label: string; most?: number }>()
const [width, height] = [104, 22]
const top = computed(() => props.most ?? Math.max(...props.values, 1))
const points = computed(() =>
  props.values.map((v, i) => ({
    x: props.values.length > 1 ? (i / (props.values.length - 1)) * width : width / 2,
    y: height - (Math.min(v, top.value) / top.value) * height,
  })),
)
const last = computed(() => points.value[points.value.length - 1])
</script>

<template>
  <svg
    v-if="last"
    class="spark"
    :viewBox="`-3 -3 ${width + 6} ${height + 6}`"
    :width="width"
    :height="height + 6"
    role="img"
    :aria-label="label"
  >
    <polyline :points="points.map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' ')" />
    <circle :cx="last.x" :cy="last.y" r="2.8" />
  </svg>
</template>

<style scoped>
.spark {
  flex: none;
}
polyline {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.8;
  stroke-linejoin: round;
}
circle {
  fill: var(--accent);
}
</style>
