<script setup lang="ts">
import { ElButton, ElCheckbox, ElTable, ElTableColumn } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useGoal } from '../../position/goal'
import { useShot } from '../../position/shot'
import FigureInput from '../../ui/FigureInput.vue'
import LineButton from '../../ui/LineButton.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import { fanWords, ghostGapWords, lineFirstWords, lineWhiteWords } from './fanWords'
import { useJudgements, type FanKind, type FanLine } from './judgements'

/** Lines of the stroke with one knob turned: which knob, in what steps, and what each does, in a table. */
const judgements = useJudgements()
const position = useDraft()
const goals = useGoal()
const answer = useShot()
const kinds = computed(() => [
  ...(position.stroke.pot ? [{ value: 'routes' as FanKind, label: 'Routes', testId: 'if-routes' }] : []),
  { value: 'paces' as FanKind, label: 'Pace', testId: 'if-paces' },
  { value: 'heights' as FanKind, label: 'Height', testId: 'if-heights' },
  { value: 'sides' as FanKind, label: 'Side', testId: 'if-sides' },
  { value: 'butts' as FanKind, label: 'Butt', testId: 'if-butts', title: 'Level, over a rail, dug down' },
  { value: 'aims' as FanKind, label: 'Aim', testId: 'if-aims' },
  { value: 'errors' as FanKind, label: 'Errors', testId: 'if-errors', title: 'Half a degree, half a step of pace, a touch of side' },
])
const kind = computed({ get: () => judgements.fanKind ?? 'heights', set: (to) => (judgements.fanKind = to) })
// Something to look at from the first.
if (!judgements.fanKind) judgements.fanKind = position.stroke.pot ? 'heights' : 'errors'

/** The knob of each kind: its setting, its limits, and steps that can be chosen. */
const knob = computed(() => {
  const { pace, height, side } = position.stroke
  const { paceMin, paceMax, tipLimit, elevationMax } = position.reference!
  const tips = [0.05, 0.1, 0.25, 0.5, 1]
  return {
    paces: { at: pace, least: paceMin, most: paceMax, steps: [0.1, 0.25, 0.5, 1, 2], usual: 0.5, digits: 1 },
    heights: { at: height, least: -tipLimit, most: tipLimit, steps: tips, usual: 0.5, digits: 2 },
    sides: { at: side, least: -tipLimit, most: tipLimit, steps: tips, usual: 0.5, digits: 2 },
    butts: { at: answer.shot?.strike.elevation ?? 0, least: 0, most: elevationMax, steps: [1, 3, 5, 10], usual: 5, digits: 0 },
    aims: { at: 0, least: -20, most: 20, steps: [0.05, 0.1, 0.25, 0.5, 1], usual: 0.5, digits: 2 },
    routes: null,
    errors: null,
  }[kind.value]
})
const step = ref(0.5)
const range = computed(() => judgements.fanRange)
const shownRange = computed(() => {
  const k = knob.value!
  return range.value ?? { from: Math.max(k.least, k.at - 2 * k.usual), to: Math.min(k.most, k.at + 2 * k.usual), step: k.usual }
})
/** Never so many that the fan is refused. */
const mostLines = 41
function set(change: Partial<{ from: number; to: number; step: number }>) {
  const next = { ...shownRange.value, ...change }
  if (next.to < next.from) [next.from, next.to] = [next.to, next.from]
  next.step = Math.max(next.step, Math.ceil(((next.to - next.from) / (mostLines - 1)) * 1000) / 1000)
  judgements.fanRange = next
}
function stepBy(to: number) {
  const k = knob.value!
  set({ step: to, from: Math.max(k.least, k.at - 2 * to), to: Math.min(k.most, k.at + 2 * to) })
}
watch(kind, () => (step.value = knob.value?.usual ?? 0.5), { immediate: true })

