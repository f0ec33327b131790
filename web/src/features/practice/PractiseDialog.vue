<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import type { BallEntry } from '../../api/client'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { nearestCushion } from '../../domain/cushions'
import { cushionNames } from '../../domain/words'
import { paceWords, sentence } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { useDraft } from '../../position/draft'
import { usePractise } from '../../position/practise'
import LengthInput from '../../ui/LengthInput.vue'
import FigureInput from '../../ui/FigureInput.vue'
import PickOne from '../../ui/PickOne.vue'
import { useRoutines, type Step } from './routines'
import StepPlan from './StepPlan.vue'

/** Makes what lies on the table a routine: sensible as it stands, so that one press keeps it. */
const practise = usePractise()
const routines = useRoutines()
const router = useRouter()
const position = useDraft()
const { attempt, busy } = useAttempt()
const name = ref('')
const isPotted = ref(true)
const stops = ref(true)
const radius = ref(0.15)
const attempts = ref(10)
const bothSides = ref(true)
const pot = computed(() => practise.asked?.stroke.pot)
/** What else is asked: each may be left out again. */
const more = ref<Step['demands']>([])
const kinds = [
  { value: 'whiteIn', label: 'the white stops in an area' },
  { value: 'ballIn', label: 'the ball stops in an area' },
  { value: 'meetsFirst', label: 'the white meets first' },
  { value: 'runsInto', label: 'the white runs into' },
  { value: 'gate', label: 'the white passes between' },
  { value: 'noCushion', label: 'the white meets no cushion' },
  { value: 'whiteOnCushion', label: 'the white stops near a cushion' },
  { value: 'ballOnCushion', label: 'the ball stops near a cushion' },
  { value: 'backOnTip', label: 'the white comes back on the tip' },
  { value: 'noSide', label: 'no unmeant side' },
] as const
type MoreKind = (typeof kinds)[number]['value']
const others = computed(() => (practise.asked?.balls ?? []).map((b) => b.id).filter((id) => id !== 'white' && id !== pot.value?.ball))
const otherOptions = computed(() => others.value.map((id) => ({ value: id, label: nameOf(id) })))
const canAsk = computed(() =>
  kinds.filter(
    (k) =>
      !more.value.some((m) => m.kind === k.value) &&
      (k.value !== 'whiteIn' || !(stops.value && practise.asked?.stop)) &&
      (!['meetsFirst', 'runsInto'].includes(k.value) || others.value.length > 0) &&
      (k.value !== 'gate' || others.value.length > 1),
  ),
)
function add(kind: MoreKind) {
  const [ball, other] = others.value
  const middle = { x: position.reference!.length / 2, y: position.reference!.width / 2, radius: 0.15 }
  const own: Partial<Record<MoreKind, object>> = {
    whiteIn: { area: middle },
    ballIn: { area: middle },
    meetsFirst: { ball },
    runsInto: { ball },
    gate: { ball, other },
    whiteOnCushion: { within: 0.1 },
    ballOnCushion: { within: 0.1 },
    backOnTip: { within: 0.03 },
  }
  more.value = [...more.value, { kind, ...own[kind] }]
  pointing.value = points[kind] ? more.value.length - 1 : null
}
/** What a touch of the plan says of a demand. */
const points: Partial<Record<string, string>> = {
  whiteIn: 'Touch where the middle of the area is.',
  ballIn: 'Touch where the middle of the area is.',
  meetsFirst: 'Touch the ball.',
  runsInto: 'Touch the ball.',
  gate: 'Touch the two balls of the gate.',
  whiteOnCushion: 'Touch the cushion.',
  ballOnCushion: 'Touch the cushion.',
}
/** The demand that the plan is touched for. */
const pointing = ref<number | null>(null)
const pointed = computed(() => (pointing.value === null ? undefined : more.value[pointing.value]))
function point(at: { x: number; y: number }, isLifted: boolean) {
  const asked = pointed.value
  if (!asked) return
  if (asked.area) asked.area = { ...asked.area, x: Math.round(at.x * 1000) / 1000, y: Math.round(at.y * 1000) / 1000 }
  else if (asked.kind.endsWith('OnCushion')) asked.cushion = nearestCushion(at, position.reference!)
  else if (isLifted) {
    const away = (b: BallEntry) => Math.hypot(b.x - at.x, b.y - at.y)
    const nearest = practise.asked!.balls.filter((b) => others.value.includes(b.id)).sort((a, b) => away(a) - away(b))[0]?.id
    // Of a gate the post that was touched longer ago gives way.
    if (nearest && nearest !== asked.ball && nearest !== asked.other) {
      if (asked.kind === 'gate') asked.ball = asked.other
      asked[asked.kind === 'gate' ? 'other' : 'ball'] = nearest
    }
  }
}
function leaveOut(i: number) {
  more.value.splice(i, 1)
  pointing.value = null
}
/** The balls that are asked about, as rings on the plan. */
const rings = computed(() =>
  more.value.flatMap((m) =>
    [m.ball, m.other].flatMap((id) => {
      const ball = practise.asked?.balls.find((b) => b.id === id)
      return ball ? [{ key: m.kind + id, x: ball.x, y: ball.y, radius: 0.05 }] : []
    }),
  ),
)
const preview = computed<Step>(() => ({ label: '', balls: practise.asked!.balls, stroke: practise.asked!.stroke, demands: demands.value }))
const labelOf = (kind: string) => kinds.find((k) => k.value === kind)?.label ?? kind
/** One layout as several steps: the stroke with one thing changed from step to step. */
const series = ref<'one' | 'paces' | 'sides'>('one')
const allSeries = computed(() => [
  { value: 'one' as const, label: 'one step' },
  { value: 'paces' as const, label: 'falling paces' },
  ...(pot.value ? [{ value: 'sides' as const, label: 'plain, either side in turn' }] : []),
])
const paceStep = 0.5
const touch = 0.25
const steps = computed<Step[]>(() => {
  const { balls, stroke } = practise.asked!
  const made = (label: string, change: object) => ({ label, balls, stroke: { ...stroke, ...change }, demands: demands.value })
  if (series.value === 'paces')
    return [0, 1, 2, 3]
      .map((i) => Math.round((stroke.pace - i * paceStep) * 100) / 100)
      .filter((pace) => pace >= 1)
      .map((pace) => made(paceWords(pace), { pace }))
  if (series.value === 'sides')
    return [0, touch, -touch].map((side) => made(side ? `a touch of ${side > 0 ? 'right' : 'left'}` : 'plain', { side }))
  return [made('as laid', {})]
})
const demands = computed<Step['demands']>(() => [
  ...more.value,
  ...(isPotted.value && pot.value ? [{ kind: 'pot' as const }] : []),
  ...(stops.value && practise.asked?.stop
    ? [{ kind: 'whiteIn' as const, area: { x: practise.asked.stop.x, y: practise.asked.stop.y, radius: radius.value } }]
    : []),
])
// Below all that it sets: it runs at once.
watch(
  () => practise.asked,
  (asked) => {
    if (!asked) return
    name.value = asked.name.slice(0, 120)
    isPotted.value = !!asked.stroke.pot && !asked.stroke.free
    stops.value = !!asked.stop
    radius.value = 0.15
    attempts.value = 10
    bothSides.value = true
    more.value = []
    pointing.value = null
    series.value = 'one'
  },
  { immediate: true },
)
const keep = () =>
  attempt(async () => {
    const { balls } = practise.asked!
    const made = await routines.create({
      name: name.value.trim(),
      family: 'own',
      task: '',
      why: '',
      lookFor: '',
      steps: practise.asked!.steps?.map((s) => ({ ...s, balls })) ?? steps.value,
      order: practise.asked!.steps ? 'ladder' : series.value === 'one' ? 'steps' : 'rounds',
      attempts: attempts.value,
      bothSides: bothSides.value,
      knob: practise.asked!.knob ?? null,
    })
    practise.leave()
    await router.push(`/practice/routines/${made.id}`)
  }, 'Could not keep the routine')
