<script setup lang="ts">
import { ElButton, ElTable, ElTableColumn } from 'element-plus'
import { computed } from 'vue'
import { strokeWords } from '../../domain/words'
import { shareWords, valueWords } from '../../lib/estimates'
import { sentence } from '../../lib/formats'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import LineButton from '../../ui/LineButton.vue'
import ProblemText from '../../ui/ProblemText.vue'
import SearchStatus from '../../ui/SearchStatus.vue'
import { mostChoices, useCompare, type Column } from './compare'
import { choiceWords, differenceWords, errorWords, nextWords, nudgeWords } from './compareWords'

/** Two to four strokes of one's own beside one another, and the advice's best. */
const compare = useCompare()
const unit = computed(() => compare.found?.unit ?? 'win')
const letter = (i: number) => String.fromCharCode(65 + i)

const rows = computed(() => {
  // Values, not ways to get them: the table paints a row anew when the row is another.
  const row = (label: string, of: (c: Column) => string) => ({
    label,
    cells: Object.fromEntries(compare.columns.map(({ column }) => [column.id, of(column)])),
  })
  return [
    row(unit.value === 'points' ? 'Points' : 'Frame won', (c) => valueWords(c.value, unit.value)),
    row('Scores', (c) => shareWords(c.scores)),
    row('As meant', nextWords),
    row('If long', (c) => errorWords(c.long)),
    row('If short', (c) => errorWords(c.short)),
    row('Bad leaves', (c) => shareWords(c.leavesPot)),
    row('Foul', (c) => shareWords(c.foul)),
    row('½ step of pace', (c) => nudgeWords(c, 'pace', unit.value)),
    row('¼ tip of height', (c) => nudgeWords(c, 'height', unit.value)),
    row('¼ tip of side', (c) => nudgeWords(c, 'side', unit.value)),
  ]
})
type Row = (typeof rows.value)[number]

/** The best of one's own against each other one, then the advice against it. */
const verdicts = computed(() => {
  const [best, ...others] = (compare.found?.order ?? []).filter((id) => id !== 'advice')
  const between = (id: string) =>
    compare.found?.differences.find((d) => (d.better === best && d.other === id) || (d.better === id && d.other === best))
  return [...others, 'advice'].flatMap((id) => between(id) ?? [])
})
const adviceIsMine = computed(() =>
  compare.found?.advice && compare.found.advice !== 'advice' ? compare.nameOf(compare.found.advice) : '',
)
</script>

<template>
  <div class="compare" data-testid="compare">
    <div class="row">
      <ElButton type="primary" :disabled="compare.isFull || compare.isLaid" data-testid="lay-choice" @click="compare.lay()"
        >Add the stroke that is set up</ElButton
      >
      <ElButton v-if="compare.choices.length" data-testid="clear-choices" @click="compare.clear()">Clear</ElButton>
      <ErrorsButton />
    </div>
    <ol v-if="compare.choices.length" class="answers" aria-label="Strokes to compare">
      <li v-for="(s, i) in compare.choices" :key="i" data-testid="choice">
        <strong class="figure">{{ letter(i) }}</strong>
        <LineButton @click="compare.setUp(s)"
          >{{ sentence(choiceWords(s)) }}<span class="soft">, {{ strokeWords({ ...s, pot: null }) }}</span></LineButton
        >
        <ElButton size="small" :aria-label="`Remove stroke ${letter(i)}`" @click="compare.remove(i)">Remove</ElButton>
      </li>
    </ol>
    <p v-if="compare.choices.length < 2" class="soft" data-testid="compare-empty">
      {{
        compare.choices.length
          ? 'Set up another stroke from the same balls – the one you would choose instead – and add it.'
          : `Lay the shot you would play beside the one you would not: set a stroke up, add it, then another, up to ${mostChoices}. They are played with the same errors, so that a small difference shows.`
      }}
    </p>
    <p v-else-if="compare.isFull" class="soft">Four are as many as can be told apart at a glance: remove one to add another.</p>
    <SearchStatus
      :is-searching="compare.isSearching"
      :was-stopped="compare.wasStopped"
      :share="compare.found?.share ?? 0"
      label="How far the comparison is"
      :status="compare.status"
      :since="compare.since"
      :looked="compare.found?.looked"
      :wait="compare.wait"
      stop-test-id="stop-compare"
      @stop="compare.stop()"
      @go-on="compare.search()"
    />
    <ProblemText v-if="compare.problem" :problem="compare.problem" @again="compare.search()" />
    <template v-if="compare.columns.length">
      <div role="status" data-testid="compare-verdict">
        <p v-for="d in verdicts" :key="d.better + d.other">
          <strong>{{ differenceWords(d, compare.nameOf, unit) }}</strong>
        </p>
        <p v-if="!verdicts.length" class="soft">So far; which is better is said once they have been played on.</p>
        <p v-if="adviceIsMine" class="soft">{{ adviceIsMine }} is what the advice would play.</p>
      </div>
      <ElTable :data="rows" size="small" data-testid="compare-table">
        <ElTableColumn label="" width="104" class-name="soft" fixed
          ><template #default="{ row }">{{ (row as Row).label }}</template></ElTableColumn
        >
        <ElTableColumn v-for="c in compare.columns" :key="c.column.id" min-width="84"
          ><template #header
            ><LineButton :title="`Set up ${c.name}`" :data-testid="`column-${c.name}`" @click="compare.setUpColumn(c.column)"
              ><strong :class="{ best: c.column.id === compare.found?.order[0] }">{{ c.name }}</strong></LineButton
            ></template
          ><template #default="{ row }">{{ (row as Row).cells[c.column.id] }}</template></ElTableColumn
        >
      </ElTable>
    </template>
    <p v-else-if="compare.isSearching" class="soft" role="status">Playing them with the same errors …</p>
  </div>
</template>

<style scoped>
.compare {
  display: flex;
  flex-direction: column;
  gap: 8px;
}
.compare p {
  margin: 2px 0;
}
.best {
  color: var(--accent);
}
</style>
