<script setup lang="ts">
import { computed } from 'vue'
import { units } from '../lib/formats'

/** A ruler on the wood along two rails, in the unit that the user likes. All in mm. */
const props = defineProps<{ length: number; width: number; offset: number; isTurned?: boolean }>()

const inch = 25.4
/** The marks along a rail: small, larger, and those with a figure. */
const scale = computed(() => (units.value === 'mm' ? { step: 100, large: 500, of: 1 } : { step: 5 * inch, large: 20 * inch, of: inch }))
const marks = (to: number) => {
  const { step, large, of } = scale.value
  return Array.from({ length: Math.floor(to / step + 1e-9) + 1 }, (_, i) => i * step).map((at) => {
    const rest = Math.abs(at / large - Math.round(at / large))
    return { at, isLarge: rest < 1e-6, words: String(Math.round(at / of)) }
  })
}
const along = computed(() => marks(props.length))
const across = computed(() => marks(props.width))
/** Figures stand upright on the screen, whichever way the table does. */
const upright = (x: number, y: number) => (props.isTurned ? `rotate(90 ${x} ${y})` : undefined)
</script>

<template>
  <g class="ruler">
    <g :transform="`translate(0 ${width + offset})`">
      <template v-for="m in along" :key="m.at">
        <line :x1="m.at" :x2="m.at" y1="-72" :y2="m.isLarge ? -56 : -63" />
        <text v-if="m.isLarge" :x="m.at" y="-26" :transform="upright(m.at, -34)">{{ m.words }}</text>
      </template>
      <text :x="length + 58" y="-26" :transform="upright(length + 58, -34)">{{ units === 'mm' ? 'mm' : 'in' }}</text>
    </g>
    <g :transform="`translate(${-offset} ${width})`">
      <template v-for="m in across" :key="m.at">
        <line x1="72" :x2="m.isLarge ? 56 : 63" :y1="-m.at" :y2="-m.at" />
        <text v-if="m.isLarge" x="34" :y="-m.at" :transform="isTurned ? upright(34, -m.at) : `rotate(-90 34 ${-m.at})`" dy="9">
          {{ m.words }}
        </text>
      </template>
    </g>
  </g>
</template>

<style scoped>
.ruler {
  pointer-events: none;
}
line {
  stroke: #c9b58d;
  stroke-width: 3.5;
}
text {
  font-size: 32px;
  fill: #d8c9a8;
  text-anchor: middle;
  font-variant-numeric: tabular-nums;
}
</style>