</script>

<template>
  <ElDialog :model-value="!!practise.asked" title="Practise this" width="min(480px, 94vw)" @close="practise.leave()">
    <div v-if="practise.asked" class="fields">
      <ElInput v-model="name" :maxlength="120" aria-label="Name of the routine" data-testid="routine-name" />
      <template v-if="practise.asked.steps">
        <strong>Rungs</strong>
        <ol class="rungs">
          <li v-for="s in practise.asked.steps" :key="s.label + s.stroke?.height + s.stroke?.pace">{{ sentence(s.label) }}</li>
        </ol>
        <p class="soft">The next rung comes when one is done, the one before when it is not.</p>
      </template>
      <template v-else>
        <strong>Done is</strong>
        <ElCheckbox v-if="pot" v-model="isPotted">{{ theBall(pot.ball) }} into the {{ pocketName(pot.pocket) }} pocket</ElCheckbox>
        <div v-if="practise.asked.stop" class="row">
          <ElCheckbox v-model="stops">the white stops where it is drawn, within</ElCheckbox>
          <LengthInput v-model="radius" :min="0.03" :max="1" label="How near" />
        </div>
        <div v-for="(m, i) in more" :key="m.kind" class="row">
          <span>{{ labelOf(m.kind) }}</span>
          <PickOne v-if="m.ball" :model-value="m.ball" :options="otherOptions" label="Which ball" width="110px" @picked="m.ball = $event" />
          <template v-if="m.other"
            ><span>and</span
            ><PickOne :model-value="m.other" :options="otherOptions" label="The other ball" width="110px" @picked="m.other = $event"
          /></template>
          <span v-if="m.kind.endsWith('OnCushion')" class="soft">{{
            m.cushion ? `${cushionNames[m.cushion]} cushion` : 'any cushion'
          }}</span>
          <LengthInput
            v-if="m.area"
            :model-value="m.area.radius!"
            :min="0.03"
            :max="1"
            label="Radius of the area"
            @update:model-value="m.area = { ...m.area, radius: $event }"
          />
          <ElButton
            v-if="points[m.kind]"
            size="small"
            :type="pointing === i ? 'primary' : undefined"
            :aria-pressed="pointing === i"
            data-testid="point-at"
            @click="pointing = pointing === i ? null : i"
            >Point</ElButton
          >
          <LengthInput
            v-if="m.within"
            :model-value="m.within"
            :min="0.001"
            :max="1"
            label="Within"
            @update:model-value="m.within = $event"
          />
          <ElButton text size="small" :aria-label="`Do not ask: ${labelOf(m.kind)}`" @click="leaveOut(i)">Leave out</ElButton>
        </div>
        <div v-if="more.some((m) => points[m.kind])" class="plan">
          <p class="soft" role="status" data-testid="point-what">{{ pointed ? points[pointed.kind] : 'What is asked, on the plan.' }}</p>
          <StepPlan :step="preview" :rings="rings" :can-point="!!pointed" @point="point" />
        </div>
        <PickOne
          v-if="canAsk.length"
          :key="more.length"
          model-value=""
          :options="[{ value: '', label: 'also ask …' }, ...canAsk]"
          label="Also ask"
          test-id="also-ask"
          width="260px"
          @picked="$event && add($event as MoreKind)"
        />
        <label class="row">Steps <PickOne v-model="series" :options="allSeries" label="Steps" test-id="series" width="220px" /></label>
        <p v-if="!demands.length" class="field-error" role="alert">Ask for something: a pot, or where the white stops.</p>
      </template>
      <label class="row"
        ><FigureInput v-model="attempts" :min="1" :max="200" :digits="0" label="Attempts" /> attempts
        <ElCheckbox v-model="bothSides">from both sides of the table</ElCheckbox></label
      >
    </div>
    <template #footer>
      <ElButton @click="practise.leave()">Cancel</ElButton>
      <ElButton
        type="primary"
        :disabled="busy || (!demands.length && !practise.asked?.steps) || !name.trim()"
        data-testid="keep-routine"
        @click="keep"
        >Keep it as a routine</ElButton
      >
    </template>
  </ElDialog>
</template>

<style scoped>
.fields {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  align-items: flex-start;
}
.fields .el-input {
  width: 100%;
}
p {
  margin: 0;
}
.plan {
  width: 100%;
}
.rungs {
  margin: 0;
  padding-left: 1.6em;
}
</style>
