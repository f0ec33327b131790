<script setup lang="ts">
import { ElButton, ElInput, ElTable, ElTableColumn } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRouter } from 'vue-router'
import { ask, client, Problem, type Schemas } from '../../api/client'
import { countWords, figureWords, lengthWords, percentWords, sentence } from '../../lib/formats'
import { useNotices } from '../../lib/notices'
import { problemWords } from '../../lib/problemWords'
import { useAttempt } from '../../lib/useAttempt'
import { skillWords } from '../../domain/words'
import { useClub } from '../../position/club'
import { onSide } from '../../domain/mirror'
import { useDraft } from '../../position/draft'
import { useView } from '../../position/view'
import { usePlayer } from '../../position/player'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import { useRoutines, type RoutineResult } from './routines'
import { useSession } from './session'
import RungBar from './RungBar.vue'
import StepPlan from './StepPlan.vue'
import { amountWords, orderWords, ruleWords, strokeWords, levelWords, variantWords, windowWords } from './words'

/** One routine: why, what, how it lies, what a player of this skill makes of it; and to play it. */
const props = defineProps<{ id: string }>()
const routines = useRoutines()
const sessions = useSession()
const players = usePlayer()
const club = useClub()
const position = useDraft()
const notices = useNotices()
const view = useView()
const router = useRouter()
const { attempt, busy } = useAttempt()
const found = shallowRef<RoutineResult | null>(null)
const trouble = ref('')
const step = ref(0)
const isMirrored = ref(false)
watch(
  () => props.id,
  async (id) => {
    found.value = null
    trouble.value = ''
    step.value = 0
    try {
      found.value = await routines.read(id)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      trouble.value = problemWords(e)
    }
  },
  { immediate: true },
)
const routine = computed(() => found.value?.routine)
const laid = computed(() => {
  const as = routine.value?.steps[step.value]
  return as && onSide(as, isMirrored.value, position.reference)
})
const isRun = computed(() => routine.value?.steps.every((s) => s.demands.some((d) => d.kind === 'score')) ?? false)
const stepChoices = computed(() => (routine.value?.steps ?? []).map((s, i) => ({ value: i, label: s.label || `${i + 1}` })))
const sides = [
  { value: 0, label: 'as laid' },
  { value: 1, label: 'other side' },
]

// ---- What a player of this skill makes of it --------------------------------------------------------------------
const outlook = shallowRef<Schemas['StepOutlook'][] | null>(null)
const notWorked = ref('')
watch(
  [routine, isMirrored, () => JSON.stringify(players.player), () => JSON.stringify(club.conditions)],
  async ([r]) => {
    outlook.value = null
    notWorked.value = ''
    if (!r || isRun.value) return
    const asked = JSON.stringify([props.id, isMirrored.value, players.player])
    const steps = r.steps.map((s) => onSide(s, isMirrored.value, position.reference))
    try {
      const answer = await ask(
        client.POST('/api/routines/outlook', {
          body: { steps, knob: r.knob ?? null, player: players.player, conditions: club.conditions },
        }),
      )
      if (asked === JSON.stringify([props.id, isMirrored.value, players.player])) outlook.value = answer
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      notWorked.value = problemWords(e)
    }
  },
  { immediate: true },
)
/** On the whole scale of the knob. */
function rungOf(from: number, to: number, stroke: Schemas['MeantStroke']) {
  const { tipLimit, paceMin, paceMax } = position.reference!
  return routine.value!.knob === 'pace'
    ? { from, to, least: paceMin, most: paceMax, at: stroke.pace }
    : { from, to, least: -tipLimit, most: tipLimit, at: stroke.height }
}
const rows = computed(() =>
  (routine.value?.steps ?? []).map((s, i) => {
    const o = outlook.value?.[i]
    return {
      label: s.label || `${i + 1}`,
      stroke: strokeWords(s.stroke!),
      window: o?.from != null && o.to != null ? windowWords(routine.value!.knob!, o.from, o.to) : '',
      rung: o?.from != null && o.to != null ? rungOf(o.from, o.to, s.stroke!) : null,
      done: o?.done ? percentWords(o.done.value) : '…',
      spread: o?.along != null ? `± ${lengthWords(o.along)} along, ± ${lengthWords(o.across!)} across` : '',
    }
  }),
)

// ---- Playing, keeping, changing ---------------------------------------------------------------------------------
const play = () =>
  attempt(async () => {
    const now = { routine: props.id, step: step.value, mirrored: isMirrored.value, stroke: null, group: '' }
    if (await sessions.resume()) sessions.setTask(now)
    else sessions.begin(now)
    await router.push(`/practice/sessions/${sessions.session!.id}`)
  }, 'Could not start it')

