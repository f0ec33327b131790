<script setup lang="ts">
import { ElTable, ElTableColumn } from 'element-plus'
import { computed } from 'vue'
import { nameOf, pocketName } from '../../domain/balls'
import { fullnessWords, kindWords, reachWords, skillWords, tipWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import { degreeWords, lengthWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import CompareButton from '../../position/CompareButton.vue'
import { usePlayer } from '../../position/player'
import BallDot from '../../ui/BallDot.vue'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import CutPicture from '../../ui/CutPicture.vue'
import ProblemText from '../../ui/ProblemText.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useReading, type PotOption } from './reading'
import { whyNotWords } from './words'

/** What is on: every pot with its chance, and of those that are not on, why. */
const position = useDraft()
const reading = useReading()
const players = usePlayer()

const value = (o: PotOption) => position.reference!.values[o.cut.ball]
const on = computed(() => (reading.options ?? []).filter((o) => o.chance.value > 0).sort((a, b) => b.chance.value - a.chance.value))
/** For a ball with no pot on, the pocket that comes nearest to it. */
const off = computed(() => {
  const potted = new Set(on.value.map((o) => o.cut.ball))
  const seen = new Set<string>()
  return (reading.options ?? []).filter(
    (o) => o.chance.value === 0 && !potted.has(o.cut.ball) && !seen.has(o.cut.ball) && seen.add(o.cut.ball),
  )
})
const by = (of: (o: PotOption) => number) => (a: PotOption, b: PotOption) => of(a) - of(b)
const keyOf = (o: PotOption) => [o.cut.ball, o.cut.pocket, o.cut.struck, o.cut.off].join()
/** What it takes to get at the white, where that is more than a plain stance. */
const reaches = { natural: '', stretch: 'at a stretch', otherHand: 'other hand', rest: 'rest' }
/** Where a plain ball is struck high so that the butt need not be raised so far. */
const heightOf = (o: PotOption) => (o.heightTips && !reading.judged.height ? tipWords(0, o.heightTips) : '')
const reachOf = (o: PotOption) =>
  [reaches[o.reach.stance], heightOf(o), o.reach.elevationDegrees ? `butt ${degreeWords(o.reach.elevationDegrees)}` : '']
    .filter(Boolean)
    .join(', ')
const room = (o: PotOption) => Math.min(o.cueBallClearance ?? Infinity, o.potClearance ?? Infinity)
const roomWords = (o: PotOption) => (room(o) === Infinity ? '' : lengthWords(room(o)))
const rowClass = ({ row }: { row: PotOption }) => (reading.isChosen(row) ? 'chosen' : '')

/** A row is chosen by the keyboard as well; it is told and pointed at as one. */
function key(e: KeyboardEvent) {
  const row = (e.target as Element).closest('tr')
  const rows = row ? [...row.parentElement!.children] : []
  const at = rows.indexOf(row!)
  if (at < 0) return
  const step = { ArrowDown: 1, ArrowUp: -1 }[e.key]
  if (step) (rows[at + step] as HTMLElement | undefined)?.querySelector<HTMLElement>('.ball')?.focus()
  // The row that has the focus is the one that is pointed at.
  else if ((e.key === 'Enter' || e.key === ' ') && reading.pointed) reading.choose(reading.pointed)
  else return
  e.preventDefault()
}
</script>

<template>
  <div class="list" :class="{ stale: reading.isStale }" data-testid="read-list">
    <p class="soft who">
      Chances for {{ skillWords(players.player.skill) }}, {{ players.player.hand }}-handed. Point at a row to see its line; click to set it
      up. <ErrorsButton /><HandbookLink of="chance" what="a chance" /><HandbookLink of="errors" what="± errors" />
    </p>
    <ProblemText v-if="reading.problem" :problem="reading.problem" test-id="read-problem" @again="reading.again()" />
    <p v-else-if="!reading.options" class="soft" role="status">Reading the table …</p>
    <p v-else-if="!reading.options.length" class="soft">There is nothing to pot. Add a ball in the step Shot.</p>
    <p v-else-if="!on.length" class="soft">Nothing is on. See below what is in the way, and Safety for what to play.</p>
    <ElTable
      v-if="on.length"
      :data="on"
      :row-key="keyOf"
      :row-class-name="rowClass"
      size="small"
      @row-click="reading.choose"
      @cell-mouse-enter="(o: PotOption) => (reading.pointed = o)"
      @mouseleave="reading.pointed = null"
      @keydown="key"
    >
      <ElTableColumn label="Ball" min-width="72" sortable :sort-method="by((o) => value(o) * 100 + o.chance.value)">
        <template #default="{ row }">
          <span class="named"
            ><BallDot :ball="row.cut.ball" /><span
              class="ball"
              tabindex="0"
              role="button"
              :aria-label="`${nameOf(row.cut.ball)}, ${pocketName(row.cut.pocket)} pocket: set up`"
              @focus="reading.pointed = row"
              @blur="reading.pointed = null"
              >{{ nameOf(row.cut.ball) }}</span
            ></span
          >
        </template>
      </ElTableColumn>
      <ElTableColumn label="Pocket" min-width="92">
        <template #default="{ row }"
          >{{ pocketName(row.cut.pocket)
          }}<span v-if="row.cut.kind !== 'direct'" class="kind" :title="kindWords(row.cut)">{{
            row.cut.kind === 'double' ? 'double' : `${row.cut.kind} ${nameOf(row.cut.struck)}`
          }}</span
          ><span v-if="reachOf(row as PotOption)" class="soft under" :title="reachWords(row.reach)">{{ reachOf(row as PotOption) }}</span
          ><CompareButton v-if="reading.isChosen(row as PotOption)" class="under" :stroke="position.stroke" :what="nameOf(row.cut.ball)"
        /></template>
      </ElTableColumn>
      <ElTableColumn prop="chance.value" label="Chance" width="86" align="right" sortable :sort-orders="['descending', 'ascending']">
        <template #default="{ row }"
          ><strong>{{ shareWords(row.chance) }}</strong
          ><span v-if="row.isLevel" class="soft under" title="Too close to the likeliest to separate">level</span
          ><span v-if="row.pace > reading.judged.pace" class="soft under" title="At the softest pace sure to get there"
            >pace {{ row.pace.toFixed(1) }}</span
          ></template
        >
      </ElTableColumn>
      <ElTableColumn label="Cut" min-width="66" sortable :sort-method="by((o) => Math.abs(o.cut.cutDegrees))">
        <template #default="{ row }"
          ><span :title="fullnessWords[row.cut.fullnessWord as 'full']"
            ><CutPicture
              class="mini"
              :offset="Math.sign(row.cut.cutDegrees) * row.cut.aimOffset"
              :radius="position.reference!.ballRadius"
              :ball="row.cut.struck"
            />
            {{ degreeWords(Math.abs(row.cut.cutDegrees)) }}</span
          ></template
        >
      </ElTableColumn>
      <ElTableColumn label="Room" width="60" align="right" sortable :sort-method="by(room)">
        <template #header><span title="Least room beside the two ways">Room</span></template>
        <template #default="{ row }">{{ roomWords(row) }}</template>
      </ElTableColumn>
      <ElTableColumn label="Tolerance" prop="toleranceMillimetres" width="60" align="right" sortable>
        <template #header><span title="Across the line of aim at the contact">Tol.</span></template>
        <template #default="{ row }">±{{ lengthWords(row.toleranceMillimetres / 2000, 1) }}</template>
      </ElTableColumn>
    </ElTable>
    <section v-if="off.length" aria-labelledby="off-title">
      <h2 id="off-title">Not on</h2>
      <ul class="off">
        <li v-for="o in off" :key="o.cut.ball" @mouseenter="reading.pointed = o" @mouseleave="reading.pointed = null">
          <BallDot :ball="o.cut.ball" /> <strong>{{ nameOf(o.cut.ball) }}</strong> <span class="soft">{{ whyNotWords(o) }}</span>
        </li>
      </ul>
    </section>
  </div>
</template>

<style scoped>
.who {
  margin-bottom: var(--space-2);
}
/* One line, dot and name. */
.named {
  display: inline-flex;
  gap: var(--space-2);
  align-items: center;
  white-space: nowrap;
}
.kind {
  color: var(--accent);
  margin-left: var(--space-2);
}
.under {
  display: block;
  font-size: var(--type-1);
}
.mini {
  width: 26px;
  height: 14px;
  vertical-align: middle;
}
.list :deep(tbody tr) {
  cursor: pointer;
}
.list :deep(tr.chosen > td:first-child) {
  box-shadow: inset 3px 0 0 var(--accent);
}
h2 {
  margin: var(--space-4) 0 var(--space-2);
  font-size: var(--type-3);
}
.off {
  list-style: none;
  margin: 0;
  padding: 0;
}
.off li {
  padding: var(--space-1) var(--space-1);
}
</style>
