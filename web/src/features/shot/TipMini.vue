<script setup lang="ts">
/** A small face of the cue ball with the place of the tip, in the colour of a stroke's line. In tips. */
defineProps<{ side: number; height: number; colour: string }>()
</script>

<template>
  <svg viewBox="-2.4 -2.4 4.8 4.8" width="22" height="22" aria-hidden="true">
    <circle r="2.2" fill="#efe8d3" stroke="#3a3527" stroke-width="0.15" />
    <circle r="1.56" fill="none" stroke="#a8321b" stroke-width="0.12" stroke-dasharray="0.35 0.25" />
    <circle :cx="side" :cy="-height" r="0.62" :fill="colour" stroke="#12484b" stroke-width="0.22" />
  </svg>
</template>
