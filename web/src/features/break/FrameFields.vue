<script setup lang="ts">
import { computed } from 'vue'
import type { FrameEntry } from '../../api/client'
import FigureInput from '../../ui/FigureInput.vue'
import { useDraft } from '../../position/draft'

/** The frame that the position is in: what the balls do not tell. */
const position = useDraft()
const frame = computed<FrameEntry>(() => position.content.frame ?? {})
const ons = [
  { value: '', label: 'as the balls say' },
  ...['red', 'colour', 'yellow', 'green', 'brown', 'blue', 'pink', 'black'].map((value) => ({ value, label: value === 'colour' ? 'any colour' : value })),
]

function set(change: Partial<FrameEntry>) {
  position.content.frame = { ...frame.value, ...change }
  position.commit()
}
</script>

<template>
  <div class="fields" data-testid="frame-entry">
    <label
      >on
      <select class="choice" aria-label="Ball on" data-testid="ball-on" :value="frame.on ?? ''" @change="set({ on: ($event.target as HTMLSelectElement).value || null })">
        <option v-for="o in ons" :key="o.value" :value="o.value">{{ o.label }}</option>
      </select></label
    >
    <label>score <FigureInput :model-value="frame.first ?? 0" :min="0" :max="999" :digits="0" :step="1" label="First player's score" @update:model-value="set({ first: $event })" /></label>
    <label>to <FigureInput :model-value="frame.second ?? 0" :min="0" :max="999" :digits="0" :step="1" label="Second player's score" @update:model-value="set({ second: $event })" /></label>
    <label
      >at the table
      <select class="choice" aria-label="At the table" :value="frame.turn ?? 0" @change="set({ turn: Number(($event.target as HTMLSelectElement).value) })">
        <option :value="0">first</option>
        <option :value="1">second</option>
      </select></label
    >
    <label>break <FigureInput :model-value="frame.break ?? 0" :min="0" :max="155" :digits="0" :step="1" label="Break so far" @update:model-value="set({ break: $event })" /></label>
    <label><input type="checkbox" :checked="!!frame.freeBall" @change="set({ freeBall: ($event.target as HTMLInputElement).checked })" /> free ball</label>
    <label title="An exercise: the colour that is on comes back each time it is potted"><input type="checkbox" :checked="!!frame.repeats" @change="set({ repeats: ($event.target as HTMLInputElement).checked })" /> comes back</label>
  </div>
</template>

<style scoped>
.fields {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  font-size: 0.92rem;
}
label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
}
.fields :deep(.figure-input) {
  width: 52px;
}
</style>
