<script setup lang="ts">
import { lightOn } from '../domain/balls'

/** The balls of a break, in the order in which they were potted. */
defineProps<{ balls: readonly string[] }>()
</script>

<template>
  <svg :viewBox="`0 0 ${balls.length * 13 + 2} 14`" :width="balls.length * 13 + 2" height="14" aria-hidden="true">
    <circle
      v-for="(ball, k) in balls"
      :key="k"
      :cx="k * 13 + 7"
      cy="7"
      r="5.8"
      :fill="lightOn(ball === 'red' ? 'red-1' : ball)"
      stroke="#06181a"
    />
  </svg>
</template>
