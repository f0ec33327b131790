<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed } from 'vue'
import type { FrameEntry } from '../../api/client'
import { useDraft } from '../../position/draft'
import { nameOf } from '../../domain/balls'
import FigureInput from '../../ui/FigureInput.vue'
import BallDot from '../../ui/BallDot.vue'
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
/** An exercise in place of a frame: which of its balls are on. */
const exercises = [
  { value: 'any', label: 'exercise: any ball' },
  { value: 'these', label: 'exercise: these balls' },
  { value: 'inOrder', label: 'exercise: in this order' },
]
const exercise = computed(() => frame.value.exercise ?? null)
const on = computed(() => {
  if (!exercise.value) return frame.value.on ?? ''
  return exercise.value.order === 'inOrder' ? 'inOrder' : exercise.value.balls ? 'these' : 'any'
})
const objectBalls = computed(() => position.content.balls.map((b) => b.id).filter((id) => id !== 'white'))
const chosenBalls = computed(() => exercise.value?.balls ?? [])

function pick(value: string) {
  if (value === 'any') position.makeExercise()
  else if (value === 'these' || value === 'inOrder')
    position.makeExercise({ order: value === 'inOrder' ? 'inOrder' : 'any', balls: exercise.value?.balls ?? objectBalls.value })
  else set({ on: value || null, exercise: null })
}

/** Takes a ball in, as the last, or leaves it out. */
function toggleBall(id: string) {
  const balls = chosenBalls.value.includes(id) ? chosenBalls.value.filter((b) => b !== id) : [...chosenBalls.value, id]
  position.makeExercise({ order: exercise.value!.order, balls })
}

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
      >on <PickOne :model-value="on" :options="[...ons, ...exercises]" label="Ball on" test-id="ball-on" width="176px" @picked="pick"
    /></label>
  </div>
  <div v-if="exercise" class="row" data-testid="exercise">
    <span v-if="on === 'any'" class="soft">Any ball may be played, potted balls stay down, and no score is kept.</span>
    <template v-else>
      <span class="soft">{{
        on === 'inOrder' ? 'Choose the balls in the order in which to pot them:' : 'Choose the balls that are on:'
      }}</span>
      <ElButton
        v-for="id in objectBalls"
        :key="id"
        size="small"
        :type="chosenBalls.includes(id) ? 'primary' : undefined"
        :aria-pressed="chosenBalls.includes(id)"
        :aria-label="nameOf(id)"
        :data-testid="`exercise-${id}`"
        @click="toggleBall(id)"
        ><BallDot :ball="id" /><span v-if="on === 'inOrder' && chosenBalls.includes(id)"
          >&nbsp;{{ chosenBalls.indexOf(id) + 1 }}</span
        ></ElButton
      >
    </template>
  </div>
  <div v-else class="row" data-testid="frame-score">
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
      title="Exercise: the colour on is respotted each time it is potted"
      @update:model-value="set({ repeats: !!$event })"
      >comes back</ElCheckbox
    >
  </div>
  <div v-if="frame.awaitsLot" class="row" data-testid="lot">
    <span>Level: the black is respotted. Who won the draw and plays first?</span>
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
