<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed } from 'vue'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import { theBall } from '../../domain/balls'
import { sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { usePlans } from './plans'

/** What a plan is made for. */
const plans = usePlans()
const position = useDraft()
/** The object ball that was pointed at last. */
const inHand = computed(() => (position.selected !== 'white' && position.ball(position.selected) ? position.selected : ''))
const mayBeNext = computed(() => plans.frame?.mayFollow.includes(inHand.value) ?? false)
const targets = [
  { value: 'frame', label: 'the frame' },
  { value: 'mostPoints', label: 'as many points as possible' },
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
    <OneOf v-model="plans.preferences.risk" :options="risks" label="How cautious to be" />
    <ElCheckbox v-model="plans.preferences.plainOnly">no side</ElCheckbox>
    <ElCheckbox v-model="plans.preferences.noCushion" data-testid="no-cushion">no cushion</ElCheckbox>
    <ElCheckbox v-model="plans.preferences.softOnly" title="No stroke harder than pace 4">soft only</ElCheckbox>
    <ElCheckbox v-model="plans.preferences.followFirst" title="Prefer follow to screw and stun where it costs little"
      >follow first</ElCheckbox
    >
    <ElCheckbox v-model="plans.preferences.avoidCannons">avoid cannons</ElCheckbox>
  </div>
  <div class="row" data-testid="ball-wishes">
    <span v-if="!inHand" class="soft">Point at a ball on the plan to play for it, save it for later, or avoid it.</span>
    <template v-else>
      <span>{{ sentence(theBall(inHand)) }}:</span>
      <ElButton
        size="small"
        :type="plans.preferences.next === inHand ? 'primary' : undefined"
        :aria-pressed="plans.preferences.next === inHand"
        :disabled="!mayBeNext"
        :title="mayBeNext ? 'To be on after the first shot' : 'It cannot be on after the first shot'"
        data-testid="wish-next"
        @click="plans.playFor(inHand)"
        >Next</ElButton
      >
      <ElButton
        size="small"
        :type="plans.preferences.later.includes(inHand) ? 'primary' : undefined"
        :aria-pressed="plans.preferences.later.includes(inHand)"
        data-testid="wish-later"
        @click="plans.wish('later', inHand)"
        >For later</ElButton
      >
      <ElButton
        size="small"
        :type="plans.preferences.keepOff.includes(inHand) ? 'primary' : undefined"
        :aria-pressed="plans.preferences.keepOff.includes(inHand)"
        data-testid="wish-keep-off"
        @click="plans.wish('keepOff', inHand)"
        >Keep off</ElButton
      >
    </template>
  </div>
</template>
