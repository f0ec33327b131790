<script setup lang="ts">
import { ElButton, ElTable, ElTableColumn } from 'element-plus'
import { computed } from 'vue'
import { tipWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import { degreeWords, percentWords } from '../../lib/formats'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { useJudgements, type Side } from './judgements'
import { shiftWords, sidesWords } from './words'

/** What the aim allows for, part by part, and what plain ball or a touch of side would cost and save. */
const answer = useShot()
const position = useDraft()
const judgements = useJudgements()
const arrival = computed(() => answer.shot?.arrival)
const allowance = computed(() => answer.shot?.allowance)
const degrees = (value: number | undefined) => degreeWords(value ?? 0, 2)
const parts = computed(() => [
  {
    name: 'squirt',
    what: 'side pushes the white off the aim',
    turn: degrees(arrival.value?.squirtDegrees),
    shift: shiftWords(allowance.value?.squirt),
  },
  {
    name: 'swerve',
    what: 'a raised butt with side curves it back',
    turn: degrees(arrival.value?.swerveDegrees),
    shift: shiftWords(allowance.value?.swerve),
  },
  {
    name: 'throw',
    what: 'friction turns the object ball',
    turn: degrees(arrival.value?.throwDegrees),
    shift: shiftWords(allowance.value?.throw),
  },
  {
    name: 'net',
    what: 'so aim, from the ghost ball',
    turn: degrees(answer.shot?.cut?.allowanceDegrees ?? 0),
    shift: shiftWords(allowance.value?.net),
  },
])
const sideWords = (s: Side) => `${s.sideTips ? tipWords(s.sideTips, 0) : 'plain ball'}${s.isHelping ? ', helping' : ''}`
const spin = (s: Side) => percentWords(s.arrival.follow ?? 0).replace('-', '−')

function choose(side: number) {
  position.setStroke({ side, free: false })
  position.commit()
}
</script>

<template>
  <div id="why-aim" class="why-aim" role="region" aria-label="Why this aim">
    <ElTable :data="parts" size="small" :show-header="false">
      <ElTableColumn prop="name" width="70" />
      <ElTableColumn prop="what" />
      <ElTableColumn prop="turn" width="80" align="right" />
      <ElTableColumn prop="shift" width="90" align="right" />
    </ElTable>
    <p class="soft">Degrees to the left; lengths at the contact, + thinner, − thicker.</p>
    <p v-if="judgements.sidesRefusal" class="field-error" role="alert">{{ judgements.sidesRefusal }}</p>
    <ElTable
      v-else-if="judgements.sides"
      :class="{ stale: judgements.isSidesStale }"
      :data="judgements.sides"
      size="small"
      data-testid="sides"
    >
      <ElTableColumn label="With" min-width="120"
        ><template #default="{ row }">{{ sideWords(row as Side) }}</template></ElTableColumn
      >
      <ElTableColumn label="Pot" width="56" align="right"
        ><template #default="{ row }">{{ shareWords((row as Side).chance) }}</template></ElTableColumn
      >
      <ElTableColumn label="Throw" width="62" align="right"
        ><template #default="{ row }">{{ degrees(row.arrival.throwDegrees) }}</template></ElTableColumn
      >
      <ElTableColumn label="Net" width="74" align="right"
        ><template #default="{ row }">{{ shiftWords(row.allowance.net) }}</template></ElTableColumn
      >
      <ElTableColumn label="Spin" width="58" align="right"
        ><template #default="{ row }">{{ spin(row as Side) }}</template></ElTableColumn
      >
      <ElTableColumn width="74" label="Stroke"
        ><template #default="{ row }"><ElButton size="small" @click="choose(row.sideTips)">Set up</ElButton></template></ElTableColumn
      >
    </ElTable>
    <p class="soft">Spin: follow left on arrival, as a share of natural roll; − is screw. {{ sidesWords(judgements.sides ?? []) }}</p>
  </div>
</template>

<style scoped>
.why-aim {
  flex-basis: 100%;
  width: 100%;
}
.why-aim p {
  margin: var(--space-2) 0;
}
</style>
