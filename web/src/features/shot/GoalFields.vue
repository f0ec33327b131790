<script setup lang="ts">
import { computed } from 'vue'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { cushionNames } from '../../domain/words'
import { lengthWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import type { Goal, GoalKind } from '../../position/goal'
import FigureInput from '../../ui/FigureInput.vue'
import LengthInput from '../../ui/LengthInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'

/** One thing that the white is to do, as it is said: what, and with which ball, pocket, cushion or distance. */
const props = defineProps<{ goal: Goal; testId: string }>()
const position = useDraft()
const pot = computed(() => position.stroke.pot)
const kinds: { value: GoalKind | 'more'; label: string; testId: string }[] = [
  { value: 'stop', label: 'Stop here', testId: `${props.testId}-stop` },
  { value: 'cannon', label: 'Run into a ball', testId: `${props.testId}-cannon` },
  { value: 'more', label: 'Other', testId: `${props.testId}-more` },
]
const others: { value: GoalKind; label: string }[] = [
  { value: 'gap', label: 'pass between two balls' },
  { value: 'past', label: 'pass a ball' },
  { value: 'angle', label: 'an angle on the next ball' },
  { value: 'cushion', label: 'off that place of a cushion' },
  { value: 'frees', label: 'free a ball for a pocket' },
  { value: 'drift', label: 'drift from the contact' },
]
const isOther = computed(() => others.some((o) => o.value === props.goal.kind))
const kind = computed({
  get: () => (isOther.value ? 'more' : props.goal.kind),
  set: (to) => set({ kind: to === 'more' ? 'gap' : to }),
})
const emit = defineEmits<{ change: [to: Partial<Goal>] }>()
const set = (change: Partial<Goal>) => emit('change', change)
function place(change: Partial<{ x: number; y: number }>) {
  set({ place: { x: position.reference!.length / 2, y: position.reference!.width / 2, ...props.goal.place, ...change } })
}
const balls = computed(() =>
  position.content.balls.map((b) => b.id).filter((id) => id !== 'white' && id !== pot.value?.ball && id !== pot.value?.through),
)
const ballOptions = computed(() => [{ value: '', label: 'which ball?' }, ...balls.value.map((id) => ({ value: id, label: nameOf(id) }))])
const pockets = computed(() => position.reference!.pockets.map((p) => ({ value: p, label: pocketName(p) })))
const fullnesses: { value: Goal['fullness']; label: string }[] = [
  { value: 'any', label: 'any fullness' },
  { value: 'full', label: 'full' },
  { value: 'half', label: 'half-ball' },
  { value: 'fine', label: 'thin' },
]
const speeds: { value: Goal['speed']; label: string }[] = [
  { value: 'any', label: 'at any pace' },
  { value: 'gentle', label: 'gently' },
  { value: 'firm', label: 'firmly' },
]
/** What still has to be said. */
const missing = computed(() => {
  const g = props.goal
  if (g.kind === 'stop') return g.place ? '' : 'Point to where the white should stop. Drag the circle or its rim to change it.'
  if (g.kind === 'cushion') return g.cushion ? '' : 'Point to a cushion on the plan.'
  if (g.kind === 'gap') return g.ball && g.other && g.ball !== g.other ? '' : 'Choose the two balls on either side.'
  if (g.kind === 'drift' || g.ball) return ''
  return g.kind === 'cannon' ? 'Choose the ball to run into after the pot.' : 'Choose the ball.'
})
</script>

<template>
  <div class="row">
    <OneOf v-model="kind" :options="kinds" label="What the white should do" />
    <PickOne
      v-if="isOther"
      :model-value="goal.kind"
      :options="others"
      label="Other goals"
      :test-id="`${testId}-kind`"
      width="214px"
      @picked="set({ kind: $event as GoalKind })"
    />
  </div>
  <div class="row">
    <template v-if="goal.kind === 'stop'">
      <label class="row"
        >up
        <LengthInput
          :model-value="goal.place?.x ?? 0"
          :min="0"
          :max="position.reference!.length"
          label="Place up the table"
          width="62px"
          @update:model-value="place({ x: $event })"
      /></label>
      <label class="row"
        >across
        <LengthInput
          :model-value="goal.place?.y ?? 0"
          :min="0"
          :max="position.reference!.width"
          label="Place across"
          width="62px"
          @update:model-value="place({ y: $event })"
      /></label>
      <label class="row"
        >within
        <LengthInput
          :model-value="goal.radius"
          :min="0.03"
          :max="1"
          label="Within"
          width="56px"
          @update:model-value="set({ radius: $event })"
      /></label>
    </template>
    <template v-if="['cannon', 'gap', 'past', 'angle', 'frees'].includes(goal.kind)">
      <PickOne
        :model-value="goal.ball"
        :options="ballOptions"
        label="Ball"
        :test-id="`${testId}-ball`"
        width="124px"
        @picked="set({ ball: $event })"
      />
    </template>
    <template v-if="goal.kind === 'cannon'">
      <PickOne :model-value="goal.fullness" :options="fullnesses" label="How full" width="124px" @picked="set({ fullness: $event })" />
      <PickOne :model-value="goal.speed" :options="speeds" label="How fast" width="116px" @picked="set({ speed: $event })" />
    </template>
    <template v-if="goal.kind === 'gap'">
      <span>and</span>
      <PickOne
        :model-value="goal.other"
        :options="ballOptions"
        label="The other ball"
        :test-id="`${testId}-other`"
        width="124px"
        @picked="set({ other: $event })"
      />
    </template>
    <label v-if="goal.kind === 'past'" class="row"
      >by at most
      <LengthInput
        :model-value="goal.past"
        :min="0.005"
        :max="0.5"
        label="By at most"
        width="56px"
        @update:model-value="set({ past: $event })"
    /></label>
    <template v-if="goal.kind === 'angle' || goal.kind === 'frees'">
      <span>into</span>
      <PickOne :model-value="goal.pocket" :options="pockets" label="Pocket for it" width="166px" @picked="set({ pocket: $event })" />
    </template>
    <template v-if="goal.kind === 'angle'">
      <label class="row"
        >cut
        <FigureInput
          :model-value="goal.least"
          :min="0"
          :max="goal.most"
          :digits="0"
          label="Least cut"
          width="46px"
          @update:model-value="set({ least: $event })"
      /></label>
      <label class="row"
        >to
        <FigureInput
          :model-value="goal.most"
          :min="goal.least"
          :max="80"
          :digits="0"
          label="Most cut"
          unit="°"
          width="46px"
          @update:model-value="set({ most: $event })"
      /></label>
    </template>
    <span v-if="goal.kind === 'cushion' && goal.cushion"
      >{{ cushionNames[goal.cushion.name] }} cushion, at {{ lengthWords(goal.cushion.at) }}</span
    >
    <label v-if="goal.kind === 'drift'" class="row"
      >by <LengthInput :model-value="goal.by" :min="0" :max="3.5" label="By" width="62px" @update:model-value="set({ by: $event })"
    /></label>
    <label v-if="goal.kind === 'cushion' || goal.kind === 'drift'" class="row"
      >within
      <LengthInput
        :model-value="goal.within"
        :min="0.01"
        :max="1"
        label="Within"
        width="56px"
        @update:model-value="set({ within: $event })"
    /></label>
  </div>
  <p v-if="missing" class="soft">{{ missing }}</p>
  <p v-else-if="goal.kind === 'frees'" class="soft">
    The white, or what it sends, leaves {{ theBall(goal.ball) }} a clear way into the {{ pocketName(goal.pocket) }} pocket.
  </p>
</template>
