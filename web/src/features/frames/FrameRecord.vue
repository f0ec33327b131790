<script setup lang="ts">
import { ElButton, ElCheckbox, ElCheckboxButton, ElCheckboxGroup, ElTable, ElTableColumn } from 'element-plus'
import { computed, ref } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import type { Schemas } from '../../api/client'
import { lookOf } from '../../domain/balls'
import { useDraft } from '../../position/draft'
import OneOf from '../../ui/OneOf.vue'
import BallDot from '../../ui/BallDot.vue'
import { presentRun } from './curve'
import FoulForm from './FoulForm.vue'
import FrameCurve from './FrameCurve.vue'
import { useRecords, type NewShot, type Record_ } from './records'
import { breakWords, figureRows, needWords, onWords, reasons, shotWords, stepWords, tags } from './words'

/** A frame written down shot by shot: one tap for the usual outcome. Made for a phone at the table side as well. */
const props = defineProps<{ record: Record_ }>()
const records = useRecords()
const position = useDraft()
const route = useRoute()
const router = useRouter()
const story = computed(() => props.record.story)
const state = computed(() => story.value.state)
const names = computed(() => [props.record.first, props.record.second])

type View = 'shots' | 'breaks' | 'figures'
const views = [
  { value: 'shots', label: 'Shots', testId: 'shots' },
  { value: 'breaks', label: 'Breaks', testId: 'breaks' },
  { value: 'figures', label: 'Figures', testId: 'figures' },
] as const
const shown = computed({
  get: () => (route.params.view || 'shots') as View,
  set: (view) => void router.replace({ name: 'frame', params: { id: props.record.id, view } }),
})

/** Note where the white stopped: as it lies on the plan. */
const noteWhite = ref(false)
const fouling = ref(false)
const chosenTags = ref<Schemas['StrokeTag'][]>([])
const chosenWhy = ref<string[]>([])

/** While a shot is not sent the rules are not asked, and any ball may have been potted. */
const everyBall = ['red', 'yellow', 'green', 'brown', 'blue', 'pink', 'black']
const mayPot = computed(() => (records.pending.length ? everyBall : state.value.mayPot))
/** Whether the last shot was entered here just now: a reason that is tapped then is its. */
const isFresh = ref(false)
const whyOfLast = computed(() => (isFresh.value && records.lastShot?.kind !== 'pot' ? (records.lastShot?.why ?? '') : null))

async function enter(shot: NewShot) {
  const white = position.ball('white')
  const why = chosenWhy.value[0] as Schemas['EndReason']
  await records.enter({
    ...shot,
    ...(noteWhite.value && white ? { white: { x: white.x, y: white.y } } : {}),
    tags: [...chosenTags.value],
    ...(shot.kind !== 'pot' && why ? { why } : {}),
  })
  chosenTags.value = []
  chosenWhy.value = []
  fouling.value = false
  isFresh.value = true
}
/** One reason at a time, or none: of the shot just entered, or of the next. */
const shownWhy = computed(() => (whyOfLast.value ? [whyOfLast.value as string] : chosenWhy.value))
function onlyLast(list: unknown[]) {
  const why = (list.at(-1) ?? '') as string
  if (whyOfLast.value !== null) void records.amend({ why: (why || null) as Schemas['EndReason'] | null })
  else chosenWhy.value = why ? [why] : []
}
const redOrColour = (ball: string) => lookOf(ball === 'red' ? 'red-1' : ball)
const listed = computed(() => story.value.shots.map((s, i) => ({ ...s, number: i + 1 })).reverse())
/** The break that is under way, ball by ball. */
const present = computed(() => presentRun(story.value.shots))
const breaks = computed(() => [...story.value.breaks].reverse())
</script>