const variants = shallowRef<Schemas['VariantsResult'] | null>(null)
const easier = () =>
  attempt(async () => {
    variants.value = await ask(
      client.POST('/api/routines/variants', { body: { steps: [laid.value!], player: players.player, conditions: club.conditions } }),
    )
  }, 'No easier or harder version')
watch([step, isMirrored, () => props.id], () => (variants.value = null))
const keep = (v: Schemas['VariantResult'], words: string) =>
  attempt(async () => {
    const made = await routines.create({
      ...routine.value!,
      name: `${routine.value!.name}, ${words}`.slice(0, 120),
      steps: [v.step],
      knob: null,
    })
    await router.push(`/practice/routines/${made.id}`)
  }, 'Could not keep it')

const draft = ref<{ name: string; task: string; lookFor: string; attempts: number; bothSides: boolean } | null>(null)
function edit() {
  const { name, task, lookFor, attempts, bothSides } = routine.value!
  draft.value = { name, task: task ?? '', lookFor: lookFor ?? '', attempts: attempts!, bothSides: bothSides! }
}
const save = () =>
  attempt(async () => {
    found.value = await routines.save(found.value!, { ...routine.value!, ...draft.value! })
    draft.value = null
  }, 'Could not save it')
const remove = () =>
  attempt(async () => {
    const { id, routine } = found.value!
    await routines.putAway(found.value!)
    await router.push('/practice')
    notices.show({
      kind: 'info',
      text: `“${routine.name}” is archived. Its attempts stay.`,
      action: { label: 'Restore it', run: () => void attempt(() => routines.restore(id), 'Could not restore it') },
    })
  }, 'Could not archive it')
const yesNo = [
  { value: 1, label: 'both sides' },
  { value: 0, label: 'one side' },
]

function setUp() {
  const { balls, stroke } = laid.value!
  const before = position.draft.name
  // The step first: what is opened is gone to there.
  view.go('shot')
  const back = position.begin(routine.value!.name, {
    balls: balls.map((b) => ({ ...b })),
    stroke: { ...position.stroke, ...(stroke as object) },
    conditions: { ...position.content.conditions },
  })
  notices.show({ kind: 'info', text: 'Set up as a new position. Not saved yet.', action: { label: `Back to “${before}”`, run: back } })
  void router.push('/table/now/shot')
}
</script>

