<script setup lang="ts">
import { ref } from 'vue'
import { lightOn, lookOf } from '../domain/balls'
import { countWords } from '../lib/formats'

/** A ball on the rail: pressed, it is the next to be laid; dragged, it is carried onto the plan. */
const props = defineProps<{ kind: string; count: number; isChosen?: boolean }>()
const emit = defineEmits<{ chosen: []; carried: [x: number, y: number] }>()
let from: { x: number; y: number } | null = null
/** A press that became a drag is no press. */
const wasCarried = ref(false)

function down(e: PointerEvent) {
  if (e.button !== 0) return
  from = { x: e.clientX, y: e.clientY }
  wasCarried.value = false
  // However far the first move goes, it is still this ball's.
  ;(e.currentTarget as HTMLElement).setPointerCapture(e.pointerId)
}
function move(e: PointerEvent) {
  if (!from || Math.hypot(e.clientX - from.x, e.clientY - from.y) < 8) return
  from = null
  wasCarried.value = true
  emit('carried', e.clientX, e.clientY)
}
function click() {
  from = null
  if (!wasCarried.value) emit('chosen')
}
const label = () => (props.kind === 'red' ? `Lay a red, ${countWords(props.count, 'red')} left` : `Lay the ${props.kind}`)
</script>

<template>
  <button
    type="button"
    class="ball-button"
    :class="{ chosen: isChosen }"
    :aria-label="label()"
    :aria-pressed="isChosen"
    :title="label()"
    :data-testid="`rail-${kind}`"
    @pointerdown="down"
    @pointermove="move"
    @click="click"
  >
    <svg viewBox="-15 -15 30 30" width="28" height="28" aria-hidden="true">
      <circle r="12" :fill="lightOn(kind)" stroke="#06181a" />
      <text :fill="lookOf(kind).ink">{{ kind === 'red' ? (count > 1 ? count : '') : lookOf(kind).mark }}</text>
    </svg>
  </button>
</template>

<style scoped>
.ball-button {
  display: grid;
  place-content: center;
  width: 34px;
  height: 34px;
  padding: 0;
  border: 2px solid transparent;
  border-radius: 50%;
  background: none;
  cursor: grab;
  touch-action: none;
  flex: none;
}
.ball-button.chosen {
  border-color: var(--brass);
}
.ball-button:focus-visible {
  outline-offset: -1px;
}
text {
  font: 700 12px var(--font);
  text-anchor: middle;
  dominant-baseline: central;
}
@media (pointer: coarse) {
  .ball-button {
    width: 42px;
    height: 42px;
  }
}
</style>
