<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed } from 'vue'
import type { FrameEntry } from '../../api/client'
import { useDraft } from '../../position/draft'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import { usePlans } from './plans'

/** The frame that the position is in: what the balls do not tell. */
const position = useDraft()
const plans = usePlans()
const frame = computed<FrameEntry>(() => position.content.frame ?? {})
const ons = [
  { value: '', label: 'as the balls say' },
  ...['red', 'colour', 'yellow', 'green', 'brown', 'blue', 'pink', 'black'].map((value) => ({
    value,
    label: value === 'colour' ? 'any colour' : value,
  })),
]
const turns = [
  { value: 0, label: 'first' },
  { value: 1, label: 'second' },
]

function set(change: Partial<FrameEntry>) {
  position.content.frame = { ...frame.value, ...change }
  position.commit()
}
</script>

<template>
  <div class="row" data-testid="frame-entry">
    <label class="row"
      >on
      <PickOne
        :model-value="frame.on ?? ''"
        :options="ons"
        label="Ball on"
        test-id="ball-on"
        width="138px"
        @picked="set({ on: $event || null })"
    /></label>
    <label class="row"
      >score
      <FigureInput
        :model-value="frame.first ?? 0"
        :min="0"
        :max="999"
        :digits="0"
        label="First player's score"
        width="52px"
        @update:model-value="set({ first: $event })"
    /></label>
    <label class="row"
      >to
      <FigureInput
        :model-value="frame.second ?? 0"
        :min="0"
        :max="999"
        :digits="0"
        label="Second player's score"
        width="52px"
        @update:model-value="set({ second: $event })"
    /></label>
    <span class="row"
      >at the table
      <OneOf :model-value="frame.turn ?? 0" :options="turns" label="At the table" @update:model-value="set({ turn: $event as number })"
    /></span>
    <label class="row"
      >break
      <FigureInput
        :model-value="frame.break ?? 0"
        :min="0"
        :max="155"
        :digits="0"
        label="Break so far"
        width="52px"
        @update:model-value="set({ break: $event })"
    /></label>
    <ElCheckbox :model-value="!!frame.freeBall" @update:model-value="set({ freeBall: !!$event })">free ball</ElCheckbox>
    <ElCheckbox
      :model-value="!!frame.repeats"
      title="An exercise: the colour that is on comes back each time it is potted"
      @update:model-value="set({ repeats: !!$event })"
      >comes back</ElCheckbox
    >
  </div>
  <div v-if="frame.awaitsLot" class="row" data-testid="lot">
    <span>Level: the black is on its spot again. Who plays first, by lot?</span>
    <ElButton size="small" data-testid="lot-first" @click="plans.settle({ firstPlayer: 0 })">First player</ElButton>
    <ElButton size="small" data-testid="lot-second" @click="plans.settle({ firstPlayer: 1 })">Second player</ElButton>
  </div>
  <div v-else-if="frame.offence" class="row" data-testid="after-foul">
    <span>After the foul:</span>
    <ElButton size="small" data-testid="ask-again" @click="plans.settle({ answer: 'playAgain' })">Ask to play again</ElButton>
    <ElButton v-if="frame.offence.miss" size="small" data-testid="put-back" @click="plans.settle({ answer: 'putBack' })"
      >Put the balls back</ElButton
    >
  </div>
</template>
