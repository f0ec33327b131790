<script setup lang="ts">
import { ElPopover } from 'element-plus'
import { computed } from 'vue'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { useJudgements } from './judgements'
import { shiftWords, tipWords } from '../../domain/words'

/** What the aim allows for, part by part, and what plain ball or a touch of side would cost and save. */
const answer = useAnswer()
const position = useDraft()
const judgements = useJudgements()
const arrival = computed(() => answer.shot?.arrival)
const allowance = computed(() => answer.shot?.allowance)
const degrees = (value: number | undefined) => `${(value ?? 0).toFixed(2).replace('-0.00', '0.00').replace('-', '−')}°`
const parts = computed(() => [
  { name: 'squirt', what: 'side pushes the white off the aim', turn: degrees(arrival.value?.squirtDegrees), shift: shiftWords(allowance.value?.squirt) },
  { name: 'swerve', what: 'a raised butt with side curves it back', turn: degrees(arrival.value?.swerveDegrees), shift: shiftWords(allowance.value?.swerve) },
  { name: 'throw', what: 'friction turns the object ball', turn: degrees(arrival.value?.throwDegrees), shift: shiftWords(allowance.value?.throw) },
])
const spin = (follow: number | undefined) => `${((follow ?? 0) * 100).toFixed(0).replace('-', '−')} %`

function choose(side: number) {
  position.setStroke({ side, free: false })
  position.commit()
}
</script>

<template>
  <ElPopover trigger="click" :width="430" placement="left" @show="judgements.sidesOpen = true" @hide="judgements.sidesOpen = false">
    <template #reference>
      <button class="key why" data-testid="why-aim">Why</button>
    </template>
    <table class="figure parts">
      <tbody>
        <tr v-for="p in parts" :key="p.name">
          <th scope="row">{{ p.name }}</th>
          <td class="soft">{{ p.what }}</td>
          <td>{{ p.turn }}</td>
          <td>{{ p.shift }}</td>
        </tr>
        <tr class="net">
          <th scope="row">net</th>
          <td class="soft">so aim, against the ghost ball</td>
          <td>{{ degrees(answer.shot?.cut?.allowanceDegrees ?? 0) }}</td>
          <td>{{ shiftWords(allowance?.net) }}</td>
        </tr>
      </tbody>
    </table>
    <p class="soft">Degrees to the left; millimetres at the contact, + thinner, − thicker.</p>
    <table v-if="judgements.sides" class="figure sides" data-testid="sides">
      <thead>
        <tr>
          <th>With</th>
          <th>pot</th>
          <th>throw</th>
          <th>net</th>
          <th title="Follow or screw left when the white arrives, of a rolling ball's">arrives with</th>
          <td />
        </tr>
      </thead>
      <tbody>
        <tr v-for="s in judgements.sides" :key="s.sideTips">
          <th scope="row">{{ s.sideTips ? tipWords(s.sideTips, 0) : 'plain ball' }}<span v-if="s.isHelping" class="soft"> helping</span></th>
          <td>{{ (s.chance * 100).toFixed(0) }} %</td>
          <td>{{ degrees(s.arrival.throwDegrees) }}</td>
          <td>{{ shiftWords(s.allowance.net) }}</td>
          <td>{{ spin(s.arrival.follow) }}</td>
          <td><button class="key" @click="choose(s.sideTips)">Set up</button></td>
        </tr>
      </tbody>
    </table>
    <p class="soft">Side saves throw, and costs squirt that must be allowed for.</p>
  </ElPopover>
</template>

<style scoped>
.why {
  min-height: 24px;
  padding: 0 8px;
  font-size: 0.85rem;
}
@media (pointer: coarse) {
  .why {
    min-height: 40px;
  }
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.9rem;
}
th {
  text-align: left;
  font-weight: 600;
  padding: 2px 8px 2px 0;
}
td {
  padding: 2px 8px 2px 0;
  text-align: right;
  white-space: nowrap;
}
td.soft {
  text-align: left;
  white-space: normal;
}
.sides thead th:not(:first-child) {
  text-align: right;
}
.net {
  border-top: 1px solid var(--edge);
}
p {
  margin: 4px 0 8px;
  font-size: 0.88rem;
}
</style>
