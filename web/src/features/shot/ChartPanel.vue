<script setup lang="ts">
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import { tipWords, whereWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import { figureWords, sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import LineButton from '../../ui/LineButton.vue'
import OneOf from '../../ui/OneOf.vue'
import { lineWhiteWords } from './fanWords'
import { useWhatIf } from './whatIf'

/** A pot by the part of the pocket, or by side, at several paces: in each cell where the white goes. */
const whatIf = useWhatIf()
const position = useDraft()
type Cell = Schemas['PotCellResult']
const by = ref<'part' | 'side'>('part')
const bys: { value: 'part' | 'side'; label: string }[] = [
  { value: 'part', label: 'Part of the pocket' },
  { value: 'side', label: 'Side' },
]
const stretches: Record<Schemas['Stretch'], string> = {
  baulk: 'baulk',
  belowBlue: 'below blue',
  blueToPink: 'to pink',
  pinkToBlack: 'to black',
  behindBlack: 'top end',
}
const cells = computed(() => (by.value === 'part' ? whatIf.chart?.byPart : whatIf.chart?.bySide) ?? [])
const paces = computed(() => [...new Set(cells.value.map((c) => c.pace))])
const rowName = (row: number) =>
  by.value === 'side'
    ? tipWords(row, 0).replace('centre ball', 'plain')
    : row === 0
      ? 'middle'
      : `${Math.abs(row) > 0.5 ? '' : 'half '}${row < 0 ? 'thick' : 'thin'}`
const rows = computed(() =>
  [...new Set(cells.value.map((c) => c.row))].map((row) => ({ row, name: rowName(row), cells: cells.value.filter((c) => c.row === row) })),
)
const short = (c: Cell) =>
  !c.end ? '–' : !c.potted ? 'missed' : c.end.whitePocket ? 'in-off' : c.end.whiteRests ? stretches[c.end.whiteRests.stretch] : 'off'
const isBad = (c: Cell) => !c.end || !c.potted || !!c.end.whitePocket
const paceOf = (pace: number) => pace.toFixed(1).replace(/\.0$/, '')
function use(c: Cell) {
  position.setStroke({
    pace: c.pace,
    ...(by.value === 'side' ? { side: c.row } : { pot: { ...position.stroke.pot!, part: c.row } }),
  })
  position.commit()
}
const missed = computed(() => {
  const near = (isThick: boolean) =>
    whatIf.chart?.missed
      .filter((m) => m.isThick === isThick)
      .sort((a, b) => Math.abs(a.pace - position.stroke.pace) - Math.abs(b.pace - position.stroke.pace))[0]
  return [true, false].flatMap((isThick) => {
    const m = near(isThick)
    return m
      ? [`missed ${isThick ? 'thick' : 'thin'}, the ball stops ${m.ballRests ? whereWords(m.ballRests) : 'nowhere: it goes in'}`]
      : []
  })
})
const spins = computed(() => {
  const list = whatIf.chart?.spins ?? []
  return list.map((s) => `${tipWords(0, s.heightTips)} ${shareWords(s.chance)}`).join(', ')
})
</script>

<template>
  <p v-if="!position.stroke.pot" class="soft">Choose a ball and a pocket in Set up first.</p>
  <p v-else-if="!whatIf.chart && !whatIf.refusal" class="soft" role="status">Simulating …</p>
  <template v-else-if="whatIf.chart">
    <OneOf v-model="by" :options="bys" label="Rows" />
    <div class="chart" :class="{ stale: whatIf.isChartStale }" :style="{ '--columns': paces.length }" role="table" data-testid="pot-chart">
      <div role="row" class="line">
        <span role="columnheader" class="soft">pace</span>
        <span v-for="p in paces" :key="p" role="columnheader" class="figure soft">{{ paceOf(p) }}</span>
      </div>
      <div v-for="r in rows" :key="r.row" role="row" class="line">
        <span role="rowheader">{{ r.name }}</span>
        <span v-for="c in r.cells" :key="c.pace" role="cell" :class="{ bad: isBad(c) }">
          <LineButton
            :title="c.end ? sentence(lineWhiteWords(c.end)) : 'No aim pots it'"
            :aria-label="`${r.name}, pace ${paceOf(c.pace)}: ${short(c)}. Set it up so`"
            @click="use(c)"
            @mouseenter="whatIf.pointed = c"
            @mouseleave="whatIf.pointed = null"
            @focusin="whatIf.pointed = c"
            @focusout="whatIf.pointed = null"
            >{{ short(c) }}</LineButton
          >
        </span>
      </div>
    </div>
    <p class="soft">Where the white stops; a dot on the plan for each. Crosses: where the ball stops if it is just missed.</p>
    <p v-for="m in missed" :key="m">{{ sentence(m) }}.</p>
    <p>The pot by height: {{ spins }}, at pace {{ figureWords(position.stroke.pace, 1) }}.</p>
  </template>
</template>

<style scoped>
.chart {
  display: grid;
  gap: var(--space-1);
  font-size: var(--type-1);
}
.line {
  display: grid;
  grid-template-columns: 4.8em repeat(var(--columns), minmax(0, 1fr));
  align-items: center;
  gap: var(--space-1);
}
.line :deep(.el-button) {
  font-size: var(--type-1);
  min-height: 28px;
  margin: 0;
  padding: var(--space-1);
  width: 100%;
  justify-content: center;
  text-align: center;
  background: var(--raised, transparent);
}
.bad :deep(.el-button) {
  color: var(--danger);
}
</style>
