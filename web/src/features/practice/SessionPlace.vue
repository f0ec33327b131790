<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core'
import { ElButton, ElDialog, ElDrawer, ElInput } from 'element-plus'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { momentWords, sentence } from '../../lib/formats'
import { problemWords } from '../../lib/problemWords'
import { useShell } from '../../lib/useShell'
import { Problem } from '../../api/client'
import { onSide } from '../../domain/mirror'
import { useClub } from '../../position/club'
import { useDraft } from '../../position/draft'
import { useGlance } from '../../position/glance'
import FigureInput from '../../ui/FigureInput.vue'
import LineButton from '../../ui/LineButton.vue'
import { groupsOf } from '../../table/groups'
import OneOf from '../../ui/OneOf.vue'
import PaceInput from '../../ui/PaceInput.vue'
import AttemptBar from './AttemptBar.vue'
import AttemptList from './AttemptList.vue'
import { useCounting } from './counting'
import { useOutbox } from '../../lib/outbox'
import { stepGlances } from './glances'
import { useRoutines } from './routines'
import { useSession, type Attempt } from './session'
import StepPlan from './StepPlan.vue'
import { ofWords, putBackWords, ruleWords, strokeWords } from './words'

/** A session at the table: the layout, the thumb, and what has been counted. */
const props = defineProps<{ id: string }>()
const sessions = useSession()
const counting = useCounting()
const outbox = useOutbox()
const routines = useRoutines()
const glance = useGlance()
const club = useClub()
const position = useDraft()
const router = useRouter()
const { isPhone } = useShell()
const trouble = ref('')
const isGone = ref(false)

watch(
  () => props.id,
  async (id) => {
    trouble.value = ''
    isGone.value = false
    try {
      isGone.value = !(await sessions.open(id))
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      trouble.value = problemWords(e)
    }
  },
  { immediate: true },
)
onBeforeUnmount(() => sessions.leave())
void routines.load().catch(() => {})

const session = computed(() => (sessions.session?.id === props.id ? sessions.session : null))
const routine = computed(() => counting.routine?.routine)
const isOver = computed(() => !!session.value?.endedAt)
const steps = computed(() => (routine.value?.steps ?? []).map((s, i) => ({ value: i, label: s.label })))
const sides = [
  { value: 0, label: 'as laid', testId: 'side-laid' },
  { value: 1, label: 'other side', testId: 'side-other' },
] as const
const isClose = useLocalStorage('deep-baize-close-plan', true)
const isShowing = ref<'' | 'back' | 'share' | 'change' | 'plan'>('')

/** On a phone the plan may have been scrolled away when a place on it is asked for. */
const tableSide = ref<HTMLElement>()
watch(
  () => counting.isPlacing,
  (isPlacing) => isPlacing && tableSide.value?.scrollIntoView({ block: 'start' }),
)

const meantWords = (a: Attempt) => {
  const meant = counting.meantOf(a)
  return meant ? strokeWords(meant) : ''
}
const strongest = 6
/** Where attempts at this step ended, the last ones strong. */
const trials = computed(() =>
  counting.ofStep.flatMap((a, i) =>
    a.white
      ? [
          {
            key: a.id,
            x: a.white.x,
            y: a.white.y,
            number: i + 1,
            isDone: a.done,
            isStrong: i >= counting.ofStep.length - strongest,
            group: a.group ?? '',
            isWaiting: sessions.waitingIds.has(a.id),
            isChosen: a.id === counting.last && !counting.isPlacing,
            words: meantWords(a),
          },
        ]
      : [],
  ),
)
const tally = (list: { done: boolean }[]) => ofWords({ done: list.filter((a) => a.done).length, of: list.length })
const goal = computed(() => (routine.value ? routine.value.attempts! : 0))
const labels = computed(() => routine.value?.steps.map((s) => s.label) ?? [])
/** What was counted before the change and after it, in the colours of the plan. */
const groups = computed(() => {
  const all = groupsOf(counting.ofStep)
  return all.length > 1 || all[0]
    ? all.map((name, i) => ({
        name: name || 'before',
        colour: `var(--group-${i % 4})`,
        tally: tally(counting.ofStep.filter((a) => (a.group ?? '') === name)),
      }))
    : []
})

