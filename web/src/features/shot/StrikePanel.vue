<script setup lang="ts">
import { computed } from 'vue'
import type { Stroke } from '../../api/client'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import FigureInput from '../../ui/FigureInput.vue'
import TipFace from './TipFace.vue'
import { reachWords, tipWords } from '../../domain/words'

/** Tip, side, pace and elevation. Height and pace are two knobs, and look like two. */
const answer = useAnswer()
const position = useDraft()
const stroke = computed(() => position.stroke)
const reference = computed(() => position.reference!)
const limit = computed(() => reference.value.tipLimit)
const reach = computed(() => answer.shot?.reach)
const strokeErrors = computed(() => position.problem?.errors.filter((e) => e.field.startsWith('stroke')) ?? [])

/** How far one way the tip may go when it is this far the other way. */
const room = (other: number) => Math.sqrt(Math.max(0, limit.value ** 2 - other ** 2)) - 1e-6
const set = (change: Partial<Stroke>) => position.setStroke(change)
const plain = () => {
  set({ side: 0, height: 0 })
  position.commit()
}
</script>

<template>
  <section class="panel" aria-labelledby="strike-title">
    <h2 id="strike-title">Strike <span class="words" data-testid="tip-words">{{ tipWords(stroke.side, stroke.height) }}</span><button v-if="stroke.side || stroke.height" class="key plain" @click="plain">Centre ball</button></h2>
    <div class="tip">
      <TipFace :side="stroke.side" :height="stroke.height" :limit="limit" @change="(side, height) => set({ side, height })" @commit="position.commit()" />
      <div class="figures">
        <label title="One tip is 10 mm of tip movement across the ball's face"><span>Height</span><FigureInput :model-value="stroke.height" :min="-room(stroke.side)" :max="room(stroke.side)" :digits="2" :step="0.05" label="Height of the tip" unit="tips" @update:model-value="set({ height: $event })" @commit="position.commit()" /></label>
        <span class="soft figure mm">{{ Math.abs(stroke.height * reference.millimetresPerTip).toFixed(1) }} mm {{ stroke.height < 0 ? 'below' : 'above' }}</span>
        <label><span>Side</span><FigureInput :model-value="stroke.side" :min="-room(stroke.height)" :max="room(stroke.height)" :digits="2" :step="0.05" label="Side, right is positive" unit="tips" @update:model-value="set({ side: $event })" @commit="position.commit()" /></label>
        <span class="soft figure mm">{{ Math.abs(stroke.side * reference.millimetresPerTip).toFixed(1) }} mm {{ stroke.side < 0 ? 'left' : 'right' }}</span>
        <span class="figure mm" :class="(answer.shot?.tipMargin ?? 1) < 0.2 ? 'danger' : 'soft'">{{ Math.max(0, (answer.shot?.tipMargin ?? 0) * reference.millimetresPerTip).toFixed(1) }} mm to a miscue</span>
      </div>
    </div>
    <div class="knob">
      <label for="pace">Pace</label>
      <input id="pace" type="range" :min="reference.paceMin" :max="reference.paceMax" step="0.1" :value="stroke.pace" data-testid="pace" @input="set({ pace: Number(($event.target as HTMLInputElement).value) })" @change="position.commit()" />
      <FigureInput :model-value="stroke.pace" :min="reference.paceMin" :max="reference.paceMax" :digits="1" label="Pace" @update:model-value="set({ pace: $event })" @commit="position.commit()" />
    </div>
    <div class="scale soft figure" aria-hidden="true"><span v-for="n in 10" :key="n">{{ n }}</span></div>
    <p class="soft figure note" data-testid="pace-figures">{{ answer.shot?.strike.cueSpeed.toFixed(2) }} m/s at the cue; plain ball, {{ answer.shot?.tableLengths.toFixed(2) }} table lengths</p>
    <div class="knob">
      <label for="elevation">Butt</label>
      <input id="elevation" type="range" min="0" :max="reference.elevationMax" step="1" :value="stroke.elevation" @input="set({ elevation: Number(($event.target as HTMLInputElement).value) })" @change="position.commit()" />
      <FigureInput :model-value="stroke.elevation" :min="0" :max="reference.elevationMax" :digits="0" label="Elevation of the butt" unit="°" @update:model-value="set({ elevation: $event })" @commit="position.commit()" />
    </div>
    <p v-if="reach" class="note reach" :class="reach.errorFactor > 1.2 ? 'danger' : 'soft'" data-testid="reach"><span>Reach: {{ reachWords(reach) }}</span><button v-if="reach.elevationDegrees > stroke.elevation" class="key raise" @click="(set({ elevation: reach.elevationDegrees }), position.commit())">Raise it</button></p>
    <p v-for="e in strokeErrors" :key="e.field" class="field-error" role="alert">{{ e.message }} Allowed: {{ e.allowed }}.</p>
  </section>
</template>

<style scoped>
.words {
  font-weight: 400;
  color: var(--accent);
  margin-left: 8px;
}
.tip {
  display: grid;
  grid-template-columns: minmax(120px, 150px) 1fr;
  gap: 12px;
  align-items: start;
}
@media (max-width: 1100px) {
  .tip {
    grid-template-columns: 124px 1fr;
  }
}
.figures {
  display: flex;
  flex-direction: column;
  gap: 3px;
  align-items: flex-start;
}
.figures label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.figures label > span:first-child {
  width: 3.2em;
}
.mm {
  font-size: 0.88rem;
  padding-left: 3.9em;
}
h2 {
  display: flex;
  align-items: center;
  min-height: 31px;
}
.plain {
  margin-left: auto;
}
.knob {
  display: grid;
  grid-template-columns: 2.6em 1fr auto;
  gap: 8px;
  align-items: center;
}
.knob :deep(.figure-input) {
  width: 58px;
}
.scale {
  display: flex;
  justify-content: space-between;
  padding: 0 5px;
  margin: -6px calc(58px + 8px) 0 calc(2.6em + 8px);
  font-size: 0.8rem;
}
.reach {
  display: flex;
  gap: 8px;
  align-items: center;
  justify-content: space-between;
}
.raise {
  min-height: 24px;
  padding: 0 8px;
  font-size: 0.85rem;
}
@media (pointer: coarse) {
  .raise {
    min-height: 40px;
  }
}
.note {
  margin: 0;
  font-size: 0.88rem;
}
</style>
