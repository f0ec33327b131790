<script setup lang="ts">
import { computed } from 'vue'
import { nameOf, pocketName } from '../../domain/balls'
import { plainPot } from '../../domain/strokes'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import AllowancePanel from './AllowancePanel.vue'
import CutPicture from './CutPicture.vue'
import FigureInput from '../../ui/FigureInput.vue'
import { allowanceWords, arrivalWords, faultWords, fullnessWords, kindWords } from '../../domain/words'

/** Which ball into which pocket, or a free aim. */
const answer = useAnswer()
const position = useDraft()
const pot = computed(() => position.stroke.pot)
const cut = computed(() => answer.shot?.cut ?? null)
const arrival = computed(() => answer.shot?.arrival ?? null)
const objectBalls = computed(() => position.content.balls.filter((b) => b.id !== 'white').map((b) => b.id))

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

const parts = [
  { part: -1, label: 'thick side' },
  { part: 0, label: 'middle' },
  { part: 1, label: 'thin side' },
]

function aimAtPart(part: number) {
  position.setStroke({ pot: { ...pot.value!, part }, free: false })
  position.commit()
}
</script>

<template>
  <section class="panel" aria-labelledby="choose-title">
    <h2 id="choose-title">Choose</h2>
    <div class="row">
      <select class="choice" aria-label="Object ball" data-testid="object-ball" :value="pot?.ball ?? ''" @change="chooseBall(($event.target as HTMLSelectElement).value)">
        <option value="">no pot</option>
        <option v-for="id in objectBalls" :key="id" :value="id">{{ nameOf(id) }}</option>
      </select>
      <template v-if="pot">
        <span class="soft">into</span>
        <select class="choice grow" aria-label="Pocket" data-testid="pocket" :value="pot.pocket" @change="choosePocket(($event.target as HTMLSelectElement).value)">
          <option v-for="p in position.reference!.pockets" :key="p" :value="p">{{ pocketName(p) }}</option>
        </select>
      </template>
      <span v-else class="soft">Pick a ball to pot, here or on the plan, then a pocket.</span>
    </div>
    <div v-if="pot && cut" class="cut">
      <CutPicture :offset="Math.sign(cut.cutDegrees) * cut.aimOffset" :radius="position.reference!.ballRadius" :ball="cut.struck" />
      <dl class="figure">
        <dt>Cut</dt>
        <dd data-testid="cut">{{ Math.abs(cut.cutDegrees).toFixed(1) }}°{{ Math.abs(cut.cutDegrees) < 0.5 ? ' straight' : cut.cutDegrees > 0 ? ' to the left' : ' to the right' }}</dd>
        <dt>Fullness</dt>
        <dd>{{ fullnessWords[cut.fullnessWord] }} <span class="soft">{{ (cut.fullness * 100).toFixed(0) }} %</span></dd>
        <dt>Pocket open</dt>
        <dd>{{ cut.openingDegrees > 0 ? `${cut.openingDegrees.toFixed(2)}°` : 'not clear' }}</dd>
        <dt>Distances</dt>
        <dd>{{ (cut.cueBallDistance * 1000).toFixed(0) }} <span class="soft">+</span> {{ (cut.potDistance * 1000).toFixed(0) }} mm</dd>
        <dt>Allowance</dt>
        <dd class="allowance"><span data-testid="allowance">{{ allowanceWords(cut, answer.shot?.allowance ?? null) }}</span> <AllowancePanel v-if="answer.shot?.allowance" /></dd>
        <template v-if="arrival">
          <dt>White arrives</dt>
          <dd data-testid="arrival">{{ arrivalWords(arrival) }}</dd>
        </template>
      </dl>
    </div>
    <p v-if="pot && cut && kindWords(cut)" class="kind">{{ kindWords(cut) }}: the white strikes the {{ nameOf(cut.struck) }}</p>
    <p v-if="pot && cut && faultWords(cut)" class="field-error" role="status">{{ faultWords(cut) }}</p>
    <div class="row">
      <label>Aim <FigureInput :model-value="answer.aim" :min="-360" :max="360" :digits="2" :step="0.1" label="Aim" unit="°" @update:model-value="position.aimFreely($event)" @commit="position.commit()" /></label>
      <span v-if="pot && !pot.through && !pot.off" class="joined" role="group" aria-label="Part of the pocket">
        <button v-for="p in parts" :key="p.part" class="key" :aria-pressed="!position.stroke.free && pot.part === p.part" :data-testid="`part-${p.part}`" @click="aimAtPart(p.part)">{{ p.label }}</button>
      </span>
      <span v-else-if="!pot" class="soft">or drag the brass diamond</span>
    </div>
  </section>
</template>

<style scoped>
.grow {
  flex: 1;
  min-width: 0;
}
label {
  display: inline-flex;
  gap: 6px;
  align-items: center;
}
.cut {
  display: flex;
  gap: 12px;
  align-items: center;
}
@media (max-width: 1100px) {
  .cut > :first-child {
    width: 84px;
  }
}
.kind {
  font-size: 0.92rem;
  color: var(--accent);
}
.kind::first-letter {
  text-transform: uppercase;
}
.allowance {
  display: flex;
  gap: 8px;
  align-items: center;
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 1px 10px;
  margin: 0;
  font-size: 0.94rem;
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
