<script setup lang="ts">
import { ElTable, ElTableColumn } from 'element-plus'
import { computed } from 'vue'
import { tipWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import { degreeWords, figureWords, percentWords } from '../../lib/formats'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import LineButton from '../../ui/LineButton.vue'
import CutLarge from './CutLarge.vue'
import { useJudgements, type Side } from './judgements'
import { seenWords, shiftWords, sidesWords } from './words'

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
    pocket: shiftWords(allowance.value?.squirtAtPocket),
  },
  {
    name: 'swerve',
    what: 'a raised butt with side curves it back',
    turn: degrees(arrival.value?.swerveDegrees),
    shift: shiftWords(allowance.value?.swerve),
    pocket: shiftWords(allowance.value?.swerveAtPocket),
  },
  {
    name: 'throw',
    what: 'friction turns the object ball',
    turn: degrees(arrival.value?.throwDegrees),
    shift: shiftWords(allowance.value?.throw),
    pocket: shiftWords(allowance.value?.throwAtPocket),
  },
  {
    name: 'net',
    what: 'so aim, from the ghost ball',
    turn: degrees(answer.shot?.cut?.allowanceDegrees ?? 0),
    shift: shiftWords(allowance.value?.net),
    pocket: '',
  },
])
const sideWords = (s: Side) => `${s.sideTips ? tipWords(s.sideTips, 0) : 'plain ball'}${s.isHelping ? ', helping' : ''}`
const cut = computed(() => answer.shot?.cut ?? null)
/** Plain, and half a tip and a tip of either side, from left to right. */
const pictures = computed(() =>
  cut.value
    ? (judgements.sides ?? [])
        .filter((s) => [0, 0.5, 1].includes(Math.abs(s.sideTips)))
        .sort((a, b) => a.sideTips - b.sideTips)
        .map((side) => ({
          side,
          name: side.sideTips ? `${Math.abs(side.sideTips) === 1 ? '1' : '½'} ${side.sideTips > 0 ? 'right' : 'left'}` : 'plain',
        }))
    : [],
)
/** Of two balls: how far the second is dragged off the line of centres, beside the throw of the first. */
const pairWords = computed(() => {
  const plain = judgements.sides?.find((s) => !s.sideTips)
  return plain && plain.pairThrowDegrees !== null
    ? `The second ball leaves the line of the two by ${degrees(Math.abs(plain.pairThrowDegrees))}, plain ball.`
    : ''
})
const spin = (s: Side) => percentWords(s.arrival.follow ?? 0).replace('-', '−')

function choose(side: number) {
  position.setStroke({ side, free: false })
  position.commit()
}
</script>

<template>
  <div id="why-aim" class="why-aim" role="region" aria-label="Why this aim">
    <ElTable :data="parts" size="small" data-testid="allowance-parts">
      <ElTableColumn prop="name" label="Part" width="66" />
      <ElTableColumn prop="what" label="What it does" />
      <ElTableColumn prop="turn" label="Left" width="62" align="right" />
      <ElTableColumn prop="shift" label="At contact" width="80" align="right" />
      <ElTableColumn prop="pocket" label="At pocket" width="80" align="right" />
    </ElTable>
    <p class="soft">+ thinner, − thicker. At the pocket: by how much it would miss the middle if you did not allow for it.</p>
    <div v-if="pictures.length" class="pictures" data-testid="side-pictures">
      <figure v-for="p in pictures" :key="p.side.sideTips">
        <CutLarge
          :cut-degrees="cut!.cutDegrees"
          :contact="cut!.aimOffset"
          :aim="p.side.seen.offset ?? 0"
          :radius="position.reference!.ballRadius"
          :ball="cut!.struck"
          :label="`${p.name}: ${seenWords(p.side.seen)}`"
        />
        <figcaption>
          {{ p.name }} <span class="soft figure">{{ figureWords(p.side.seen.fullness ?? 0, 2) }}</span>
        </figcaption>
      </figure>
    </div>
    <p v-if="pairWords" class="soft" data-testid="pair-words">{{ pairWords }}</p>
    <p v-if="judgements.sidesRefusal" class="field-error" role="alert">{{ judgements.sidesRefusal }}</p>
    <ElTable
      v-else-if="judgements.sides"
      :class="{ stale: judgements.isSidesStale }"
      :data="[...judgements.sides].sort((a, b) => a.sideTips - b.sideTips)"
      size="small"
      data-testid="sides"
    >
      <ElTableColumn label="With" min-width="120"
        ><template #default="{ row }"
          ><LineButton title="Set it up so" @click="choose(row.sideTips)">{{ sideWords(row as Side) }}</LineButton></template
        ></ElTableColumn
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
    </ElTable>
    <p class="soft">Spin: follow left on arrival, as a share of natural roll; − is screw. {{ sidesWords(judgements.sides ?? []) }}</p>
  </div>
</template>

<style scoped>
.why-aim {
  flex-basis: 100%;
  width: 100%;
}
.pictures {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(68px, 1fr));
  gap: var(--space-2);
}
.pictures figure {
  margin: 0;
  text-align: center;
  font-size: var(--type-1);
}
.why-aim p {
  margin: var(--space-2) 0;
}
</style>
