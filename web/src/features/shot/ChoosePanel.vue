<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, defineAsyncComponent } from 'vue'
import { nameOf, pocketName } from '../../domain/balls'
import { plainPot } from '../../domain/strokes'
import { arrivalWords, fullnessWords, kindWords } from '../../domain/words'
import { degreeWords, percentWords, sentence } from '../../lib/formats'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import CutLarge from './CutLarge.vue'
import { useJudgements } from './judgements'
import WhyAim from './WhyAim.vue'
import { allowanceWords, cutWords, distancesWords, faultWords, seenWords } from './words'

/** Which ball into which pocket, or a free aim; and what the player sees of it. */
const answer = useShot()
const SightPicture = defineAsyncComponent(() => import('./SightPicture.vue'))
const AllowancePanel = defineAsyncComponent(() => import('./AllowancePanel.vue'))
const judgements = useJudgements()
const position = useDraft()
const pot = computed(() => position.stroke.pot)
const cut = computed(() => answer.shot?.cut ?? null)
const arrival = computed(() => answer.shot?.arrival ?? null)
const balls = computed(() => [
  { value: '', label: 'no pot' },
  ...position.content.balls.filter((b) => b.id !== 'white').map((b) => ({ value: b.id, label: nameOf(b.id) })),
])
const pockets = computed(() => position.reference!.pockets.map((p) => ({ value: p, label: pocketName(p) })))

function chooseBall(id: string) {
  if (!id) position.setStroke({ pot: null, free: false, aim: answer.aim })
  else {
    position.setStroke({ pot: plainPot(id, pot.value?.pocket ?? nearestPocket(id)), free: false })
    position.selected = id
  }
  position.commit()
}

function nearestPocket(id: string) {
  const ball = position.ball(id)!
  const by = (p: { drop: { x: number; y: number } }) => Math.hypot(p.drop.x - ball.x, p.drop.y - ball.y)
  return [...(answer.table?.pockets ?? [])].sort((a, b) => by(a) - by(b))[0]?.name ?? 'green-top'
}

function choosePocket(pocket: string) {
  position.setStroke({ pot: plainPot(pot.value!.ball, pocket), free: false })
  position.commit()
}

/** One tip moves the contact by R/(R + 5 mm) of 10 mm (the tip is domed), here as a share of the radius. */
const tipShare = computed(() => position.reference!.millimetresPerTip / 1000 / (position.reference!.ballRadius + 0.005))
const parts = [
  { value: -1, label: 'thick side', testId: 'part--1' },
  { value: 0, label: 'middle', testId: 'part-0' },
  { value: 1, label: 'thin side', testId: 'part-1' },
]
/** Aimed by hand, it is none of them. */
const part = computed({
  get: () => (position.stroke.free ? 9 : (pot.value?.part ?? 0)),
  set: (value) => {
    position.setStroke({ pot: { ...pot.value!, part: value }, free: false })
    position.commit()
  },
})
</script>

<template>
  <section class="panel" aria-labelledby="choose-title">
    <h2 id="choose-title">Pot</h2>
    <div class="row">
      <PickOne
        :model-value="pot?.ball ?? ''"
        :options="balls"
        label="Object ball"
        test-id="object-ball"
        width="104px"
        @picked="chooseBall"
      />
      <template v-if="pot">
        <span class="soft">into</span>
        <PickOne :model-value="pot.pocket" :options="pockets" label="Pocket" test-id="pocket" width="172px" @picked="choosePocket" />
      </template>
      <span v-else class="soft">Choose a ball to pot, here or on the plan, then a pocket.</span>
    </div>
    <div v-if="pot && cut" class="seen">
      <SightPicture />
      <figure v-if="answer.shot?.seen" class="large" title="Outline: where it is aimed; dashed: where it meets the ball">
        <CutLarge
          :cut-degrees="cut.cutDegrees"
          :contact="cut.aimOffset"
          :aim="answer.shot.seen.offset ?? 0"
          :radius="position.reference!.ballRadius"
          :ball="cut.struck"
          :tip="{ side: position.stroke.side, height: position.stroke.height, share: tipShare }"
          :label="seenWords(answer.shot.seen)"
        />
      </figure>
      <p v-if="answer.shot?.seen" class="soft words" data-testid="seen">{{ sentence(seenWords(answer.shot.seen)) }}</p>
    </div>
    <div v-if="pot && cut" class="cut">
      <dl class="figure">
        <dt>Cut <HandbookLink of="fullness" what="fullness" /></dt>
        <dd>
          <span data-testid="cut">{{ cutWords(cut) }}</span>, {{ fullnessWords[cut.fullnessWord] }}
          <span class="soft">{{ percentWords(cut.fullness) }}</span>
        </dd>
        <dt>Pocket open <HandbookLink of="window" what="pocket open" /></dt>
        <dd>{{ cut.openingDegrees > 0 ? degreeWords(cut.openingDegrees, 2) : 'not clear' }}</dd>
        <dt>Distances</dt>
        <dd>{{ distancesWords(cut) }}</dd>
        <dt>Allowance <HandbookLink of="allowance" what="the allowance" /></dt>
        <dd class="allowance">
          <span data-testid="allowance">{{ allowanceWords(cut, answer.shot?.allowance ?? null) }}</span>
          <WhyAim v-if="answer.shot?.allowance" />
        </dd>
        <template v-if="arrival">
          <dt>White arrives</dt>
          <dd data-testid="arrival">{{ arrivalWords(arrival) }}</dd>
        </template>
      </dl>
    </div>
    <AllowancePanel v-if="judgements.sidesOpen && answer.shot?.allowance" />
    <p v-if="pot && cut && kindWords(cut)" class="kind">{{ kindWords(cut) }}: the white strikes {{ nameOf(cut.struck) }}</p>
    <p v-if="pot && cut && faultWords(cut)" class="field-error" role="status">{{ faultWords(cut) }}</p>
    <div class="row">
      <label class="row"
        >Aim
        <FigureInput
          :model-value="answer.aim"
          :min="-360"
          :max="360"
          :digits="2"
          :step="0.1"
          label="Aim"
          unit="°"
          width="78px"
          @update:model-value="position.aimFreely($event)"
          @commit="position.commit()"
      /></label>
      <OneOf v-if="pot && !pot.through && !pot.off" v-model="part" :options="parts" label="Part of the pocket" />
      <span v-else-if="!pot" class="soft">or drag the brass diamond</span>
      <ElButton v-else-if="position.stroke.free" @click="(position.setStroke({ free: false }), position.commit())">Aim at the pot</ElButton>
    </div>
  </section>
</template>

<style scoped>
.seen {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 124px;
  gap: var(--space-2) var(--space-3);
  align-items: center;
  max-width: 620px;
}
.large {
  margin: 0;
}
.words {
  grid-column: 1 / -1;
  margin: 0;
  font-size: var(--type-1);
  line-height: 1.25;
}
.kind {
  color: var(--accent);
}
.kind::first-letter {
  text-transform: uppercase;
}
.allowance {
  display: flex;
  gap: var(--space-3);
  align-items: center;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: var(--space-1) var(--space-3);
  margin: 0;
}
dt {
  color: var(--text-soft);
}
dd {
  margin: 0;
  font-weight: 600;
}
dd .soft {
  font-weight: 400;
}
</style>
