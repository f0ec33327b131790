<script setup lang="ts">
import { ElButton, ElCheckbox, ElTable, ElTableColumn, ElTag } from 'element-plus'
import { computed, ref } from 'vue'
import { reachWords } from '../../domain/words'
import { errorsShown, shareWords, signedWords, valueWords } from '../../lib/estimates'
import { countWords, lengthUnit, sentence } from '../../lib/formats'
import { problemWords } from '../../lib/problemWords'
import FrameProblem from '../../position/FrameProblem.vue'
import { useDraft } from '../../position/draft'
import BetterFound from '../../ui/BetterFound.vue'
import LengthInput from '../../ui/LengthInput.vue'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import LineButton from '../../ui/LineButton.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import SearchStatus from '../../ui/SearchStatus.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useDecide, type Item } from './decide'
import EscapePanel from './EscapePanel.vue'
import RallyBar from './RallyBar.vue'
import { useRally } from './rally'
import {
  alongWords,
  attackFigures,
  attackWords,
  escapeFigures,
  escapeWords,
  goFirstWords,
  hiddenWords,
  leaveWords,
  mirrorWords,
  openingWords,
  safetyFigures,
  safetyWords,
  modelErrorWords,
  towardsWords,
  verdictWords,
  type Escape,
  type Opening,
} from './words'

/** Attack or defend: one list of pots, safeties and escapes, the verdict, and what is left. */
const position = useDraft()
const decide = useDecide()
const rally = useRally()
const hasRally = computed(() => rally.strokes.length > 0)
const passed = ref(0.02)
const side = ref(1)
const what = ref<'passed' | 'cushion'>('passed')
const rivals = computed(() => position.reference!.skills.map((s) => ({ value: s.name ?? '', label: s.name ?? '' })))
const happenings = [
  { value: 'passed', label: 'passed the ball' },
  { value: 'cushion', label: 'met the first cushion' },
] as const
const sides = (e: Escape) => [
  { value: 1, label: what.value === 'passed' ? 'left of its middle, as the white came' : `too far towards ${towardsWords(e, 1)}` },
  { value: -1, label: what.value === 'passed' ? 'right of its middle, as the white came' : `too far towards ${towardsWords(e, -1)}` },
]
const kinds = { pot: 'pot', plant: 'plant', double: 'double', safety: 'safety', escape: 'escape' }
const wordsOf = (i: Item) =>
  i.kind === 'attack' ? attackWords(i.attack) : i.kind === 'safety' ? safetyWords(i.safety) : escapeWords(i.escape)
const figureOf = (i: Item) =>
  i.kind === 'attack'
    ? `goes in ${shareWords(i.attack.choice.chance)}`
    : i.kind === 'safety'
      ? `pot left ${shareWords(i.safety.potLeft)}`
      : `hits ${shareWords(i.escape.hit)}`
/** What is hidden of the ball that a line plays. */
const hiddenOf = (i: Item) => hiddenWords((i.kind === 'attack' ? i.attack : i.kind === 'safety' ? i.safety : i.escape).seen)
</script>

