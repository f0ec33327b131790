<script setup lang="ts">
import { computed, ref } from 'vue'
import { tipWords } from '../../domain/words'

/** The middle of the cue ball's face, in tips: a dot where the tip goes, kept within the miscue limit. */
const props = defineProps<{ side: number; height: number; limit: number }>()
const emit = defineEmits<{ change: [side: number, height: number]; commit: [] }>()
const svg = ref<SVGSVGElement>()
const span = computed(() => props.limit + 0.28)
const inWords = computed(() => tipWords(props.side, props.height))
/** A quarter of a tip from ring to ring. */
const rings = [0.25, 0.5, 0.75, 1, 1.25, 1.5]
/** A tip is as wide as it moves for one tip: 10 mm. */
const tipRadius = 0.5
const halves = [-1.5, -1, -0.5, 0, 0.5, 1, 1.5]
let dragging = false

function kept(side: number, height: number): [number, number] {
  const far = Math.hypot(side, height)
  // A hair inside, so that rounding never makes a miscue of the limit itself.
  const scale = far > props.limit ? (props.limit - 1e-6) / far : 1
  return [side * scale, height * scale]
}

function to(e: PointerEvent) {
  const p = new DOMPoint(e.clientX, e.clientY).matrixTransform(svg.value!.getScreenCTM()!.inverse())
  const snap = (v: number) => (Math.abs(v) < 0.05 ? 0 : Math.round(v * 20) / 20)
  emit('change', ...kept(snap(p.x), snap(-p.y)))
}

function down(e: PointerEvent) {
  dragging = true
  svg.value!.setPointerCapture(e.pointerId)
  to(e)
}

function end() {
  if (dragging) emit('commit')
  dragging = false
}

function key(e: KeyboardEvent) {
  const step = e.shiftKey ? 0.5 : 0.05
  const moves: Record<string, [number, number]> = {
    ArrowUp: [0, step],
    ArrowDown: [0, -step],
    ArrowLeft: [-step, 0],
    ArrowRight: [step, 0],
  }
  const move = moves[e.key]
  if (!move) return
  e.preventDefault()
  e.stopPropagation()
  emit('change', ...kept(Math.round((props.side + move[0]) * 100) / 100, Math.round((props.height + move[1]) * 100) / 100))
  emit('commit')
}
</script>

<template>
  <svg
    ref="svg"
    class="face"
    :viewBox="`${-span - 0.34} ${-span} ${2 * span + 0.34} ${2 * span + 0.34}`"
    tabindex="0"
    role="slider"
    :aria-valuenow="height"
    :aria-valuemin="-limit"
    :aria-valuemax="limit"
    :aria-valuetext="inWords"
    aria-label="Where the tip meets the cue ball. Arrow keys move it by a twentieth of a tip, with Shift by half a tip."
    data-testid="tip-face"
    @pointerdown="down"
    @pointermove="dragging && to($event)"
    @pointerup="end"
    @pointercancel="end"
    @keydown="key"
  >
    <circle :r="span" class="ball" />
    <circle v-for="r in rings" :key="`r${r}`" :r="r" class="ring" :class="{ half: r % 0.5 === 0 }" />
    <circle :r="limit" class="limit" />
    <line v-for="h in halves" :key="`h${h}`" :x1="-span - 0.12" :x2="h % 1 ? -span - 0.04 : -span" :y1="h" :y2="h" class="tick" />
    <line v-for="h in halves" :key="`s${h}`" :x1="h" :x2="h" :y1="span + 0.12" :y2="h % 1 ? span + 0.04 : span" class="tick" />
    <text v-for="h in [-1, 0, 1]" :key="`t${h}`" :x="-span - 0.18" :y="-h" class="left">{{ Math.abs(h) }}</text>
    <text v-for="h in [-1, 0, 1]" :key="`u${h}`" :x="h" :y="span + 0.28">{{ Math.abs(h) }}</text>
    <line :x1="-limit" :x2="limit" y1="0" y2="0" class="cross" />
    <line x1="0" x2="0" :y1="-limit" :y2="limit" class="cross" />
    <line :x1="-span" :x2="side" :y1="-height" :y2="-height" class="lead" />
    <line :x1="side" :x2="side" :y1="-height" :y2="span" class="lead" />
    <circle :cx="side" :cy="-height" :r="tipRadius" class="tip" />
    <circle :cx="side" :cy="-height" r="0.15" class="patch" />
  </svg>
</template>

<style scoped>
.face {
  width: 100%;
  touch-action: none;
  cursor: crosshair;
  display: block;
}
.ball {
  fill: #efe8d3;
  stroke: #b9ae8d;
  stroke-width: 0.03;
}
.limit {
  fill: none;
  stroke: #a8321b;
  stroke-width: 0.035;
  stroke-dasharray: 0.1 0.07;
}
.cross {
  stroke: #8d866f;
  stroke-width: 0.018;
}
.lead {
  stroke: #12484b;
  stroke-width: 0.03;
  stroke-dasharray: 0.05 0.05;
}
.tick {
  stroke: var(--text-soft);
  stroke-width: 0.025;
}
.ring {
  fill: none;
  stroke: #cbbf9c;
  stroke-width: 0.014;
}
.ring.half {
  stroke: #a99d7a;
  stroke-width: 0.02;
}
.tip {
  fill: rgb(18 72 75 / 0.22);
  stroke: #12484b;
  stroke-width: 0.03;
}
.patch {
  fill: #12484b;
  stroke: #fff;
  stroke-width: 0.03;
}
text {
  font-size: 0.21px;
  fill: var(--text-soft);
  text-anchor: middle;
}
text.left {
  text-anchor: end;
  dominant-baseline: central;
}
</style>
