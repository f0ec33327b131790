<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu, ElTag } from 'element-plus'
import { computed, defineAsyncComponent, ref } from 'vue'
import { nameOf, pocketName } from '../../domain/balls'
import { fullnessWords, potWords, reachNeedWords, strokeWords, warningWords } from '../../domain/words'
import { miscueWords, amountWords, shareWords } from '../../lib/estimates'
import { degreeWords, sentence } from '../../lib/formats'
import FrameProblem from '../../position/FrameProblem.vue'
import { useView } from '../../position/view'
import BallDot from '../../ui/BallDot.vue'
import BetterFound from '../../ui/BetterFound.vue'
import { useRouter } from 'vue-router'
import { useGlance } from '../../position/glance'
import { contentOf, strokeOf } from '../../domain/strokes'
import CompareButton from '../../position/CompareButton.vue'
import ErrorsButton from '../../ui/ErrorsButton.vue'
import LineButton from '../../ui/LineButton.vue'
import OneOf from '../../ui/OneOf.vue'
import SearchStatus from '../../ui/SearchStatus.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import { usePlans } from './plans'
import WishChips from './WishChips.vue'
import { wishesOf } from './wishes'
import {
  cannonWords,
  coverWords,
  endWords,
  frameWords,
  isAgainst,
  keepsWords,
  knobWords,
  missWords,
  planLabel,
  planStrokeWords,
  reasonWords,
  turnWords,
  type PlanShot,
} from './words'

// What is not seen at first is loaded when it is asked for.
const FirstShots = defineAsyncComponent(() => import('./FirstShots.vue'))
const FrameFields = defineAsyncComponent(() => import('./FrameFields.vue'))
const PlanWishes = defineAsyncComponent(() => import('./PlanWishes.vue'))
const NextBalls = defineAsyncComponent(() => import('./NextBalls.vue'))

/** Plan a break: the plans, each as its shots in order, the shot that is looked at with its reasons, and playing on. */
const plans = usePlans()
const view = useView()
const opened = ref<'' | 'frame' | 'wishes'>('')
const beside = ref(false)
const toggle = (what: 'frame' | 'wishes') => (opened.value = opened.value === what ? '' : what)
const letter = (i: number) => String.fromCharCode(65 + i)
const shown = computed(() => plans.shown)
const prospect = computed(() => plans.chosen?.prospect ?? null)
const choices = computed(() =>
  plans.plans.map((p, i) => ({
    value: i,
    label: `${letter(i)}  ${planLabel(p, plans.unit)}`,
    testId: `plan-${letter(i)}`,
  })),
)
const hasWishes = computed(() => wishesOf(plans.wishes).length > 0)
/** Whether all reasons of a shot are shown, or the three that matter most. */
const isWhole = ref(false)
/** What small errors do to a shot, and where it keeps the reds. */
function studies(shot: PlanShot): string[] {
  const { study, redsBefore, redsAfter } = shot
  return [
    study?.miss ? missWords(study.miss, plans.unit) : '',
    study?.window ? knobWords(study.window) : '',
    study?.cannon ? cannonWords(study.cannon) : '',
    redsBefore && redsAfter ? keepsWords(redsBefore, redsAfter) : '',
  ].filter(Boolean)
}
const chosen = computed({
  get: () => plans.plan,
  set: (which) => {
    beside.value = false
    plans.look(0, which)
  },
})

const glance = useGlance()
const router = useRouter()
/** The shots of the plan, one after the other, as glances. */
function atTheTable() {
  const items = plans.chosen!.shots.map((s, i) => ({
    title: `${i + 1}. ${sentence(potWords(s.choice))}`,
    content: { ...contentOf(s.content), stroke: strokeOf(s.choice.stroke) },
  }))
  glance.open(items, router.currentRoute.value.fullPath, plans.shot)
  void router.push('/glance')
}
</script>

