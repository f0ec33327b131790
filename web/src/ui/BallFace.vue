<script setup lang="ts">
/**
 * The face of the cue ball with the miscue limit and the patch where the tip meets it. In tips: the ball's radius is 2.2 of them, the
 * limit half the radius with the dome of the tip allowed for.
 */
withDefaults(defineProps<{ side: number; height: number; fill?: string; patch?: number; hasRings?: boolean }>(), {
  fill: '#12484b',
  patch: 0.42,
})
</script>

<template>
  <svg viewBox="-2.3 -2.3 4.6 4.6" class="face">
    <circle r="2.2" fill="#efe8d3" />
    <g fill="none" class="thin">
      <line x1="-2.2" x2="2.2" y1="0" y2="0" stroke="#cbbf9c" />
      <line y1="-2.2" y2="2.2" x1="0" x2="0" stroke="#cbbf9c" />
      <template v-if="hasRings"><circle v-for="r in [0.25, 0.5, 0.75, 1, 1.25]" :key="r" :r="r" stroke="#b9ae8d" /></template>
      <circle r="1.5625" stroke="#a8321b" class="limit" />
    </g>
    <circle :cx="side" :cy="-height" :r="patch" :fill="fill" stroke="#fff" class="patch" />
  </svg>
</template>

<style scoped>
/* On any size of the picture as thin as on the others. */
line,
circle {
  vector-effect: non-scaling-stroke;
}
.limit {
  stroke-dasharray: 3 2;
}
</style>
