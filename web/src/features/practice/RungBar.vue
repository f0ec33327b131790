<script setup lang="ts">
/** The window of a ladder's rung on the whole scale of its knob. */
const props = defineProps<{ from: number; to: number; least: number; most: number; at: number }>()
const wide = 120
const x = (value: number) => ((value - props.least) / (props.most - props.least)) * wide
</script>

<template>
  <svg :viewBox="`0 0 ${wide} 12`" :width="wide" height="12" class="rung" aria-hidden="true">
    <line x1="0" y1="6" :x2="wide" y2="6" class="scale" />
    <line :x1="x((least + most) / 2)" y1="2" :x2="x((least + most) / 2)" y2="10" class="scale" />
    <rect :x="x(from)" y="2" :width="Math.max(1.5, x(to) - x(from))" height="8" rx="2" class="window" />
    <line :x1="x(at)" y1="0" :x2="x(at)" y2="12" class="at" />
  </svg>
</template>

<style scoped>
.rung {
  display: block;
}
.scale {
  stroke: var(--edge);
  stroke-width: 2;
}
.window {
  fill: var(--accent);
}
.at {
  stroke: var(--text);
  stroke-width: 1.5;
}
</style>
