<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { nameOf } from '../../domain/balls'
import { shareWords } from '../../lib/estimates'
import { useDraft } from '../../position/draft'
import { strokeWords } from '../../domain/words'
import { askName } from '../../ui/askName'
import HandbookLink from '../../ui/HandbookLink.vue'
import LineButton from '../../ui/LineButton.vue'
import PickOne from '../../ui/PickOne.vue'
import { useEscapes } from './escapes'
import { escapeWords, familyWords } from './words'

/** Ways round cushions to a chosen ball, and the family of the stroke that is set up. */
const escapes = useEscapes()
const position = useDraft()
void escapes.look()
async function keepIt() {
  const name = await askName('Keep this family', '', 'Name of the family')
  if (name) await escapes.keep(name.slice(0, 80))
}
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
      <ElButton size="small" data-testid="keep-family" @click="keepIt">Keep this family …</ElButton>
    </p>
    <template v-if="escapes.here.length">
      <strong>Families of yours that work from here</strong>
      <ol class="answers" aria-label="Kept families that work from here">
        <li v-for="f in escapes.here" :key="f.id" data-testid="family-here">
          <LineButton title="Set it up" @click="escapes.useFamily(f)">{{ f.name }}: {{ strokeWords(f.stroke) }}</LineButton>
        </li>
      </ol>
    </template>
    <p v-if="escapes.all.length" class="row soft">
      Kept:
      <ElButton
        v-for="f in escapes.all"
        :key="f.id"
        size="small"
        :aria-label="`Delete the family ${f.name}`"
        data-testid="forget-family"
        @click="escapes.forget(f)"
        >Delete {{ f.name }}</ElButton
      >
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
    <p v-if="escapes.ways?.length" class="soft">
      How often it hits, and the window of aim. What a small error does: Shot, What if, Errors.
    </p>
  </section>
</template>