// What is changed from one attempt to the next, one thing at a time.
const group = ref('')
const stroke = computed(() => counting.step?.stroke)
const changed = ref({ height: 0, side: 0, pace: 4 })
function openChange() {
  const s = (session.value?.now?.stroke ?? routine.value?.steps[counting.stepNumber].stroke)!
  changed.value = { height: s.height ?? 0, side: s.side ?? 0, pace: s.pace ?? 4 }
  group.value = session.value?.now?.group ?? ''
  isShowing.value = 'change'
}
function applyChange() {
  const as = routine.value!.steps[counting.stepNumber].stroke!
  sessions.setTask({ ...session.value!.now!, stroke: { ...as, ...changed.value }, group: group.value.trim().slice(0, 60) })
  isShowing.value = ''
}
function dropChange() {
  sessions.setTask({ ...session.value!.now!, stroke: null, group: '' })
  isShowing.value = ''
}

/** The steps as they are played, each as one glance. */
function atTheTable() {
  const { mirrored } = session.value!.now!
  const as = routine.value!.steps.map((s, i) => (i === counting.stepNumber ? counting.step! : onSide(s, mirrored, position.reference)))
  const { items, first } = stepGlances(routine.value!.name, as, counting.stepNumber, position.content.conditions)
  glance.open(items, `/practice/sessions/${props.id}`, first)
  void router.push('/glance')
}

const setStep = (step: number) => sessions.setTask({ ...session.value!.now!, step })
const setSide = (mirrored: boolean) => sessions.setTask({ ...session.value!.now!, mirrored })
const play = (id: string) => {
  isShowing.value = ''
  sessions.setTask({ routine: id, step: 0, mirrored: false, stroke: null, group: '' })
}
const end = () => sessions.end()
const address = computed(() => `${location.origin}/practice/sessions/${props.id}`)
/** What is refused here for good. */
const refused = computed(() => outbox.refused.filter((w) => w.session === props.id).length)
const sent = computed(() => {
  if (refused.value) return `${refused.value} not accepted – show`
  if (!sessions.unsent) return 'all sent'
  const why = outbox.trouble && !isPhone.value ? `: ${outbox.isAway ? 'no connection' : 'not accepted yet, retrying'}` : ''
  return `${sessions.unsent} not sent${why}`
})
</script>