<template>
  <main class="place wide-place" data-testid="routine-place">
    <p v-if="trouble" class="field-error" role="alert">{{ trouble }} <RouterLink to="/practice">All routines</RouterLink></p>
    <p v-else-if="!routine || !laid" class="soft" role="status">Loading …</p>
    <template v-else>
      <p class="back"><RouterLink to="/practice">Practice</RouterLink></p>
      <h1>{{ routine.name }}</h1>
      <p class="task">{{ routine.task }}</p>
      <div class="beside">
        <div>
          <div class="row">
            <OneOf v-if="stepChoices.length > 1 && stepChoices.length <= 6" v-model="step" :options="stepChoices" label="Step" />
            <span v-else-if="stepChoices.length > 1" class="row">
              <ElButton size="small" aria-label="The step before" :disabled="!step" @click="step--">‹</ElButton>
              <strong>{{ stepChoices[step].label }}</strong>
              <ElButton size="small" aria-label="The next step" :disabled="step === stepChoices.length - 1" @click="step++">›</ElButton>
            </span>
            <OneOf
              v-if="routine.bothSides"
              :model-value="isMirrored ? 1 : 0"
              :options="sides"
              label="Side of the table"
              @update:model-value="isMirrored = !!$event"
            />
          </div>
          <StepPlan :step="laid" :way="outlook?.[step]?.way" :outlines="outlook?.[step]?.likely" />
          <p class="rule">{{ sentence(ruleWords(laid)) }}.</p>
          <p v-if="outlook && !isRun" class="soft">
            The dotted outline holds two thirds of the places where the white of {{ skillWords(players.player.skill) }} stops.
          </p>
        </div>
        <div class="words">
          <div class="row">
            <ElButton type="primary" size="large" :disabled="busy" data-testid="play-routine" @click="play">Play it</ElButton>
            <ElButton v-if="!isRun" data-testid="easier" @click="easier">Easier or harder</ElButton>
            <ElButton @click="setUp">Set up at the table</ElButton>
          </div>
          <section v-if="variants" aria-label="Easier or harder" data-testid="variants">
            <p>
              As it is, {{ skillWords(players.player.skill) }} does {{ percentWords(variants.asItIs.value) }}. About seven in ten teaches
              most.
            </p>
            <ul>
              <li v-for="v in [variants.aboutSeven, variants.other].filter((x) => !!x)" :key="v!.wider + v!.nearer">
                <strong>{{ sentence(levelWords(v!, variants.asItIs)) }}</strong>, {{ variantWords(v!) }}:
                <strong>{{ percentWords(v!.done.value) }}</strong>
                <ElButton
                  size="small"
                  data-testid="keep-variant"
                  @click="keep(v!, `${levelWords(v!, variants.asItIs)}: ${variantWords(v!)}`)"
                  >Keep it as a routine</ElButton
                >
              </li>
            </ul>
            <p v-if="!variants.aboutSeven" class="soft">There is no easier or harder version of this routine.</p>
          </section>
          <p v-if="routine.why"><strong>Why.</strong> {{ routine.why }}</p>
          <p v-if="routine.lookFor"><strong>Look for.</strong> {{ routine.lookFor }}</p>
          <p>
            {{ sentence(amountWords({ steps: routine.steps.length, attempts: routine.attempts!, bothSides: routine.bothSides! })) }};
            {{ orderWords[routine.order!] }}.
          </p>
          <section v-if="!isRun" aria-labelledby="makes-title">
            <h2 id="makes-title">What {{ skillWords(players.player.skill) }} makes of it</h2>
            <p v-if="notWorked" class="field-error" role="alert">Not worked out: {{ notWorked }}</p>
            <ElTable v-else :data="rows" size="small" data-testid="outlook">
              <ElTableColumn prop="label" label="Step" />
              <ElTableColumn v-if="routine.knob" :label="routine.knob === 'pace' ? 'Window of pace' : 'Window of the tip'"
                ><template #default="{ row }"
                  ><template v-if="row.rung"><RungBar v-bind="row.rung" />{{ row.window }}</template></template
                ></ElTableColumn
              >
              <ElTableColumn v-else prop="stroke" label="As meant" />
              <ElTableColumn prop="done" label="Done" width="70" />
              <ElTableColumn prop="spread" label="The white stops" />
            </ElTable>
            <p class="soft">Simulated 256 times each with that player’s errors, on {{ club.table?.name }}; not counted.</p>
          </section>
          <section v-if="found?.expected.length" aria-labelledby="runs-title" data-testid="expected-runs">
            <h2 id="runs-title">What players make of it</h2>
            <ElTable :data="found.expected" size="small">
              <ElTableColumn label="Player"
                ><template #default="{ row }">{{ sentence(skillWords(row.skill)) }}</template></ElTableColumn
              >
              <ElTableColumn label="Points, on the average"
                ><template #default="{ row }">{{ figureWords(row.points, 0) }} ± {{ figureWords(row.error, 0) }}</template></ElTableColumn
              >
              <ElTableColumn label="Target reached"
                ><template #default="{ row }">{{ row.reached }} of {{ row.breaks }}</template></ElTableColumn
              >
            </ElTable>
            <p class="soft">Simulated breaks by the planner with that player’s errors, on a match table; they do not count.</p>
          </section>
          <p v-if="isRun" class="soft">
            Count the balls of a run and say how it ended. {{ countWords(routine.attempts!, 'run') }} are enough for a day.
          </p>
          <section v-if="found?.isOwn" aria-label="Change it">
            <div v-if="draft" class="edit">
              <ElInput v-model="draft.name" :maxlength="120" aria-label="Name" />
              <ElInput v-model="draft.task" type="textarea" :maxlength="500" placeholder="The task, in a line" aria-label="Task" />
              <ElInput v-model="draft.lookFor" :maxlength="500" placeholder="The one thing to watch" aria-label="What to watch" />
              <label class="row"
                ><FigureInput v-model="draft.attempts" :min="1" :max="200" :digits="0" label="Attempts" /> attempts,
                <OneOf
                  :model-value="draft.bothSides ? 1 : 0"
                  :options="yesNo"
                  label="Sides"
                  @update:model-value="draft.bothSides = !!$event"
              /></label>
              <div class="row">
                <ElButton type="primary" :disabled="busy || !draft.name.trim()" @click="save">Save</ElButton>
                <ElButton @click="draft = null">Cancel</ElButton>
              </div>
            </div>
            <div v-else class="row">
              <ElButton data-testid="edit-routine" @click="edit">Change words and numbers</ElButton>
              <ElButton data-testid="put-away-routine" @click="remove">Archive</ElButton>
            </div>
          </section>
          <p><RouterLink :to="`/progress?routine=${id}`">How it has gone</RouterLink></p>
        </div>
      </div>
    </template>
  </main>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: minmax(0, 58fr) minmax(300px, 42fr);
  gap: var(--space-3) var(--space-6);
  align-items: start;
}
@media (max-width: 860px) {
  .beside {
    grid-template-columns: 1fr;
  }
}
.back,
.rule {
  margin: var(--space-2) 0;
}
.task {
  font-size: var(--type-3);
  margin: var(--space-1) 0 var(--space-3);
}
.edit {
  display: grid;
  gap: var(--space-3);
}
.words > .row {
  margin-bottom: var(--space-2);
}
</style>
