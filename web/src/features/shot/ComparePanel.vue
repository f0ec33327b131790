<script setup lang="ts">
import { ElButton, ElCheckbox, ElTable, ElTableColumn } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { strokeWords } from '../../domain/words'
import { shareWords, valueWords } from '../../lib/estimates'
import { sentence } from '../../lib/formats'
import { fetchFile } from '../../api/client'
import { useAttempt } from '../../lib/useAttempt'
import { useDraft } from '../../position/draft'
import { useKeeping } from '../../position/keeping'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import LineButton from '../../ui/LineButton.vue'
import ProblemText from '../../ui/ProblemText.vue'
import SearchStatus from '../../ui/SearchStatus.vue'
import { mostChoices, useChoices } from '../../position/choices'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useCompare, type Column } from './compare'
import { choiceWords, differenceWords, errorWords, nextWords, nudgeWords } from './compareWords'

/** Two to four strokes of one's own beside one another, and the advice's best. */
const compare = useCompare()
const mine = useChoices()
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

const keeping = useKeeping()
const position = useDraft()
const { attempt } = useAttempt()
/** On paper: the lines together on a plan, the figures beside one another, the verdict. */
const sheet = () =>
  attempt(async () => {
    const columns = compare.columns.map(({ column, name }) => ({
      name,
      line: column.path.map(({ x, y }) => ({ x, y })),
      stroke: sentence(`${choiceWords(column.stroke)}, ${strokeWords({ ...column.stroke, pot: null })}`),
    }))
    const body = {
      name: position.draft.name,
      content: position.content,
      columns,
      rows: rows.value.map((r) => ({ label: r.label, cells: compare.columns.map((c) => r.cells[c.column.id]) })),
      lines: verdicts.value.map((d) => differenceWords(d, compare.nameOf, unit.value)),
    }
    keeping.download(await fetchFile('/api/compare/sheet', body), 'compare.pdf')
  }, 'Could not make the sheet')

/** The best of one's own against each other one, then the advice against it. */
const verdicts = computed(() => {
  const [best, ...others] = (compare.found?.order ?? []).filter((id) => id !== 'advice')
  const between = (id: string) =>
    compare.found?.differences.find((d) => (d.better === best && d.other === id) || (d.better === id && d.other === best))
  return [...others, 'advice'].flatMap((id) => between(id) ?? [])
})
/** Which one would you play? Nothing that answers it is shown before somebody has said. */
const isCovered = ref(false)
const picked = ref('')
watch(
  () => JSON.stringify(compare.choices),
  () => (picked.value = ''),
)
const isHidden = computed(() => isCovered.value && !picked.value)
const pickedWords = computed(() => {
  const best = (compare.found?.order ?? []).filter((id) => id !== 'advice')[0]
  if (!picked.value || !best) return ''
  const mineId = compare.columns.find((c) => c.name === picked.value)?.column.id
  const level = compare.found?.differences.some(
    (d) => d.isLevel && [d.better, d.other].includes(best) && [d.better, d.other].includes(mineId!),
  )
  return mineId === best
    ? `You chose ${picked.value}, and so does the comparison.`
    : level
      ? `You chose ${picked.value}: level with the best.`
      : `You chose ${picked.value}.`
})
const adviceIsMine = computed(() =>
  compare.found?.advice && compare.found.advice !== 'advice' ? compare.nameOf(compare.found.advice) : '',
)
</script>

<template>
  <div class="compare" data-testid="compare">
    <div class="row">
      <ElButton type="primary" :disabled="mine.isFull || mine.isLaid" data-testid="lay-choice" @click="mine.lay()"
        >Add the stroke that is set up</ElButton
      >
      <ElButton v-if="compare.choices.length" data-testid="clear-choices" @click="mine.clear()">Clear</ElButton>
      <ElCheckbox v-if="compare.choices.length" v-model="isCovered" data-testid="cover-verdict" @change="picked = ''"
        >Cover the verdict</ElCheckbox
      >
      <ErrorsButton /><HandbookLink of="compare" what="the comparison" />
    </div>
    <ol v-if="compare.choices.length" class="answers" aria-label="Strokes to compare">
      <li v-for="(s, i) in compare.choices" :key="i" data-testid="choice">
        <strong class="figure">{{ letter(i) }}</strong>
        <LineButton @click="compare.setUp(s)"
          >{{ sentence(choiceWords(s)) }}<span class="soft">, {{ strokeWords({ ...s, pot: null }) }}</span></LineButton
        >
        <ElButton size="small" :aria-label="`Remove stroke ${letter(i)}`" @click="mine.remove(i)">Remove</ElButton>
      </li>
    </ol>
    <p v-if="compare.choices.length < 2" class="soft" data-testid="compare-empty">
      {{
        compare.choices.length
          ? 'Set up another stroke from the same balls and add it.'
          : `Compare the shot you would play with the one you would not. Set up a stroke and add it, then another, up to ${mostChoices}. All get the same errors, so small differences show.`
      }}
    </p>
    <p v-else-if="mine.isFull" class="soft">Four is the most: remove one to add another.</p>
    <SearchStatus
      :is-searching="compare.isSearching"
      :was-stopped="compare.wasStopped"
      :share="compare.found?.share ?? 0"
      label="Progress of the comparison"
      :status="compare.status"
      :since="compare.since"
      :looked="compare.found?.looked"
      :wait="compare.wait"
      stop-test-id="stop-compare"
      @stop="compare.stop()"
      @go-on="compare.search()"
    />
    <ProblemText v-if="compare.problem" :problem="compare.problem" @again="compare.search()" />
    <div v-if="isHidden && compare.choices.length > 1" class="row" data-testid="which-one">
      <strong>Which one would you play?</strong>
      <ElButton v-for="(_, i) in compare.choices" :key="i" :data-testid="`pick-${letter(i)}`" @click="picked = letter(i)">{{
        letter(i)
      }}</ElButton>
    </div>
    <template v-else-if="compare.columns.length">
      <div role="status" data-testid="compare-verdict">
        <p v-if="pickedWords">{{ pickedWords }}</p>
        <p v-for="d in verdicts" :key="d.better + d.other">
          <strong>{{ differenceWords(d, compare.nameOf, unit) }}</strong>
        </p>
        <p v-if="!verdicts.length" class="soft">So far. The verdict follows once they have been played on.</p>
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
      <div class="row">
        <ElButton :disabled="!verdicts.length" data-testid="compare-sheet" @click="sheet">As a sheet (PDF)</ElButton>
      </div>
    </template>
    <p v-else-if="compare.isSearching" class="soft" role="status">Simulating …</p>
  </div>
</template>

<style scoped>
.compare {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
}
.compare p {
  margin: var(--space-1) 0;
}
.best {
  color: var(--accent);
}
</style>
