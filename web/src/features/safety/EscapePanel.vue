<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { nameOf } from '../../domain/balls'
import { shareWords } from '../../lib/estimates'
import { useDraft } from '../../position/draft'
import HandbookLink from '../../ui/HandbookLink.vue'
import LineButton from '../../ui/LineButton.vue'
import PickOne from '../../ui/PickOne.vue'
import { useEscapes } from './escapes'
import { escapeWords, familyWords } from './words'

/** Ways round cushions to a chosen ball, and the family of the stroke that is set up. */
const escapes = useEscapes()
const position = useDraft()
const balls = computed(() => [
  { value: '', label: 'which ball?' },
  ...position.content.balls.filter((b) => b.id !== 'white').map((b) => ({ value: b.id, label: nameOf(b.id) })),
])
</script>

<template>
  <section class="panel" aria-labelledby="escapes-title">
    <h2 id="escapes-title">Round the cushions</h2>
    <div class="row">
      <label class="row"
        >on to <PickOne v-model="escapes.ball" :options="balls" label="Ball to hit" test-id="escape-ball" width="130px"
      /></label>
      <ElButton size="small" :aria-pressed="escapes.familyOpen" data-testid="family" @click="escapes.familyOpen = !escapes.familyOpen"
        >Family of this stroke</ElButton
      >
      <HandbookLink of="family" what="a family of escapes" />
    </div>
    <p v-if="escapes.familyOpen && escapes.familyRefusal" class="field-error" role="alert">{{ escapes.familyRefusal }}</p>
    <p v-else-if="escapes.family" :class="{ stale: escapes.isFamilyStale }" role="status" data-testid="family-words">
      {{ familyWords(escapes.family) }}
    </p>
    <p v-if="escapes.waysRefusal" class="field-error" role="alert">{{ escapes.waysRefusal }}</p>
    <p v-else-if="escapes.ball && !escapes.ways" class="soft" role="status">Searching …</p>
    <p v-else-if="escapes.ways && !escapes.ways.length" class="soft">No way round a cushion hits it from here.</p>
    <ol v-else-if="escapes.ways" class="answers" :class="{ stale: escapes.areWaysStale }" aria-label="Ways to this ball, the best first">
      <li v-for="(e, i) in escapes.ways" :key="i" data-testid="escape-way">
        <span class="figure">{{ shareWords(e.hit) }}</span>
        <LineButton title="Set it up" @click="escapes.use(e)">{{ escapeWords(e) }}</LineButton>
        <span class="figure soft">{{ e.windowDegrees.toFixed(2) }}°</span>
      </li>
    </ol>
    <p v-if="escapes.ways?.length" class="soft">How often it hits, and the window of aim. What a small error does: Shot, What if, Errors.</p>
  </section>
</template>