<template>
  <div class="panel fills decide" data-testid="decide-panel">
    <div class="row">
      <label class="row"
        >against <PickOne v-model="decide.rival" :options="rivals" label="The other player’s skill" test-id="rival" width="130px"
      /></label>
      <ElCheckbox v-model="decide.leaveOpen" title="What the current stroke leaves the other player" data-testid="what-it-leaves"
        >What it leaves</ElCheckbox
      >
      <SearchStatus
        :is-searching="decide.isSearching"
        :was-stopped="decide.wasStopped"
        :share="decide.found?.share ?? 0"
        label="Progress of the search"
        :status="decide.status"
        :since="decide.since"
        :looked="decide.found?.looked"
        :wait="decide.wait"
        stop-test-id="stop-decide"
        @stop="decide.stop()"
        @go-on="decide.search()"
      />
    </div>
    <p v-if="decide.found && (decide.isSearching || decide.items.length)" role="status">
      <strong data-testid="verdict">{{ verdictWords(decide.found) }}</strong>
      <span v-if="decide.found.verdict && errorsShown" class="soft" data-testid="model-error">{{
        ` ${modelErrorWords(decide.found)}`
      }}</span>
    </p>
    <div v-if="decide.isBlackBall" class="row">
      <ElButton
        :type="decide.openings ? undefined : 'primary'"
        :disabled="decide.isComparing"
        data-testid="compare-openings"
        @click="decide.compare()"
        >Compare the openings</ElButton
      >
      <SearchStatus
        v-if="decide.isComparing"
        is-searching
        :was-stopped="false"
        :share="decide.openings?.share ?? 0"
        label="Progress of the comparison"
        :status="decide.comparisonStatus"
        :wait="decide.comparisonWait"
        @stop="decide.stopComparing()"
      />
      <span v-else-if="decide.comparisonProblem" class="field-error" role="alert">{{ problemWords(decide.comparisonProblem) }}</span>
      <strong v-else-if="decide.openings?.share === 1" data-testid="go-first">{{ goFirstWords(decide.openings.openings) }}</strong>
      <span v-else class="soft">The re-spotted black, white from the D: on this table, at both players’ skill.</span>
    </div>
    <ElTable v-if="decide.openings?.openings.length" :data="decide.openings.openings" size="small" data-testid="openings">
      <ElTableColumn label="Opening" min-width="140"
        ><template #default="{ row, $index }"
          ><LineButton @click="decide.setOpening(row as Opening)"
            >{{ $index + 1 }}. {{ openingWords(row as Opening, position.reference!.width) }}</LineButton
          ></template
        ></ElTableColumn
      >
      <ElTableColumn label="Safe" width="52" align="right"
        ><template #default="{ row }">{{ shareWords(row.safe) }}</template></ElTableColumn
      >
      <ElTableColumn label="Pot" width="50" align="right"
        ><template #default="{ row }">{{ shareWords(row.potLeft) }}</template></ElTableColumn
      >
      <ElTableColumn label="Double" width="62" align="right"
        ><template #default="{ row }">{{ shareWords(row.doubleLeft) }}</template></ElTableColumn
      >
      <ElTableColumn label="Tight" width="50" align="right"
        ><template #default="{ row }">{{ shareWords(row.tight) }}</template></ElTableColumn
      >
      <ElTableColumn label="Wins" width="80" align="right"
        ><template #default="{ row }">{{
          row.wins.strokes ? shareWords(row.wins) + (row.isLevel ? ', level' : '') : '…'
        }}</template></ElTableColumn
      >
    </ElTable>
    <p v-if="decide.view" class="soft" role="status" data-testid="leave-words">{{ leaveWords(decide.view) }}</p>
    <FrameProblem v-if="decide.problem" :problem="decide.problem" test-id="decide-problem" @again="decide.search()" />
    <p v-else-if="!decide.items.length && decide.isSearching" class="soft" role="status">Weighing pots and safeties …</p>
    <p v-else-if="!decide.items.length && decide.found?.share === 1" class="soft">
      No pot, safety or escape was found from here. Move a ball, or accept the foul that costs least.
    </p>
    <p v-if="decide.items.length" class="row soft">
      <span
        >{{ decide.found?.unit === 'points' ? 'By expected points' : 'By the chance to win the frame' }}, the best first{{
          decide.isSearching ? ', so far' : ''
        }}; click one to set it up.{{ decide.found?.white ? ' Each starts from its best place in the D.' : '' }}</span
      >
      <ErrorsButton /><HandbookLink of="safety" what="what a safety leaves" />
    </p>
    <RallyBar v-if="decide.items.length || hasRally" />
    <BetterFound v-if="decide.better" @show="decide.settle()" />
    <ol
      v-if="decide.items.length"
      class="answers"
      aria-label="Pots, safeties and escapes, the best first"
      @pointerenter="decide.isHeld = true"
      @pointerleave="decide.isHeld = false"
    >
      <li v-for="i in decide.items" :key="i.key" :class="{ used: decide.chosen === i.key }" data-testid="decide-item" :data-kind="i.kind">
        <span class="figure value">{{ valueWords(i.prospect.value, decide.found!.unit) }}</span>
        <LineButton @click="decide.choose(i)"
          >{{ wordsOf(i) }}<span v-if="hiddenOf(i)" class="soft"> – {{ hiddenOf(i) }}</span></LineButton
        >
        <span class="aside"
          ><ElTag size="small" effect="plain" disable-transitions :type="i.kind === 'attack' ? 'primary' : 'info'">{{
            kinds[i.prospect.kind]
          }}</ElTag
          ><span class="figure soft">{{ figureOf(i) }}</span
          ><span v-if="i.prospect.isLevel" class="soft">level</span></span
        >
        <div v-if="decide.chosen === i.key" class="why" data-testid="decide-detail">
          <p v-if="decide.found!.unit !== 'points'" class="soft">
            {{ signedWords(i.prospect.points) }} expected points, yours less theirs.
          </p>
          <template v-if="i.kind === 'attack'">
            <p>{{ attackFigures(i.attack) }}</p>
            <ElButton
              v-if="i.attack.part && position.stroke.pot?.part !== i.attack.part"
              size="small"
              data-testid="err-side"
              @click="decide.err(i.attack)"
              >Aim at the {{ i.attack.part < 0 ? 'thick' : 'thin' }} side of the pocket</ElButton
            >
          </template>
          <p v-else-if="i.kind === 'safety'">{{ safetyFigures(i.safety) }} {{ sentence(reachWords(i.safety.reach)) }}.</p>
          <template v-else>
            <p>{{ escapeFigures(i.escape) }} {{ sentence(reachWords(i.escape.reach)) }}.</p>
            <p v-if="i.escape.mirror" data-testid="mirror-words">{{ mirrorWords(i.escape) }}</p>
            <form class="row" @submit.prevent="decide.correct(i.escape, what, side * passed)">
              <span class="row">Tried? It <OneOf v-model="what" :options="happenings" label="What happened" /></span>
              <LengthInput v-model="passed" :min="0" :max="1" :label="`By how much, ${lengthUnit.name}`" width="60px" test-id="passed" />
              <PickOne v-model="side" :options="sides(i.escape)" label="On which side" width="270px" />
              <ElButton size="small" native-type="submit" data-testid="correct">Correct the aim</ElButton>
              <ElButton v-if="decide.learnt" size="small" data-testid="keep-correction" @click="decide.keepLearnt()"
                >Keep for this table</ElButton
              >
            </form>
            <p v-if="i.escape.kept" class="row" data-testid="kept-correction">
              On this table, by {{ countWords(i.escape.kept.trials, 'trial') }}: {{ alongWords(i.escape, i.escape.kept.along) }}.
              <ElButton size="small" @click="decide.aimKept(i.escape)">Use it</ElButton>
              <ElButton size="small" @click="decide.forget(i.escape)">Delete correction</ElButton>
            </p>
          </template>
        </div>
      </li>
    </ol>
  </div>
  <EscapePanel />
</template>

<style scoped>
.value {
  text-align: right;
  font-weight: 650;
}
.aside {
  display: flex;
  flex-direction: column;
  align-items: flex-end;
  gap: var(--space-1);
  font-size: var(--type-2);
}
.why p {
  margin: var(--space-1) 0 var(--space-2);
}
</style>
