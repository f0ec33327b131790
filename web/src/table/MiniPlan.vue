<script setup lang="ts">
import type { BallEntry, Reference } from '../api/client'
import { lookOf } from '../domain/balls'

const props = defineProps<{ balls: BallEntry[]; reference: Pick<Reference, 'length' | 'width' | 'baulkLineX'> }>()
const { length, width } = props.reference
</script>

<template>
  <svg :viewBox="`-0.1 -0.1 ${length + 0.2} ${width + 0.2}`" width="124" height="64" aria-hidden="true" class="mini">
    <rect x="-0.1" y="-0.1" :width="length + 0.2" :height="width + 0.2" rx="0.08" fill="var(--cushion)" />
    <rect :width="length" :height="width" fill="var(--cloth)" />
    <line :x1="reference.baulkLineX" :x2="reference.baulkLineX" y1="0" :y2="width" stroke="var(--chalk-soft)" stroke-width="0.015" />
    <circle
      v-for="b in balls"
      :key="b.id"
      :cx="b.x"
      :cy="width - b.y"
      r="0.048"
      :fill="lookOf(b.id).fill"
      stroke="#06181a"
      stroke-width="0.008"
    />
  </svg>
</template>

<style scoped>
.mini {
  flex: none;
}
</style>
