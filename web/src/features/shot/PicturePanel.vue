<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { ElButton, ElSlider } from 'element-plus'
import { computed, defineAsyncComponent, ref } from 'vue'
import { strokeWords, warningWords } from '../../domain/words'
import { fieldWords, problemWords } from '../../lib/problemWords'
import { useShell } from '../../lib/useShell'
import { useShot } from '../../position/shot'
import { useDraft } from '../../position/draft'
import { listedEvents } from '../../position/events'
import { usePlayback } from '../../position/playback'
import { useView } from '../../position/view'
import { eventWords, outcomeWords } from '../../position/words'
import LineButton from '../../ui/LineButton.vue'
import { useEventList } from './eventList'
import { useGoal } from '../../position/goal'
import { useGoOn } from './goOn'
import { useTrials } from './trials'
import OneOf from '../../ui/OneOf.vue'

/** Below the plan: what comes of the shot in a sentence, the playback, and what happens on the way. */
const TrialsBar = defineAsyncComponent(() => import('./TrialsBar.vue'))
const TrialsTray = defineAsyncComponent(() => import('./TrialsTray.vue'))
const answer = useShot()
const position = useDraft()
const playback = usePlayback()
const goals = useGoal()
const { goOn, busy: isGoingOn } = useGoOn()
const view = useView()
const list = useEventList()
/** On a phone there is room for the sentence; the rest unfolds. */
const { isSmall } = useShell()
const isUnfolded = ref(false)
const isWhole = computed(() => !isSmall.value || isUnfolded.value)
// Once the hand rests: while a control is dragged, the path on the plan comes first, and a list that changes with it could not be read anyhow.
const shown = refDebounced(
  computed(() => {
    if (!list.isAll) return { events: list.main.map((e, i) => ({ ...e, number: i < list.main.length - 1 ? i + 1 : null })), more: 0 }
    const all = answer.shot ? listedEvents(answer.shot.simulation) : { list: [], more: 0 }
    return {
      events: all.list.map(({ number, event: e }) => ({
        number,
        time: e.time,
        words: eventWords(e),
        isLoss: e.kind === 'pot' && e.ball === 'white',
      })),
      more: all.more,
    }
  }),
  150,
)
const now = computed(() => shown.value.events.findLastIndex((e) => e.time <= playback.time + 1e-6))
const isRunning = (speed: number) => playback.isPlaying && (speed === 1) === (playback.speed === 1)
const run = (speed: number) => (isRunning(speed) ? playback.pause() : playback.play(speed))
function seek(time: number) {
  playback.pause()
  playback.time = time
}

// ---- What stands below: the lines of strokes, once there are any, or what happens ----
const hasLines = computed(() => view.step === 'shot' && !isSmall.value)
const trials = useTrials()
const chosenBelow = ref<'lines' | 'events' | null>(null)
const below = computed({
  get: () => chosenBelow.value ?? (trials.trials.length ? 'lines' : 'events'),
  set: (to) => (chosenBelow.value = to),
})
const belows: { value: 'lines' | 'events'; label: string; testId: string }[] = [
  { value: 'events', label: 'What happens', testId: 'below-events' },
  { value: 'lines', label: 'Lines', testId: 'below-lines' },
]

// What no control of the desk shows by itself.
const refused = computed(() => {
  const p = position.problem
  if (!p || p.isForLater) return []
  return p.errors.length ? p.errors.filter((e) => !e.field.startsWith('stroke')).map(fieldWords) : [problemWords(p)]
})
</script>

