<script setup lang="ts">
import { computed } from 'vue'
import { lookOf } from '../../domain/balls'
import { sideOfCut } from './words'

/**
 * The two balls large, as the player sees them down the cue: the white where it is aimed, the ghost ball where it meets the ball, and the
 * line of aim. All offsets in m from the ball's centre, + on the side on which the white passes.
 */
const props = defineProps<{
  cutDegrees: number
  /** Of the contact: 2R·sin φ. */
  contact: number
  /** Of the line of aim. */
  aim: number
  radius: number
  ball: string
  /** Where the tip goes, tips, and how far a tip moves the contact, as a share of the radius. */
  tip?: { side: number; height: number; share: number }
  label: string
}>()
const r = 26
const side = computed(() => sideOfCut(props.cutDegrees))
const at = (offset: number) => (side.value * offset * r) / props.radius
const shift = computed(() => -at(props.aim + props.contact) / 4)
</script>

<template>
  <svg viewBox="-62 -34 124 68" role="img" :aria-label="label" class="cut-large">
    <g :transform="`translate(${shift} 0)`">
      <circle cx="0" cy="0" :r="r" :fill="lookOf(ball).fill" stroke="currentColor" stroke-opacity="0.6" />
      <circle :cx="at(contact)" cy="0" :r="r" class="ghost" />
      <circle :cx="at(aim)" cy="0" :r="r" class="white" />
      <line :x1="at(aim)" :x2="at(aim)" y1="-33" y2="33" class="aim" />
      <circle v-if="tip" :cx="at(aim) + tip.side * tip.share * r" :cy="-tip.height * tip.share * r" r="5" class="tip" />
    </g>
  </svg>
</template>

<style scoped>
.cut-large {
  width: 100%;
  height: auto;
}
.white {
  fill: rgb(248 244 230 / 0.4);
  stroke: currentColor;
  stroke-width: 1.8;
}
.ghost {
  fill: none;
  stroke: var(--accent);
  stroke-width: 1.6;
  stroke-dasharray: 4 3;
}
.aim {
  stroke: currentColor;
  stroke-dasharray: 3 3;
}
.tip {
  fill: rgb(18 72 75 / 0.6);
  stroke: #12484b;
}
</style>
