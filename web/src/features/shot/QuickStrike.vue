<script setup lang="ts">
import { ElSlider } from 'element-plus'
import { computed } from 'vue'
import { tipWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import { paceWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useJudgements } from './judgements'
import TipFace from './TipFace.vue'

/** On a phone, beside the plan that stands upright: where the tip goes, how hard, and how likely, by a thumb. */
const position = useDraft()
const judgements = useJudgements()
const stroke = computed(() => position.stroke)
const reference = computed(() => position.reference!)
</script>

<template>
  <section class="quick" aria-label="Strike">
    <TipFace
      class="face"
      :side="stroke.side"
      :height="stroke.height"
      :limit="reference.tipLimit"
      @change="(side, height) => position.setStroke({ side, height })"
      @commit="position.commit()"
    />
    <p class="tip">{{ tipWords(stroke.side, stroke.height) }}</p>
    <div class="pace">
      <ElSlider
        vertical
        height="100%"
        :model-value="stroke.pace"
        :min="reference.paceMin"
        :max="reference.paceMax"
        :step="0.1"
        :show-tooltip="false"
        aria-label="Pace, beside the plan"
        :format-value-text="paceWords"
        data-testid="quick-pace"
        @input="position.setStroke({ pace: $event as number })"
        @change="position.commit()"
      />
      <strong class="figure">{{ paceWords(stroke.pace) }}</strong>
    </div>
    <p v-if="judgements.spread && judgements.spread.pot !== null" class="chance">
      <strong>{{ shareWords(judgements.spread.pot) }}</strong> <span class="soft">goes in</span>
    </p>
  </section>
</template>

<style scoped>
.quick {
  display: flex;
  flex-direction: column;
  align-items: center;
  gap: var(--space-2);
  padding: var(--space-2) var(--space-3);
  min-width: 0;
  min-height: 0;
}
.face {
  width: 112px;
  flex: none;
}
.quick p {
  margin: 0;
  text-align: center;
  line-height: 1.2;
}
.tip {
  color: var(--accent);
  min-height: 2.4em;
  font-size: var(--type-3);
}
.pace {
  flex: 1;
  min-height: 90px;
  display: flex;
  gap: var(--space-3);
  align-items: center;
}
.chance strong {
  font-size: var(--type-4);
}
</style>