<template>
  <section class="picture" :class="{ phone: isSmall }" aria-label="What the shot does">
    <p v-if="position.problem?.isForLater" class="trying" role="status" data-testid="no-answer">
      {{ problemWords(position.problem) }} Retrying automatically.
    </p>
    <template v-if="refused.length">
      <p v-for="e in refused" :key="e" class="field-error" role="alert">{{ e }}</p>
    </template>
    <p v-else-if="view.isCovered" class="outcome soft" role="status" data-testid="covered">Hidden until you mark where the white stops.</p>
    <p v-else-if="answer.shot && answer.asked" class="outcome" :class="{ stale: answer.isStale }" role="status" data-testid="outcome">
      <RouterLink class="stroke" :to="{ name: 'table', params: { ...$route.params, step: 'shot' } }" title="To the shot">{{
        strokeWords(answer.asked.content.stroke)
      }}</RouterLink>{{ ': ' }}<span v-if="view.isShotHidden" class="soft">is set up on the desk; the plan shows the selected shot.</span
      ><template v-else
        ><strong>{{ outcomeWords(answer.shot) }}</strong
        ><span v-if="goals.warnings.length" class="danger" data-testid="warnings">
          Watch for: {{ goals.warnings.map(warningWords).join('; ') }}.</span
        ></template
      >
    </p>
    <div v-if="!view.isShotHidden && !view.isCovered" class="controls">
      <ElButton data-testid="play" :disabled="!playback.duration" @click="run(1)">{{ isRunning(1) ? 'Pause' : 'Play' }}</ElButton>
      <ElButton v-if="isSmall" :aria-expanded="isUnfolded" data-testid="unfold" @click="isUnfolded = !isUnfolded">{{
        isUnfolded ? 'Fold' : 'What happens'
      }}</ElButton>
      <ElButton v-if="isWhole" :disabled="!playback.duration" @click="run(0.2)">{{ isRunning(0.2) ? 'Pause' : 'Slowly' }}</ElButton>
      <ElSlider
        v-if="isWhole"
        :model-value="playback.time"
        :min="0"
        :max="playback.duration || 1"
        :step="0.01"
        :disabled="!playback.duration"
        :show-tooltip="false"
        aria-label="Moment of the shot, seconds"
        :format-value-text="(t: number) => `${t.toFixed(2)} seconds`"
        data-testid="scrubber"
        @input="seek($event as number)"
      />
      <output v-if="isWhole" class="figure">{{ playback.time.toFixed(2) }} of {{ playback.duration.toFixed(2) }} s</output>
      <ElButton :disabled="playback.time === 0" @click="playback.rewind()">Rewind</ElButton>
      <ElButton
        v-if="isWhole"
        :disabled="!answer.shot || isGoingOn"
        title="Make the table after this stroke the next position"
        data-testid="go-on"
        @click="goOn"
        >Go on from here</ElButton
      >
    </div>
    <div v-if="shown.events.length > 1 && !view.isShotHidden && !view.isCovered && isWhole" class="what">
      <div v-if="hasLines" class="row head">
        <OneOf v-model="below" :options="belows" label="Below the plan" />
        <TrialsBar />
      </div>
      <TrialsTray v-if="hasLines && below === 'lines'" class="tray" />
      <div v-else class="happens">
        <ol class="events" :class="{ all: list.isAll }" aria-label="What happens" data-testid="events">
          <li v-for="(e, i) in shown.events" :key="i" :class="{ now: playback.time > 0 && i === now, danger: e.isLoss }">
            <LineButton @click="seek(e.time)"
              ><span class="number figure">{{ e.number ?? '' }}</span
              >{{ e.words }} <span class="figure soft">{{ e.time.toFixed(1) }} s</span></LineButton
            >
          </li>
          <li v-if="shown.more" class="soft more">and {{ shown.more }} more contacts of the other balls</li>
        </ol>
        <ElButton size="small" class="turn" :aria-expanded="list.isAll" data-testid="all-events" @click="list.isAll = !list.isAll">{{
          list.isAll ? 'Highlights' : 'Everything'
        }}</ElButton>
      </div>
    </div>
    <p v-else-if="shown.events.length < 2 && !view.isShotHidden" class="soft empty">
      Nothing moves yet. Drag the brass diamond to aim, or choose a ball and a pocket.
    </p>
  </section>
</template>

<style scoped>
.picture {
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
  min-height: 0;
  flex: 1;
}
.outcome {
  margin: 0 var(--space-2);
  min-height: 2.6em;
}
.outcome strong {
  font-weight: 600;
}
.stroke {
  display: inline-block;
  color: inherit;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.stroke::first-letter {
  text-transform: uppercase;
}
.controls {
  display: flex;
  gap: var(--space-3);
  align-items: center;
}
.controls .el-slider {
  flex: 1;
  min-width: 90px;
  margin: 0 var(--space-2);
}
.controls .el-button + .el-button {
  margin-left: 0;
}
.controls output {
  white-space: nowrap;
  min-width: 8.6em;
  text-align: right;
}
.what {
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
  min-height: 0;
  flex: 1;
}
.head {
  flex: none;
}
.head > :deep(.bar) {
  flex: 1;
}
.tray {
  flex: 1;
}
.happens {
  flex: 1;
  min-height: 0;
  display: flex;
  gap: var(--space-4);
  align-items: flex-start;
}
.events {
  list-style: none;
  margin: 0;
  padding: 0 0 0 var(--space-2);
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(250px, 100%), 1fr));
  gap: 0 var(--space-5);
  align-content: start;
  overflow: hidden auto;
  min-height: 0;
  flex: 1;
  max-height: 100%;
}
/* What runs over begins below the words, not below the number. */
.events :deep(.words > span) {
  padding-left: 1.4em;
  text-indent: -1.4em;
}
.events .now {
  box-shadow: inset 3px 0 0 var(--accent);
}
.events .soft {
  white-space: nowrap;
}
.turn {
  flex: none;
}
.number {
  display: inline-block;
  min-width: 1.4em;
  text-indent: 0;
  font-weight: 650;
  color: var(--accent);
}
.empty {
  margin: var(--space-2);
}
.phone {
  padding: var(--space-1) var(--space-2) var(--space-2);
  flex: none;
}
.phone .controls,
.phone .what {
  flex-wrap: wrap;
}
.phone .outcome {
  font-size: var(--type-3);
  min-height: 0;
}
.phone .events {
  max-height: 30dvh;
}
</style>
