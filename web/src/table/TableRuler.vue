<script setup lang="ts">
import { computed } from 'vue'

/** Rulers in millimetres (inner) and inches (outer) along the bottom and the left rail. All in mm. */
const props = defineProps<{ length: number; width: number; offset: number }>()
const inch = 25.4

const marks = (to: number) => ({
  mm: Array.from({ length: Math.floor(to / 100) + 1 }, (_, i) => i * 100),
  inches: Array.from({ length: Math.floor(to / inch / 10) + 1 }, (_, i) => i * 10),
})
const along = computed(() => marks(props.length))
const across = computed(() => marks(props.width))
</script>

<template>
  <g class="ruler">
    <g :transform="`translate(0 ${width + offset})`">
      <g v-for="m in along.mm" :key="`mm${m}`">
        <line :x1="m" :x2="m" :y1="-46" :y2="m % 500 ? -58 : -40" />
        <text v-if="m % 500 === 0" :x="m" y="-8" class="on-wood">{{ m }}</text>
      </g>
      <g v-for="n in along.inches" :key="`in${n}`">
        <line :x1="n * inch" :x2="n * inch" y1="2" :y2="n % 20 ? 12 : 18" class="out" />
        <text v-if="n % 20 === 0" :x="n * inch" y="60">{{ n }}″</text>
      </g>
      <text :x="length + 62" y="-8" class="on-wood unit">mm</text>
    </g>
    <g :transform="`translate(${-offset} ${width})`">
      <g v-for="m in across.mm" :key="`mm${m}`">
        <line x1="46" :x2="m % 500 ? 58 : 40" :y1="-m" :y2="-m" />
        <text v-if="m % 500 === 0" x="10" :y="-m" class="on-wood turned" :transform="`rotate(-90 10 ${-m})`" dy="24">{{ m }}</text>
      </g>
      <g v-for="n in across.inches" :key="`in${n}`">
        <line x1="-2" :x2="n % 20 ? -12 : -18" :y1="-n * inch" :y2="-n * inch" class="out" />
        <text v-if="n % 20 === 0" x="-26" :y="-n * inch" class="left">{{ n }}″</text>
      </g>
    </g>
  </g>
</template>

<style scoped>
.ruler {
  pointer-events: none;
}
line {
  stroke: #d8c9a8;
  stroke-width: 4;
}
line.out {
  stroke: var(--text-soft);
}
text {
  font-size: 44px;
  fill: var(--text-soft);
  text-anchor: middle;
  font-variant-numeric: tabular-nums;
}
text.left {
  text-anchor: end;
  dominant-baseline: central;
  font-size: 42px;
}
text.on-wood {
  fill: #e6d9bd;
  font-size: 40px;
}
</style>
