<script setup lang="ts">
import { ElButton, ElCheckbox, ElTable, ElTableColumn } from 'element-plus'
import { computed } from 'vue'
import type { Way } from '../../api/client'
import { nameOf, pocketName } from '../../domain/balls'
import { openingWords, reachWords, strokeWords } from '../../domain/words'
import { miscueWords, levelWords, shareWords } from '../../lib/estimates'
import { lengthWords, sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import BetterFound from '../../ui/BetterFound.vue'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import PaceInput from '../../ui/PaceInput.vue'
import LineButton from '../../ui/LineButton.vue'
import OneOf from '../../ui/OneOf.vue'
import ProblemText from '../../ui/ProblemText.vue'
import SearchStatus from '../../ui/SearchStatus.vue'
import { useGoal, type Goal } from '../../position/goal'
import GoalFields from './GoalFields.vue'
import { usualHardest, useWays } from './ways'
import { intoWords, outcomeOf, rankWords, sensitivityWords, wayWords } from './words'

/** Put it there: where the white should stop or what it should run into, and the ways to do it with this pot. */
const position = useDraft()
const goals = useGoal()
const ways = useWays()
const goal = computed(() => goals.goal)
const pot = computed(() => position.stroke.pot)
const best = computed(() => ways.ways?.[0] ?? null)
const letter = (way: Way) => ['A', 'B'][ways.beside.indexOf(ways.keyOf(way))] ?? ''
const potName = (w: Way) => (w.stroke.pot ? `${nameOf(w.stroke.pot.ball)}, ${pocketName(w.stroke.pot.pocket)} pocket` : '')
const change = (of: Goal, to: Partial<Goal>) => Object.assign(of, to)
const joins: { value: 'and' | 'or'; label: string }[] = [
  { value: 'and', label: 'and also' },
  { value: 'or', label: 'or else' },
]

/** Two are laid beside one another, and take the room of the list. */
const isBeside = computed(() => !!ways.a && !!ways.b && !ways.problem)

/** What they are told apart by. */
const rows = computed(() => {
  const [a, b] = [ways.a, ways.b]
  if (!a || !b) return []
  const row = (label: string, of: (w: Way) => string) => ({ label, a: of(a), b: of(b) })
  return [
    row('Stroke', (w) => strokeWords(w.stroke)),
    row('Cushions', (w) => String(w.cushions.length)),
    row('Pot and position', (w) => shareWords(w.both)),
    row('Pot', (w) => shareWords(w.pot)),
    row('In-off, kiss', (w) => `${shareWords(w.inOff)}, ${shareWords(w.kiss)}${miscueWords(w.miscue)}`),
    ...(a.opens || b.opens ? [row('The pack', (w) => (w.opens ? `opens ${openingWords(w.opens)}` : 'is left'))] : []),
    row('If long', (w) => outcomeOf(w.long, w.exact)),
    row('If short', (w) => outcomeOf(w.short, w.exact)),
    row('A pace error moves it', (w) => lengthWords(w.sensitivity.pace ?? 0)),
    row('A height error', (w) => lengthWords(w.sensitivity.height ?? 0)),
    row('Reach', (w) => reachWords(w.reach)),
  ]
})
const differs = ({ row }: { row: { a: string; b: string } }) => (row.a !== row.b ? 'differs' : '')
</script>

<template>
  <div class="ways-panel" data-testid="ways">
    <GoalFields :goal="goal" test-id="goal" @change="change(goal, $event)" />
    <template v-if="goal.second">
      <div class="row">
        <OneOf v-model="goal.join" :options="joins" label="Both, or either" />
        <ElButton size="small" @click="goals.dropSecond()">Only the first</ElButton>
      </div>
      <GoalFields :goal="goal.second" test-id="second" @change="change(goal.second, $event)" />
    </template>
    <div class="row">
      <ElButton v-if="!goal.second" size="small" data-testid="add-goal" @click="goals.addSecond()">And, or …</ElButton>
      <ElCheckbox v-model="ways.anyPot" data-testid="any-pot" title="The likeliest other pots too, that leave the goal as it is"
        >any pot</ElCheckbox
      >
      <ElCheckbox v-model="ways.plainOnly">no side</ElCheckbox>
      <ElCheckbox v-model="ways.followOnly" data-testid="follow-only">no screw</ElCheckbox>
      <ElCheckbox v-if="!goal.second || goal.join === 'and'" v-model="goal.noCushion" data-testid="no-cushion">no cushion</ElCheckbox>
      <label class="row"
        >pace up to
        <PaceInput
          :model-value="ways.hardest"
          :min="1.5"
          :max="usualHardest"
          label="Pace up to"
          test-id="hardest"
          @update:model-value="ways.hardest = $event"
      /></label>
      <ErrorsButton />
    </div>
    <SearchStatus
      :is-searching="ways.isSearching"
      :was-stopped="ways.wasStopped"
      :share="ways.share"
      label="Progress of the search"
      :status="ways.status"
      :since="ways.since"
      :wait="ways.wait"
      stop-test-id="stop-search"
      @stop="ways.stop()"
      @go-on="ways.search()"
    />
    <ProblemText v-if="ways.problem" :problem="ways.problem" @again="ways.search()" />
    <BetterFound v-if="ways.better" @show="ways.settle()" />
    <p v-if="!pot" class="soft">Choose a ball and a pocket in Set up first.</p>
    <template v-else-if="!goals.entry" />
    <p v-else-if="ways.ways && !ways.ways.length && !ways.isSearching" class="soft">This pot is not possible from here. Choose another.</p>
    <template v-else-if="isBeside && ways.a && ways.b">
      <div class="row">
        <ElButton size="small" @click="ways.beside = []">Back to all</ElButton>
        <template v-for="(w, i) in [ways.a, ways.b]" :key="i">
          <ElButton size="small" @click="ways.use(w)">Set up {{ ['A', 'B'][i] }}</ElButton>
          <ElButton size="small" @click="ways.practiseWay(w)">Practise {{ ['A', 'B'][i] }}</ElButton>
        </template>
      </div>
      <p v-if="ways.isHeldOver" class="soft">Judged for the goal before. “Back to all” shows the ways to the present one.</p>
      <ElTable :data="rows" size="small" :row-class-name="differs" data-testid="beside">
        <ElTableColumn prop="label" label="Of each" width="130" class-name="soft" />
        <ElTableColumn prop="a" label="A" />
        <ElTableColumn prop="b" label="B" />
      </ElTable>
    </template>
    <ol
      v-else-if="ways.ways || ways.asSet"
      class="answers"
      aria-label="Ways, the likeliest first"
      @pointerenter="ways.isHeld = true"
      @pointerleave="ways.isHeld = false"
    >
      <li v-if="ways.asSet" class="as-set soft">
        <span class="figure chance">{{ shareWords(ways.asSet.both) }}</span>
        <span>as set up now{{ ways.asSet.isMet ? '' : `: ${lengthWords(ways.asSet.off)} off` }}</span>
      </li>
      <li
        v-for="(w, i) in ways.ways ?? []"
        :key="ways.keyOf(w)"
        :class="{ used: ways.isUsed(w) }"
        data-testid="way"
        @mouseenter="ways.pointed = ways.keyOf(w)"
        @mouseleave="ways.pointed = null"
        @focusin="ways.pointed = ways.keyOf(w)"
        @focusout="ways.pointed = null"
      >
        <span class="figure chance"
          ><strong>{{ shareWords(w.both) }}</strong></span
        >
        <LineButton @click="ways.use(w)"
          ><template v-if="ways.anyPot">{{ potName(w) }}: </template>{{ wayWords(w)
          }}<span v-if="w.isLevel" class="soft"> – {{ levelWords }}</span
          ><em v-if="!w.isMet" class="danger"> – nearest there is, {{ lengthWords(w.off) }} off</em></LineButton
        >
        <ElButton
          size="small"
          class="lay"
          :type="letter(w) ? 'primary' : undefined"
          :aria-pressed="!!letter(w)"
          :aria-label="`${letter(w) || 'A | B'}: lay way ${i + 1} beside another`"
          @click="ways.lay(w)"
          >{{ letter(w) || 'A | B' }}</ElButton
        >
        <p v-if="ways.isUsed(w) && best" class="why">
          {{ sentence(rankWords(w, best)) }}. {{ sentence(sensitivityWords(w)) }}. Long: {{ outcomeOf(w.long, w.exact) }}. Short:
          {{ outcomeOf(w.short, w.exact) }}. In-off {{ shareWords(w.inOff) }}, kiss {{ shareWords(w.kiss) }}{{ miscueWords(w.miscue) }}.
          <template v-if="w.into">{{ sentence(intoWords(w.into)) }}. </template>
          <template v-if="w.opens">{{ sentence(`opens ${openingWords(w.opens)}`) }}. </template>
          {{ sentence(reachWords(w.reach)) }}.
        </p>
      </li>
    </ol>
    <p v-else-if="ways.isSearching" class="soft" role="status">Searching …</p>
    <p v-else-if="ways.wasStopped" class="soft" role="status">Stopped before a way was found.</p>
  </div>
</template>

<style scoped>
.ways-panel {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
}
.chance {
  text-align: right;
}
.ways-panel :deep(.differs td) {
  font-weight: 600;
}
</style>