const met = computed(() => {
  const hit = answer.shot?.simulation.events.find((e) => e.kind === 'ball' && (e.ball === 'white' || e.other === 'white'))
  return hit ? (hit.ball === 'white' ? hit.other! : hit.ball) : null
})
const isFine = computed(() => !!range.value && range.value.step < 0.25)
const rows = computed(() =>
  judgements.fan.map((line) => ({
    line,
    key: line.key,
    name: fanWords(kind.value, line, position.stroke, isFine.value),
    first: lineFirstWords(line, met.value) + (line.doesGoal ? ', does it' : ''),
    white: lineWhiteWords(line.end),
    gap: judgements.sameAim ? ghostGapWords(line) : '',
  })),
)
/** Sets the stroke up as in this line. */
function use(line: FanLine) {
  const { side, height, pace, elevation, aim } = line
  position.setStroke({
    side,
    height,
    pace,
    elevation: kind.value === 'butts' ? elevation : position.stroke.elevation,
    ...(!position.stroke.pot || position.stroke.free || ['aims', 'errors'].includes(kind.value) || judgements.sameAim
      ? { aim, free: !!position.stroke.pot || position.stroke.free }
      : {}),
  })
  position.commit()
}
const classOf = ({ row }: { row: { line: FanLine } }) => (row.line.potted === false || row.line.whitePocket ? 'bad' : '')
</script>

<template>
  <OneOf v-model="kind" :options="kinds" label="What is changed" />
  <div v-if="knob" class="row">
    <label class="row"
      >steps
      <PickOne
        :model-value="shownRange.step"
        :options="[...new Set([...knob.steps, shownRange.step])].sort((a, b) => a - b).map((v) => ({ value: v, label: String(v) }))"
        label="Step"
        width="82px"
        test-id="fan-step"
        @picked="stepBy($event)"
    /></label>
    <label class="row"
      >from
      <FigureInput
        :model-value="shownRange.from"
        :min="knob.least"
        :max="knob.most"
        :digits="knob.digits"
        label="From"
        width="56px"
        test-id="fan-from"
        @update:model-value="set({ from: $event })"
    /></label>
    <label class="row"
      >to
      <FigureInput
        :model-value="shownRange.to"
        :min="knob.least"
        :max="knob.most"
        :digits="knob.digits"
        label="To"
        width="56px"
        test-id="fan-to"
        @update:model-value="set({ to: $event })"
    /></label>
    <ElButton v-if="range" size="small" @click="judgements.fanRange = null">Usual steps</ElButton>
  </div>
  <div class="row">
    <ElCheckbox v-if="position.stroke.pot && knob && kind !== 'aims'" v-model="judgements.sameAim" data-testid="same-aim"
      >same aim</ElCheckbox
    >
    <ElCheckbox v-if="goals.entry" v-model="judgements.marksGoal" data-testid="marks-goal"
      >mark those that do what Put it there asks</ElCheckbox
    >
  </div>
  <p v-if="judgements.fanRefusal" class="field-error" role="alert">{{ sentence(judgements.fanRefusal) }}</p>
  <ElTable
    v-else-if="rows.length"
    :data="rows"
    row-key="key"
    size="small"
    :row-class-name="classOf"
    :class="{ stale: judgements.isFanStale }"
    data-testid="fan-table"
    @cell-mouse-enter="(row) => (judgements.pointedLine = row.key)"
    @cell-mouse-leave="judgements.pointedLine = null"
  >
    <ElTableColumn label="With" width="124">
      <template #default="{ row }"
        ><LineButton
          title="Set it up so"
          @click="use(row.line)"
          @focusin="judgements.pointedLine = row.key"
          @focusout="judgements.pointedLine = null"
          >{{ row.name }}</LineButton
        ></template
      >
    </ElTableColumn>
    <ElTableColumn :label="position.stroke.pot ? 'The pot' : 'It meets'" min-width="110">
      <template #default="{ row }"
        >{{ sentence(row.first) }}<span v-if="row.gap" class="soft"> ({{ row.gap }})</span></template
      >
    </ElTableColumn>
    <ElTableColumn label="The white" min-width="150">
      <template #default="{ row }">{{ sentence(row.white) }}</template>
    </ElTableColumn>
  </ElTable>
  <p v-else class="soft">No line: with none of these settings is there an aim that pots the ball.</p>
</template>

<style scoped>
:deep(.bad td) {
  color: var(--danger-text, inherit);
}
</style>
