<script setup lang="ts">
import { computed } from 'vue'
import { isRed, lightOn, lookOf, nameOf } from '../domain/balls'
import { visibleMarks, type Turning } from './turning'

/** A ball on a plan, mm, at the origin: lit from the upper left, with its mark; while it rolls, the marks on it turn with it. */
const props = defineProps<{
  id: string
  radius: number
  isNumbered?: boolean
  /** The plan stands upright: the figure is turned back. */
  isTurned?: boolean
  turning?: Turning | null
}>()
const look = computed(() => lookOf(props.id))
const mark = computed(() => (!isRed(props.id) ? look.value.mark : props.isNumbered ? props.id.slice(4) : ''))
const marks = computed(() => (props.turning ? visibleMarks(props.turning, props.radius) : null))
</script>

<template>
  <g :transform="isTurned ? 'rotate(90)' : undefined" class="ball-figure">
    <ellipse :cx="radius * 0.24" :cy="radius * 0.3" :rx="radius * 1.04" :ry="radius * 1.02" class="ground" />
    <circle :r="radius" :fill="lightOn(id)" class="ball" :class="{ dark: id === 'black' }" />
    <g v-if="marks" :transform="isTurned ? 'rotate(-90)' : undefined">
      <g
        v-for="m in marks"
        :key="m.key"
        :transform="`translate(${m.x} ${m.y}) rotate(${m.degrees}) scale(${m.depth} 1) rotate(${-m.degrees})`"
      >
        <text v-if="m.isFace && mark" :fill="look.ink">{{ mark }}</text>
        <circle v-else :r="radius * (m.isFace ? 0.26 : 0.19)" :fill="id === 'white' ? '#b3402f' : look.ink" />
      </g>
    </g>
    <text v-else-if="mark" :fill="look.ink">{{ mark }}</text>
    <circle v-else r="5" fill="#fff" />
    <title>{{ nameOf(id) }}</title>
  </g>
</template>

<style scoped>
.ground {
  fill: rgb(2 16 17 / 0.4);
}
.ball {
  stroke: #06181a;
  stroke-width: 2.4;
}
.ball.dark {
  stroke: #8d9690;
}
text {
  font-size: 36px;
  font-weight: 700;
  text-anchor: middle;
  dominant-baseline: central;
  pointer-events: none;
}
</style>