<template>
  <main class="session" :class="{ phone: isPhone }" data-testid="session-place">
    <p v-if="trouble" class="field-error padded" role="alert">{{ trouble }}</p>
    <p v-else-if="isGone" class="padded">
      This session does not exist. It may have been deleted. <RouterLink to="/practice">Back to Practice</RouterLink>
    </p>
    <p v-else-if="!session" class="soft padded" role="status">Opening the session …</p>
    <template v-else>
      <header class="head">
        <h1>{{ routine?.name ?? (counting.isMissing ? 'Routine not on this device' : 'Session') }}</h1>
        <RouterLink v-if="refused" class="sent refused" to="/practice" role="status" data-testid="sent">{{ sent }}</RouterLink>
        <span v-else class="sent" :class="{ waits: sessions.unsent }" role="status" data-testid="sent">{{ sent }}</span>
        <span class="spring" />
        <ElButton size="small" data-testid="plan-of-session" @click="isShowing = 'plan'">Routines</ElButton>
        <ElButton size="small" data-testid="share" @click="isShowing = 'share'">Look on</ElButton>
        <ElButton v-if="!isOver" size="small" data-testid="end-session" @click="end">End</ElButton>
        <ElButton v-else size="small" data-testid="go-on-session" @click="sessions.goOn()">Resume</ElButton>
      </header>
      <p v-if="outbox.cannotKeep && sessions.unsent" class="cannot-keep" role="alert" data-testid="cannot-keep">
        This device cannot store your counts. Leave this tab open until everything is sent.
      </p>
      <div v-if="counting.step && routine" class="body">
        <div ref="tableSide" class="table-side">
          <div class="steps">
            <OneOf
              v-if="steps.length > 1 && steps.length <= (isPhone ? 3 : 6)"
              :model-value="counting.stepNumber"
              :options="steps"
              label="Step"
              @update:model-value="setStep($event as number)"
            />
            <span v-else-if="steps.length > 1" class="row">
              <ElButton size="small" aria-label="The step before" @click="counting.goStep(-1)">‹</ElButton>
              <strong>{{ steps[counting.stepNumber].label }}</strong>
              <span class="soft">{{ counting.stepNumber + 1 }} of {{ steps.length }}</span>
              <ElButton size="small" aria-label="The next step" @click="counting.goStep(1)">›</ElButton>
            </span>
            <strong v-else>{{ steps[0]?.label }}</strong>
            <OneOf
              v-if="routine.bothSides"
              :model-value="session.now?.mirrored ? 1 : 0"
              :options="sides"
              label="Side of the table"
              @update:model-value="setSide(!!$event)"
            />
          </div>
          <StepPlan
            :step="counting.step"
            :trials="trials"
            :white="counting.white"
            :ball="counting.ball"
            :is-close="isClose"
            :can-point="!isOver && !counting.isRun"
            @point="counting.point"
          />
          <p class="rule">
            {{ sentence(ruleWords(counting.step)) }}.
            <span v-if="stroke && !counting.isRun" class="soft">
              {{ sentence(strokeWords(stroke))
              }}<template v-if="session.now?.group"
                >, <strong>{{ session.now.group }}</strong></template
              >.</span
            >
          </p>
          <div class="row tools">
            <ElButton size="small" data-testid="put-back" @click="isShowing = 'back'">Put the balls back</ElButton>
            <ElButton v-if="counting.step.stroke && !counting.isRun" size="small" data-testid="session-glance" @click="atTheTable"
              >At a glance</ElButton
            >
            <ElButton v-if="!counting.isRun && !isOver" size="small" data-testid="change-one" @click="openChange"
              >Change one thing</ElButton
            >
            <ElButton size="small" @click="isClose = !isClose">{{ isClose ? 'Whole table' : 'Closer' }}</ElButton>
          </div>
        </div>
        <div class="thumb-side">
          <AttemptBar v-if="!isOver" />
          <p v-else class="over">
            <strong>The session is over.</strong>{{ ' ' }}
            <RouterLink :to="`/progress?routine=${session.now?.routine}`">See how it went</RouterLink>, or
            <a :href="`/api/practice/sessions/${id}/sheet.pdf`" target="_blank" data-testid="sheet">print its sheet</a>.
          </p>
          <p class="count" data-testid="count">
            <strong>{{ tally(counting.ofStep) }}</strong> here<template v-if="goal">, {{ goal }} meant</template> ·
            <strong>{{ tally(counting.ofRoutine) }}</strong> in all
            <RouterLink :to="`/progress?routine=${session.now?.routine}`">chart</RouterLink>
          </p>
          <p v-if="groups.length" class="groups" data-testid="groups">
            <span v-for="g in groups" :key="g.name"
              ><i :style="{ background: g.colour }"></i>{{ g.name }}: <strong>{{ g.tally }}</strong></span
            >
          </p>
          <AttemptList :attempts="counting.listed" :labels="routine.order === 'steps' ? [] : labels" />
        </div>
      </div>
      <div v-else class="padded">
        <p v-if="counting.isMissing">
          This routine is not on this device and there is no connection. Choose one you have opened here before.
        </p>
        <p v-else>Choose what to play.</p>
        <ElButton type="primary" @click="isShowing = 'plan'">Routines</ElButton>
      </div>

      <ElDrawer :model-value="isShowing === 'plan'" :size="isPhone ? '92%' : '420px'" title="What to play" @close="isShowing = ''">
        <ol v-if="session.plan.length" class="plan">
          <li v-for="(p, i) in session.plan" :key="i">
            <template v-if="p.routine === 'break'"
              ><span class="soft">Stand up, walk, stretch: {{ p.minutes }} minutes</span></template
            >
            <LineButton v-else @click="play(p.routine)">{{ routines.nameOf(p.routine) }}, {{ p.minutes }} minutes</LineButton>
          </li>
        </ol>
        <h3 v-if="session.plan.length">All routines</h3>
        <ul class="plan">
          <li v-for="r in routines.list" :key="r.id">
            <LineButton :data-testid="`play-${r.id}`" @click="play(r.id)">{{ r.name }}</LineButton>
          </li>
        </ul>
      </ElDrawer>
      <ElDialog :model-value="isShowing === 'share'" title="Look on from a second device" width="min(420px, 94vw)" @close="isShowing = ''">
        <p>Anyone with this link can watch attempts, add notes and change the task.</p>
        <p class="qr">
          <img :src="`/api/practice/sessions/${id}/qr.svg`" alt="The address of this session as a QR code" width="240" height="240" />
        </p>
        <p class="address">{{ address }}</p>
      </ElDialog>
      <ElDialog :model-value="isShowing === 'back'" title="Put the balls back" width="min(560px, 94vw)" @close="isShowing = ''">
        <ul class="put-back" data-testid="put-back-list">
          <li v-for="b in counting.step?.balls ?? []" :key="b.id">
            <strong>{{ sentence(b.id.replace('-', ' ')) }}</strong>
            {{ putBackWords(b, position.reference!) }}
          </li>
        </ul>
        <p class="soft">To the middle of the ball, from the noses of the cushions.</p>
        <p v-if="!sessions.unsent"><a :href="`/api/practice/sessions/${id}/sheet.pdf`" target="_blank">Print it as a sheet</a></p>
      </ElDialog>
      <ElDialog :model-value="isShowing === 'change'" title="Change one thing" width="min(420px, 94vw)" @close="isShowing = ''">
        <div class="change">
          <label
            >Tip above centre<FigureInput
              v-model="changed.height"
              :min="-1.5"
              :max="1.5"
              :digits="2"
              :step="0.05"
              label="Height"
              unit="tips"
          /></label>
          <label
            >Side to the right<FigureInput v-model="changed.side" :min="-1.5" :max="1.5" :digits="2" :step="0.05" label="Side" unit="tips"
          /></label>
          <label>Pace<PaceInput v-model="changed.pace" :min="1" :max="10" :step="0.1" label="Pace" /></label>
          <label
            >In a word or two<ElInput
              v-model="group"
              :maxlength="60"
              placeholder="lower bridge"
              aria-label="What was changed"
              data-testid="group"
          /></label>
        </div>
        <p class="soft">Attempts from here on are counted separately and drawn in their own colour.</p>
        <template #footer>
          <ElButton v-if="session.now?.stroke || session.now?.group" @click="dropChange">As the routine says</ElButton>
          <ElButton type="primary" data-testid="apply-change" @click="applyChange">Play it so</ElButton>
        </template>
      </ElDialog>
      <p class="foot soft">
        {{ club.find('players', session.with.playerId ?? '')?.name ?? club.player?.name }} · begun {{ momentWords(session.startedAt)
        }}<template v-if="sessions.isLive"> · live</template> ·
        <LineButton @click="router.push('/practice')">all practice</LineButton>
      </p>
    </template>
  </main>
