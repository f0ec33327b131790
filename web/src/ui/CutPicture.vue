<script setup lang="ts">
import { computed } from 'vue'
import { lookOf } from '../domain/balls'

/** The overlap as the player sees it down the line of aim: the cue ball (outline) in front of the object ball. Offset in metres, + to the left cut. */
const props = defineProps<{ offset: number; radius: number; ball: string }>()
const r = 26
// A cut to the left means that the cue ball passes on the right.
const dx = computed(() => (props.offset / props.radius) * r)
</script>

<template>
  <svg viewBox="-60 -32 120 64" width="105" height="56" role="img" aria-label="How much of the object ball the cue ball covers">
    <circle :cx="-dx / 2" cy="0" :r="r" :fill="lookOf(ball).fill" stroke="currentColor" stroke-opacity="0.6" />
    <circle :cx="dx / 2" cy="0" :r="r" fill="rgb(248 244 230 / 0.42)" stroke="currentColor" stroke-width="2" />
    <line :x1="dx / 2" :x2="dx / 2" y1="-31" y2="31" stroke="currentColor" stroke-dasharray="3 3" />
  </svg>
</template>
