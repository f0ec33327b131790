<script setup lang="ts">
import { ElButton, ElSlider } from 'element-plus'
import { useLocalStorage } from '@vueuse/core'
import { computed, defineAsyncComponent } from 'vue'
import type { Stroke } from '../../api/client'
import { theBall } from '../../domain/balls'
import { reachWords, tipWords } from '../../domain/words'
import { lengthWords, paceUnit, paceWords, sentence } from '../../lib/formats'
import { fieldWords } from '../../lib/problemWords'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import FigureInput from '../../ui/FigureInput.vue'
import PaceInput from '../../ui/PaceInput.vue'
import OneOf from '../../ui/OneOf.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import WindowBars from './WindowBars.vue'
import TipFace from './TipFace.vue'
import { buttWords, higherWords } from './words'

const CueSideView = defineAsyncComponent(() => import('./CueSideView.vue'))
const showsSide = useLocalStorage('deep-baize-side-view', false)
/** Tip, side, pace and elevation. Height and pace are two knobs, and look like two. */
const answer = useShot()
const position = useDraft()
const stroke = computed(() => position.stroke)
const reference = computed(() => position.reference!)
const limit = computed(() => reference.value.tipLimit)
const reach = computed(() => answer.shot?.reach)
const strokeErrors = computed(() => position.problem?.errors.filter((e) => e.field.startsWith('stroke')) ?? [])
const tips = (count: number) => lengthWords((Math.abs(count) * reference.value.millimetresPerTip) / 1000, 1)

/** How far one way the tip may go when it is this far the other way. */
const room = (other: number) => Math.sqrt(Math.max(0, limit.value ** 2 - other ** 2)) - 1e-6
const set = (change: Partial<Stroke>) => position.setStroke(change)
function plain() {
  set({ side: 0, height: 0 })
  position.commit()
}
/** At which it is played: what is set, or as the cue lies. */
const butt = computed(() => stroke.value.elevation ?? answer.shot?.strike.elevation ?? 0)
const butts = [
  { value: 'lies', label: 'as the cue lies', testId: 'butt-lies' },
  { value: 'level', label: 'level', testId: 'butt-level' },
  { value: 'raised', label: 'raised', testId: 'butt-raised' },
]
const buttKind = computed(() => (stroke.value.elevation === null ? 'lies' : stroke.value.elevation === 0 ? 'level' : 'raised'))
function lay(kind: string) {
  set({ elevation: kind === 'lies' ? null : kind === 'level' ? 0 : Math.max(10, Math.ceil(butt.value)) })
  position.commit()
}
/** Striking higher lets the butt come down. */
const higher = computed(() => answer.shot?.higher)
function strikeHigher() {
  set({ height: higher.value!.heightTips, elevation: stroke.value.elevation === null ? null : higher.value!.elevationDegrees })
  position.commit()
}
function raise() {
  set({ elevation: reach.value!.elevationDegrees })
  position.commit()
}
</script>