<template>
  <div class="panel fills" data-testid="plan-panel">
    <div class="row">
      <span v-if="plans.frame" class="frame-words" data-testid="frame-words">{{ frameWords(plans.frame) }}</span>
    </div>
    <div class="row">
      <ElButton size="small" :aria-expanded="opened === 'frame'" data-testid="frame-fields" @click="toggle('frame')">Frame</ElButton>
      <ElButton size="small" :aria-expanded="opened === 'wishes'" data-testid="wishes" @click="toggle('wishes')">Wishes</ElButton>
      <ElButton
        size="small"
        :aria-expanded="plans.nextAsked"
        title="Which ball to play for, and how"
        data-testid="next-balls"
        @click="plans.nextAsked = !plans.nextAsked"
        >Next ball</ElButton
      >
      <ElDropdown v-if="plans.saved.length" trigger="click" @command="plans.open">
        <ElButton size="small" data-testid="kept-plans">Kept plans ({{ plans.saved.length }})</ElButton>
        <template #dropdown>
          <ElDropdownMenu>
            <ElDropdownItem v-for="s in plans.saved" :key="s.id" :command="s.id">{{ s.name }}</ElDropdownItem>
          </ElDropdownMenu>
        </template>
      </ElDropdown>
      <SearchStatus
        :is-searching="plans.isSearching"
        :was-stopped="plans.wasStopped"
        :share="plans.answer?.share ?? 0"
        label="Progress of the plan"
        :status="plans.status"
        :since="plans.since"
        :looked="plans.answer?.looked"
        :wait="plans.wait"
        stop-test-id="stop-plan"
        @stop="plans.stop()"
        @go-on="plans.search()"
      />
    </div>
    <WishChips />
    <FrameFields v-if="opened === 'frame'" />
    <PlanWishes v-if="opened === 'wishes'" />
    <NextBalls v-if="plans.nextAsked" />
    <FrameProblem v-if="plans.problem" :problem="plans.problem" test-id="plan-problem" @again="plans.search()" />
    <p v-else-if="plans.answer?.share === 1 && !plans.plans.length" class="soft" data-testid="nothing-on">
      {{
        hasWishes
          ? 'No pot fits these wishes. Remove one of them, or play safe.'
          : 'No ball on can be potted from here. Play safe: above all, leave no pot.'
      }}
      <ElButton size="small" type="primary" data-testid="to-decide" @click="view.go('safety')">Safeties and escapes</ElButton>
    </p>
    <p v-else-if="plans.wasStopped && !plans.plans.length" class="soft" role="status">Stopped before a plan was found.</p>
    <p v-else-if="!plans.plans.length" class="soft" role="status">Searching for the shot …</p>
    <!-- What has been found stays, though the search broke off or ran out of time. -->
    <template v-if="plans.plans.length">
      <BetterFound v-if="plans.better" @show="plans.showBetter()" />
      <div class="row">
        <OneOf v-model="chosen" :options="choices" :label="plans.isSearching ? 'Plans so far, the best first' : 'Plans, the best first'" />
        <ElButton
          :type="beside ? 'primary' : undefined"
          :aria-pressed="beside"
          title="Compare the first shots and see why the others rank lower"
          data-testid="beside-plans"
          @click="beside = !beside"
          >Why not …</ElButton
        >
        <ErrorsButton /><HandbookLink of="points" what="the points of a plan" /><HandbookLink of="win" what="the frame won" />
      </div>
      <FirstShots v-if="beside" />
      <template v-else>
        <ol class="shots" aria-label="Shots of the plan" data-testid="strip">
          <li v-for="(s, i) in plans.chosen?.shots" :key="i" :class="{ chosen: plans.shot === i }">
            <LineButton class="shot" :aria-pressed="plans.shot === i" data-testid="plan-shot" @click="plans.look(i)">
              <span class="line">
                <span class="figure number">{{ i + 1 }}</span><BallDot :ball="s.choice.stroke.pot!.ball" />
                <span class="what"
                  >{{ nameOf(s.choice.stroke.pot!.ball) }}, {{ pocketName(s.choice.stroke.pot!.pocket) }}
                  <span class="soft">{{ strokeWords(s.choice.stroke) }}</span></span
                >
                <span class="figure">{{ shareWords(s.choice.chance) }}</span><strong class="figure points" title="Break after it">{{
                  s.points
                }}</strong>
              </span>
            </LineButton>
            <div v-if="plans.shot === i && shown" class="detail" data-testid="plan-detail">
              <p>
                {{ sentence(planStrokeWords(shown.choice, shown.arrival)) }}. {{ degreeWords(Math.abs(shown.choice.cutDegrees)) }},
                {{ fullnessWords[shown.choice.fullnessWord] }}; reaches this shot {{ shareWords(shown.alive)
                }}{{ shown.choice.foul.value >= 0.01 ? `, foul ${shareWords(shown.choice.foul)}` : '' }}{{ miscueWords(shown.choice.miscue)
                }}{{ reachNeedWords(shown.choice.reach) ? `; ${reachNeedWords(shown.choice.reach)}` : '' }}.
              </p>
              <ul v-if="shown.reasons.length || studies(shown).length" class="reasons" aria-label="Why" data-testid="reasons">
                <li v-for="(r, k) in isWhole ? shown.reasons : shown.reasons.slice(0, 3)" :key="k">
                  <ElTag :type="isAgainst(r) ? 'danger' : 'info'" effect="plain" disable-transitions>{{ reasonWords(r) }}</ElTag>
                </li>
                <li v-if="shown.reasons.length > 3 || studies(shown).length">
                  <ElButton size="small" text :aria-expanded="isWhole" data-testid="all-reasons" @click="isWhole = !isWhole">{{
                    isWhole ? 'Less' : 'More reasons'
                  }}</ElButton>
                </li>
              </ul>
              <p class="soft">
                If long: {{ coverWords(shown.long) }}. If short: {{ coverWords(shown.short) }}.
                <span v-if="shown.warnings.length" class="danger"
                  >Watch for: {{ shown.warnings.slice(0, 4).map(warningWords).join('; ') }}.</span
                >
              </p>
              <ul v-if="isWhole && studies(shown).length" class="studies soft" data-testid="study">
                <li v-for="line in studies(shown)" :key="line">{{ line }}.</li>
              </ul>
              <div class="row">
                <ElButton size="small" class="later" data-testid="practise-shot" @click="plans.practiseShot()">Practise this</ElButton>
                <template v-if="i === 0">
                  <ElButton type="primary" size="small" data-testid="potted" @click="plans.playOn()">Potted as planned</ElButton>
                  <ElButton size="small" data-testid="missed-thick" @click="plans.playOn('thick')">Missed thick</ElButton>
                  <ElButton size="small" data-testid="missed-thin" @click="plans.playOn('thin')">Missed thin</ElButton>
                  <CompareButton :stroke="shown.choice.stroke" what="the first shot of this plan" />
                  <ElButton v-if="!plans.isSetUp" size="small" data-testid="set-up-plan" @click="plans.setUp()"
                    >Set up on the desk</ElButton
                  >
                </template>
                <template v-else>
                  <ElButton type="primary" size="small" data-testid="go-there" @click="plans.goThere()">Set up this table</ElButton>
                  <ElButton size="small" @click="plans.look(0)">Back to now</ElButton>
                  <span class="soft">The table before this shot, if everything goes to plan.</span>
                </template>
              </div>
            </div>
          </li>
        </ol>
        <p v-if="plans.chosen?.turn" data-testid="turn">{{ turnWords(plans.chosen.turn, plans.unit) }}</p>
        <p v-if="prospect" class="soft" data-testid="prospect">
          Plan {{ letter(plans.plan) }} played out {{ prospect.points.strokes }} times with your errors, later shots chosen quickly:
          <template v-if="plans.unit === 'win'">the frame is won {{ shareWords(prospect.value) }}, </template
          >{{ amountWords(prospect.points, 0) }} points on the average, half of the breaks {{ prospect.median }} or more<template
            v-if="prospect.target !== null && prospect.target !== undefined"
            >, target reached {{ shareWords(prospect.target) }}</template
          >; {{ endWords(plans.chosen!) }}.
        </p>
        <div class="row">
          <ElButton size="small" :disabled="plans.isSearching" data-testid="keep-plan" @click="plans.keep()">Keep the plan</ElButton>
          <ElButton size="small" data-testid="plan-glance" @click="atTheTable">At a glance</ElButton>
          <ElButton size="small" data-testid="print-plan" @click="plans.print()">Cards as PDF</ElButton>
        </div>
      </template>
    </template>
  </div>
</template>

<style scoped>
.frame-words {
  font-variant-numeric: tabular-nums;
}
.shots {
  list-style: none;
  margin: 0;
  padding: 0;
}
.shots > li {
  border-top: 1px solid var(--edge);
}
.shots > li.chosen {
  background: var(--panel-2);
  box-shadow: inset 3px 0 0 var(--accent);
}
.shot {
  width: 100%;
}
.shots .shot.el-button {
  margin: 0;
  padding: var(--space-2) var(--space-3);
}
.shot :deep(> span) {
  flex: 1;
}
.line {
  display: grid;
  grid-template-columns: 1.2em 20px 1fr 3.2em 2.4em;
  gap: var(--space-3);
  align-items: center;
}
.number {
  color: var(--accent);
  font-weight: 650;
}
.line .figure:not(.number) {
  text-align: right;
}
.what .soft {
  display: block;
  font-size: var(--type-2);
}
.detail {
  padding: var(--space-1) var(--space-3) var(--space-3) var(--space-3);
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
}
.studies {
  margin: 0;
  padding-left: 1.1em;
}
.reasons {
  margin: 0;
  padding: 0;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-2);
}
</style>