<template>
  <div class="record" data-testid="frame-record">
    <div class="now">
      <div class="score">
        <span v-for="(n, i) in names" :key="i" class="side" :class="{ turn: !state.isOver && state.turn === i }"
          ><span class="name">{{ n }}</span
          ><strong class="figure" :data-testid="`score-${i}`">{{ i === 0 ? state.first : state.second }}</strong></span
        >
      </div>
      <p v-if="present" class="present" data-testid="break-balls">
        <strong class="figure">Break {{ present.points }}</strong>
        <BallDot v-for="(b, i) in present.balls" :key="i" :ball="b === 'red' ? 'red-' : b" />
      </p>
      <p class="on" role="status" data-testid="frame-on">{{ onWords(state, names) }}</p>
      <p class="soft">{{ needWords(state) }}</p>
      <div v-if="records.pending.length" class="unsent" role="status" data-testid="unsent-shots">
        <strong>Not sent yet:</strong> {{ records.pending.map((step) => stepWords(step)).join('; ') }}. The score updates once it is sent.
      </div>
      <p v-if="story.fault" class="field-error" role="alert">
        The rest is not known: {{ story.fault.message }} Undo goes back to just before it.
      </p>
      <div v-if="state.awaitsLot" class="row">
        <ElButton
          v-for="(n, i) in names"
          :key="i"
          class="tall"
          :disabled="records.busy"
          :data-testid="`lot-${i}`"
          @click="enter({ kind: 'lot', player: i })"
          >{{ n }} plays first</ElButton
        >
        <ElButton class="tall" :disabled="records.busy" data-testid="undo-shot" @click="records.undo()">Undo</ElButton>
      </div>
      <template v-else-if="!state.isOver">
        <div class="pots" role="group" aria-label="Potted">
          <ElButton
            v-for="b in mayPot"
            :key="b"
            circle
            class="ball"
            :style="{ background: redOrColour(b).fill, color: redOrColour(b).ink }"
            :disabled="records.busy"
            :aria-label="`${b === 'red' ? 1 : redOrColour(b).mark}: potted the ${b}`"
            :data-testid="`pot-${b}`"
            @click="enter({ kind: 'pot', potted: [b] })"
            >{{ b === 'red' ? 1 : redOrColour(b).mark }}</ElButton
          >
          <ElButton
            v-if="mayPot.includes('red') && state.reds > 1"
            class="tall"
            :disabled="records.busy"
            @click="enter({ kind: 'pot', potted: ['red', 'red'] })"
            >two reds</ElButton
          >
        </div>
        <div class="row">
          <ElButton class="tall" :disabled="records.busy" data-testid="missed" @click="enter({ kind: 'miss' })">Missed</ElButton>
          <ElButton class="tall" :disabled="records.busy" data-testid="safety" @click="enter({ kind: 'safety' })">Safety</ElButton>
          <ElButton class="tall" :aria-expanded="fouling" data-testid="foul" @click="fouling = !fouling">Foul …</ElButton>
          <ElButton class="tall" :disabled="records.busy || !records.lastShot" data-testid="undo-shot" @click="records.undo()"
            >Undo</ElButton
          >
        </div>
        <FoulForm v-if="fouling" :state="state" :names="names" :busy="records.busy" @enter="enter" />
        <ElCheckboxGroup v-model="chosenTags" aria-label="How the shot was played">
          <ElCheckboxButton v-for="t in tags" :key="t" :value="t" :data-testid="`tag-${t}`">{{ t }}</ElCheckboxButton>
        </ElCheckboxGroup>
        <ElCheckboxGroup
          :model-value="shownWhy"
          :aria-label="whyOfLast === null ? 'Why it was missed' : 'Why the last shot was missed'"
          @update:model-value="onlyLast"
        >
          <ElCheckboxButton v-for="r in reasons" :key="r.why" :value="r.why" :data-testid="`why-${r.why}`">{{ r.label }}</ElCheckboxButton>
        </ElCheckboxGroup>
        <ElCheckbox v-model="noteWhite" data-testid="note-white">record where the white lies on the plan</ElCheckbox>
        <p class="soft hint">
          One tap records what happened. Add the reason before or after it; choose the kind of stroke first if you want it recorded.
        </p>
      </template>
      <ElButton v-else @click="records.undo()">Undo the last shot</ElButton>
    </div>

    <div class="story">
      <div class="row">
        <OneOf v-model="shown" :options="views" label="Show" />
        <ElButton @click="records.exportAs('csv')">CSV</ElButton>
        <ElButton @click="records.exportAs('json')">JSON</ElButton>
        <ElButton data-testid="all-frames" @click="router.push('/frames')">All frames</ElButton>
      </div>
      <FrameCurve :shots="story.shots" :names="names" />
      <p v-if="!story.shots.length && !records.pending.length" class="soft">
        No shots yet. Tap the ball that was potted, or Missed, Safety or Foul. While a frame is open here, shots played on from a plan are
        recorded in it too.
      </p>
      <ol v-else-if="shown === 'shots'" class="list" data-testid="frame-shots">
        <li v-for="s in listed" :key="s.number">
          <span class="figure soft">{{ s.number }}</span><span>{{ names[s.player] }}: {{ shotWords(s, names) }}</span
          ><span class="figure">{{ s.first }}–{{ s.second }}</span>
        </li>
      </ol>
      <ol v-else-if="shown === 'breaks'" class="list" data-testid="frame-breaks">
        <li v-for="(b, i) in breaks" :key="i">
          <strong class="figure">{{ b.points }}</strong><span>{{ breakWords(b, names) }}</span>
        </li>
        <li v-if="!breaks.length" class="soft">No break yet.</li>
      </ol>
      <ElTable v-else :data="figureRows(story.players)" size="small" data-testid="frame-figures">
        <ElTableColumn prop="label" label="Figure" width="128" />
        <ElTableColumn v-for="(n, i) in names" :key="i" :label="n">
          <template #default="{ row }"
            ><span v-for="line in i === 0 ? row.first : row.second" :key="line" class="line">{{ line }}</span></template
          >
        </ElTableColumn>
      </ElTable>
    </div>
  </div>
</template>

<style scoped>
.record {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: var(--space-4) var(--space-6);
  align-items: start;
}
.now,
.story {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  min-width: 0;
}
p {
  margin: 0;
}
.score {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-3);
}
.side {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
  gap: var(--space-3);
  padding: var(--space-2) var(--space-3);
  border: 1px solid var(--edge);
  border-radius: 8px;
  background: var(--panel-2);
  min-width: 0;
}
.side.turn {
  border-color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.side strong {
  font-size: var(--type-5);
}
.on {
  font-weight: 600;
}
.present {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-1);
  align-items: center;
}
.present strong {
  margin-right: var(--space-3);
}
.pots {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3);
  align-items: center;
}
.pots .el-button + .el-button,
.row .el-button + .el-button {
  margin-left: 0;
}
.ball.el-button {
  width: 50px;
  height: 50px;
  border: 2px solid var(--edge);
  font-size: var(--type-4);
  font-weight: 700;
}
.tall.el-button {
  min-height: 44px;
  flex: 1;
}
.hint {
  font-size: var(--type-2);
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  display: grid;
  grid-template-columns: 2.2em 1fr auto;
  gap: var(--space-3);
  padding: var(--space-2) 0;
  border-top: 1px solid var(--edge);
}
.line {
  display: block;
}
@media (max-width: 860px) {
  .record {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
