<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { nameOf, pocketName, theBall } from '../../domain/balls'
import { paceWords, sentence } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { usePractise } from '../../position/practise'
import LengthInput from '../../ui/LengthInput.vue'
import FigureInput from '../../ui/FigureInput.vue'
import PickOne from '../../ui/PickOne.vue'
import { useRoutines, type Step } from './routines'

/** Makes what lies on the table a routine: sensible as it stands, so that one press keeps it. */
const practise = usePractise()
const routines = useRoutines()
const router = useRouter()
const { attempt, busy } = useAttempt()
const name = ref('')
const isPotted = ref(true)
const stops = ref(true)
const radius = ref(0.15)
const attempts = ref(10)
const bothSides = ref(true)
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
    series.value = 'one'
  },
  { immediate: true },
)
const pot = computed(() => practise.asked?.stroke.pot)
/** What else is asked: each may be left out again. */
const more = ref<Step['demands']>([])
const kinds = [
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
      (!['meetsFirst', 'runsInto'].includes(k.value) || others.value.length > 0) &&
      (k.value !== 'gate' || others.value.length > 1),
  ),
)
function add(kind: MoreKind) {
  const [ball, other] = others.value
  const own: Partial<Record<MoreKind, object>> = {
    meetsFirst: { ball },
    runsInto: { ball },
    gate: { ball, other },
    whiteOnCushion: { within: 0.1 },
    ballOnCushion: { within: 0.1 },
    backOnTip: { within: 0.03 },
  }
  more.value = [...more.value, { kind, ...own[kind] }]
}
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
          <LengthInput
            v-if="m.within"
            :model-value="m.within"
            :min="0.001"
            :max="1"
            label="Within"
            @update:model-value="m.within = $event"
          />
          <ElButton text size="small" :aria-label="`Do not ask: ${labelOf(m.kind)}`" @click="more.splice(i, 1)">Leave out</ElButton>
        </div>
        <PickOne
          v-if="canAsk.length"
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
.rungs {
  margin: 0;
  padding-left: 1.6em;
}
</style>