</template>

<style scoped>
.session {
  display: flex;
  flex-direction: column;
  flex: 1;
  min-height: 0;
}
.padded {
  padding: var(--space-5);
}
.head {
  display: flex;
  gap: var(--space-2) var(--space-3);
  align-items: center;
  padding: var(--space-2) var(--space-4);
  border-bottom: 1px solid var(--edge);
}
.head h1 {
  font-size: var(--type-4);
  margin: 0;
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.head .el-button + .el-button {
  margin: 0;
}
.spring {
  flex: 1;
}
.sent {
  font-size: var(--type-2);
  color: var(--text-soft);
  white-space: nowrap;
}
.cannot-keep {
  margin: 0;
  padding: var(--space-2) var(--space-4);
  color: var(--danger);
}
.sent.refused {
  color: var(--danger);
  font-weight: 600;
}
.sent.waits {
  color: var(--accent);
}
.body {
  display: grid;
  grid-template-columns: minmax(0, 62fr) minmax(300px, 38fr);
  flex: 1;
  min-height: 0;
}
.table-side {
  padding: var(--space-3) var(--space-4);
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  overflow: auto;
}
.thumb-side {
  background: var(--panel);
  padding: var(--space-3) var(--space-4);
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  overflow: auto;
}
.steps {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-4);
  justify-content: space-between;
  align-items: center;
}
.rule,
.count,
.groups,
.over {
  margin: 0;
}
.groups i {
  display: inline-block;
  width: 10px;
  height: 10px;
  border-radius: 50%;
  border: 1px solid var(--edge);
  margin-right: var(--space-2);
}
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-4);
  font-size: var(--type-3);
}
.tools {
  gap: var(--space-2);
}
.tools .el-button + .el-button {
  margin: 0;
}
.thumb-side :deep(a),
.padded a {
  color: var(--accent);
}
.foot {
  margin: 0;
  padding: var(--space-2) var(--space-4);
  font-size: var(--type-2);
  border-top: 1px solid var(--edge);
}
.phone .head {
  padding: var(--space-1) var(--space-3);
}
.phone .head h1 {
  font-size: var(--type-3);
}
.phone .body {
  display: flex;
  flex-direction: column;
}
.phone .table-side {
  padding: var(--space-2) 0 0;
  gap: var(--space-2);
  overflow: visible;
}
.phone .steps,
.phone .rule,
.phone .tools {
  padding: 0 var(--space-3);
}
.phone .rule {
  font-size: var(--type-3);
  line-height: 1.25;
}
.phone .thumb-side {
  flex: 1;
  padding: var(--space-3);
}
.plan {
  padding-left: var(--space-5);
}
.qr {
  text-align: center;
}
.qr img {
  background: #fff;
  border-radius: 8px;
}
.address {
  overflow-wrap: anywhere;
  user-select: all;
}
.put-back {
  list-style: none;
  padding: 0;
  margin: 0;
}
.put-back li {
  padding: var(--space-2) 0;
  border-bottom: 1px solid var(--edge);
}
.change {
  display: grid;
  gap: var(--space-3);
}
.change label {
  display: grid;
  grid-template-columns: 130px 1fr;
  align-items: center;
  gap: var(--space-3);
}
</style>
