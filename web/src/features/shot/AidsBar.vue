<script setup lang="ts">
import { ElCheckbox } from 'element-plus'
import { computed } from 'vue'
import { shareWords } from '../../lib/estimates'
import { useDraft } from '../../position/draft'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import OneOf from '../../ui/OneOf.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useJudgements, type FanKind } from './judgements'
import { chancesWords } from './words'

/** What else is drawn of the shot: the same pot played otherwise, and where it may stop. */
const position = useDraft()
const judgements = useJudgements()
const kinds = computed<{ value: FanKind | 'none'; label: string; testId: string }[]>(() => [
  { value: 'none', label: 'None', testId: 'fan-none' },
  ...(position.stroke.pot ? [{ value: 'routes' as const, label: 'Routes', testId: 'fan-routes' }] : []),
  { value: 'paces', label: 'Paces', testId: 'fan-paces' },
  { value: 'heights', label: 'Heights', testId: 'fan-heights' },
  { value: 'sides', label: 'Sides', testId: 'fan-sides' },
])
const kind = computed({ get: () => judgements.fanKind ?? 'none', set: (value) => (judgements.fanKind = value === 'none' ? null : value) })
</script>

<template>
  <section class="panel" aria-labelledby="aids-title">
    <div class="row">
      <h2 id="aids-title">Also</h2>
      <OneOf v-model="kind" :options="kinds" label="Other ways to play this" />
      <ElCheckbox v-model="judgements.spreadOpen" data-testid="spread">Spread</ElCheckbox>
      <ElCheckbox v-model="judgements.spinOpen" data-testid="spin">Spin</ElCheckbox>
    </div>
    <p class="soft">
      <RouterLink :to="{ query: { ...$route.query, view: 'what-if' } }">What if</RouterLink> has steps of your own, ladders and tables.
    </p>
    <p v-if="judgements.fanKind && judgements.fanRefusal" class="field-error" role="alert">No fan: {{ judgements.fanRefusal }}</p>
    <p
      v-if="judgements.spreadOpen && judgements.spreadRefusal && !judgements.isSampling"
      class="field-error"
      role="alert"
      data-testid="spread-refused"
    >
      Not sampled: {{ judgements.spreadRefusal }}
    </p>
    <p v-else-if="judgements.spreadOpen && !judgements.spread" class="soft" role="status">Simulating …</p>
    <p v-else-if="judgements.spread" :class="{ soft: judgements.isSampling, stale: judgements.isSpreadStale }" data-testid="chances">
      <template v-if="judgements.spread.pot !== null"
        ><strong>Goes in {{ shareWords(judgements.spread.pot) }}</strong
        >; </template
      >{{ chancesWords(judgements.spread) }}. <ErrorsButton /><HandbookLink of="spread" what="where it may stop" />
    </p>
  </section>
</template>
