<script setup lang="ts">
import { ElCheckbox } from 'element-plus'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import { usePlans } from './plans'

/** What a plan is made for. */
const plans = usePlans()
const targets = [
  { value: 'frame', label: 'the frame' },
  { value: 'mostPoints', label: 'as many points as there are' },
  { value: 'score', label: 'a break of …' },
  { value: 'clear', label: 'clear the table' },
] as const
const risks = [
  { value: 'careful', label: 'careful' },
  { value: 'balanced', label: 'balanced' },
  { value: 'bold', label: 'bold' },
] as const
</script>

<template>
  <div class="row">
    <PickOne v-model="plans.preferences.target" :options="targets" label="Play for" test-id="target" width="216px" />
    <FigureInput
      v-if="plans.preferences.target === 'score'"
      v-model="plans.preferences.score"
      :min="1"
      :max="plans.frame?.highestBreak ?? 155"
      :digits="0"
      label="Break to play for"
      width="56px"
    />
    <OneOf v-model="plans.preferences.risk" :options="risks" label="How much a miss is minded" />
    <ElCheckbox v-model="plans.preferences.plainOnly">no side</ElCheckbox>
    <ElCheckbox v-model="plans.preferences.avoidCannons">avoid cannons</ElCheckbox>
  </div>
</template>