<template>
  <section class="panel" aria-labelledby="strike-title">
    <h2 id="strike-title">
      Strike <HandbookLink of="tip" what="a tip" />
      <span class="words" data-testid="tip-words">{{ tipWords(stroke.side, stroke.height) }}</span><ElButton
        v-if="stroke.side || stroke.height"
        size="small"
        class="plain"
        @click="plain"
        >Centre ball</ElButton
      >
    </h2>
    <div class="tip">
      <TipFace
        :side="stroke.side"
        :height="stroke.height"
        :limit="limit"
        @change="(side, height) => set({ side, height })"
        @commit="position.commit()"
      />
      <div class="figures">
        <label title="One tip is 10 mm of tip movement across the ball's face"
          ><span>Height</span
          ><FigureInput
            :model-value="stroke.height"
            :min="-room(stroke.side)"
            :max="room(stroke.side)"
            :digits="2"
            :step="0.05"
            label="Height of the tip"
            unit="tips"
            @update:model-value="set({ height: $event })"
            @commit="position.commit()"
        /></label>
        <span class="soft figure under">{{ tips(stroke.height) }} {{ stroke.height < 0 ? 'below' : 'above' }}</span>
        <label
          ><span>Side</span
          ><FigureInput
            :model-value="stroke.side"
            :min="-room(stroke.height)"
            :max="room(stroke.height)"
            :digits="2"
            :step="0.05"
            label="Side, right is positive"
            unit="tips"
            @update:model-value="set({ side: $event })"
            @commit="position.commit()"
        /></label>
        <span class="soft figure under">{{ tips(stroke.side) }} {{ stroke.side < 0 ? 'left' : 'right' }}</span>
        <span class="figure under" :class="(answer.shot?.tipMargin ?? 1) < 0.2 ? 'danger' : 'soft'"
          >{{ tips(Math.max(0, answer.shot?.tipMargin ?? 0)) }} to a miscue</span
        >
      </div>
    </div>
    <div class="knob">
      <span>Pace <HandbookLink of="pace" what="a pace" /></span>
      <ElSlider
        :model-value="stroke.pace"
        :min="reference.paceMin"
        :max="reference.paceMax"
        :step="0.1"
        :show-tooltip="false"
        aria-label="Pace"
        :format-value-text="paceWords"
        data-testid="pace"
        @input="set({ pace: $event as number })"
        @change="position.commit()"
      />
      <PaceInput
        :model-value="stroke.pace"
        :min="reference.paceMin"
        :max="reference.paceMax"
        label="Pace"
        @update:model-value="set({ pace: $event })"
        @commit="position.commit()"
      />
    </div>
    <p class="soft figure" data-testid="pace-figures">
      <template v-if="paceUnit.isOwn">standard {{ stroke.pace.toFixed(1) }}, </template>{{ answer.shot?.strike.cueSpeed.toFixed(2) }} m/s at
      the cue; plain ball, {{ answer.shot?.tableLengths.toFixed(2) }} table lengths
    </p>
    <WindowBars />
    <div class="row butt">
      <span>Butt</span>
      <OneOf :model-value="buttKind" :options="butts" label="How the cue lies" @update:model-value="lay($event as string)" />
      <ElButton size="small" :aria-pressed="showsSide" data-testid="from-the-side" @click="showsSide = !showsSide">From the side</ElButton>
      <span v-if="answer.shot" class="soft figure" data-testid="butt-figures">{{ sentence(buttWords(answer.shot)) }}</span>
    </div>
    <CueSideView v-if="showsSide" />
    <div v-if="buttKind === 'raised'" class="knob">
      <span></span>
      <ElSlider
        :model-value="butt"
        :min="0"
        :max="reference.elevationMax"
        :step="1"
        :show-tooltip="false"
        aria-label="Elevation of the butt"
        :format-value-text="(v: number) => `${v} degrees`"
        @input="set({ elevation: Math.max(1, $event as number) })"
        @change="position.commit()"
      />
      <FigureInput
        :model-value="butt"
        :min="0"
        :max="reference.elevationMax"
        :digits="0"
        label="Elevation of the butt"
        unit="°"
        width="46px"
        @update:model-value="set({ elevation: $event })"
        @commit="position.commit()"
      />
    </div>
    <p v-if="reach" class="reach" :class="reach.errorFactor > 1.2 ? 'danger' : 'soft'" data-testid="reach">
      <span>Reach <HandbookLink of="reach" what="reach" />: {{ reachWords(reach) }}</span
      ><ElButton v-if="reach.elevationDegrees > butt" size="small" @click="raise">Raise it</ElButton>
    </p>
    <p v-if="higher" class="reach" data-testid="higher">
      <span>{{ higherWords(higher) }}</span><ElButton size="small" @click="strikeHigher">Strike higher</ElButton>
    </p>
    <p v-if="reach?.bridgeOver || reach?.over" class="soft" data-testid="another-ball">
      {{ sentence(theBall((reach.bridgeOver ?? reach.over)!)) }} is in the way of the cue.
      <RouterLink :to="{ name: 'table', params: { ...$route.params, step: 'read' } }">Look for another pot</RouterLink>
    </p>
    <p v-for="e in strokeErrors" :key="e.field" class="field-error" role="alert">{{ fieldWords(e) }}</p>
  </section>
</template>

<style scoped>
.words {
  font-weight: 400;
  color: var(--accent);
  margin-left: var(--space-3);
}
.tip {
  display: grid;
  grid-template-columns: minmax(120px, 150px) 1fr;
  gap: var(--space-4);
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
  gap: var(--space-1);
  align-items: flex-start;
}
.figures label {
  display: flex;
  gap: var(--space-2);
  align-items: center;
}
.figures label > span:first-child {
  width: 3.2em;
}
.under {
  font-size: var(--type-2);
  padding-left: 3.9em;
}
h2 {
  display: flex;
  align-items: center;
  min-height: 26px;
}
.plain {
  margin-left: auto;
}
.knob {
  display: grid;
  grid-template-columns: 4.4em 1fr 74px;
  gap: var(--space-4);
  align-items: center;
}
.reach {
  display: flex;
  gap: var(--space-3);
  align-items: center;
  justify-content: space-between;
}
</style>
