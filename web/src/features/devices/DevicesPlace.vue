<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed, onBeforeUnmount, ref, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { isRed, nameOf } from '../../domain/balls'
import { countWords, dayWords, figureWords, momentWords, sentence } from '../../lib/formats'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { useClub } from '../../position/club'
import { useDraft } from '../../position/draft'
import PlanPicture from '../../table/PlanPicture.vue'
import { askName } from '../../ui/askName'
import FilePick from '../../ui/FilePick.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import { useDevices } from './devices'
import TimingChart from './TimingChart.vue'
import { mostCompared, useTiming } from './timing'
import {
  becameWords,
  cameraStrokeWords,
  comparisonWords,
  doubtWords,
  figureLine,
  phaseWords,
  stateWords,
  tallyWords,
  timingWords,
  weekWords,
  type CameraStroke,
} from './words'

/** A camera over the table and a sensor on the cue: what is connected, what it has sent, and what was made of it. */
const devices = useDevices()
const timing = useTiming()
const club = useClub()
const position = useDraft()
const notices = useNotices()
const router = useRouter()
const { attempt, busy } = useAttempt()
/** What is read at first keeps nobody from doing something. */
const { attempt: reading } = useAttempt()

void reading(devices.load, 'Could not load the cameras')
watch(
  () => club.ids.players,
  () => reading(timing.load, 'Could not load the strokes of the cue'),
  { immediate: true },
)
onBeforeUnmount(devices.leave)

// ---- The camera ----
const camera = computed(() => devices.camera)
const goals = computed(() => [
  { value: 'none' as const, label: 'Only keep them', testId: 'goal-none' },
  ...(devices.session ? [{ value: 'session' as const, label: 'Count in the session', testId: 'goal-session' }] : []),
  ...(devices.frame ? [{ value: 'frame' as const, label: 'Write into the frame', testId: 'goal-frame' }] : []),
])
const wanted = ref<'none' | 'session' | 'frame'>('none')
const goal = computed({
  get: () => (camera.value?.goal.kind as 'none' | 'session' | 'frame' | undefined) ?? wanted.value,
  set: (kind) => {
    wanted.value = kind
    if (camera.value) void attempt(() => devices.save({ goal: kind }), 'Could not change it')
  },
})
const plays = ref<'frame' | 'stroke'>('frame')
const playChoices = [
  { value: 'frame' as const, label: 'A frame', testId: 'plays-frame' },
  { value: 'stroke' as const, label: 'The stroke set up', testId: 'plays-stroke' },
]
const start = () => attempt(() => devices.startStandIn(plays.value, goal.value), 'Could not start it')
const stop = () => attempt(devices.stopStandIn, 'Could not stop it')
const connect = () =>
  attempt(async () => {
    const name = await askName('Name the camera', 'Over the table', 'Name')
    if (name) await devices.connect(name)
  }, 'Could not connect it')
const forget = () => attempt(() => devices.remove(camera.value!.id), 'Could not delete it')
const cameraChoices = computed(() => (devices.cameras ?? []).map((c) => ({ value: c.id, label: c.name })))
const followed = computed({
  get: () => camera.value?.id ?? '',
  set: (id) => devices.follow(devices.cameras!.find((c) => c.id === id)!),
})
const lastWay = computed(() => devices.newest?.stroke.paths.find((p) => p.ball === 'white')?.points.map(([, x, y]) => ({ x, y })) ?? [])
const otherWay = computed(() => {
  const s = devices.newest?.stroke
  return s?.paths.find((p) => p.ball === s.first)?.points.map(([, x, y]) => ({ x, y })) ?? []
})
const tally = computed(() => tallyWords(camera.value?.tally ?? {}))
function layOut() {
  devices.layOut()
  void router.push('/table')
}

// ---- That was wrong ----
const mending = ref<{ id: string; first: string; gone: Record<string, boolean> } | null>(null)
const mended = computed(() => devices.strokes.find((s) => s.id === mending.value?.id))
function mend(s: CameraStroke) {
  mending.value = {
    id: s.id,
    first: s.stroke.first ?? '',
    gone: Object.fromEntries(s.stroke.gone.map((g) => [g.ball, true])),
  }
}
const ballsOf = (s: CameraStroke) => s.stroke.before.map((b) => b.id)
const firstChoices = computed(() => [
  { value: '', label: 'no ball' },
  ...(mended.value ? ballsOf(mended.value).filter((b) => b !== 'white') : []).map((b) => ({ value: b, label: nameOf(b) })),
])
/** Of reds only those that went: one stands for any. */
const goneChoices = computed(() => {
  if (!mended.value) return []
  const went = mended.value.stroke.gone.map((g) => g.ball)
  const all = ballsOf(mended.value)
  const spare = all.find((b) => isRed(b) && !went.includes(b))
  return all.filter((b) => !isRed(b) || went.includes(b) || b === spare)
})
const drop = (s: CameraStroke) =>
  attempt(async () => {
    await devices.drop(s.id)
    mending.value = null
    notices.show({ kind: 'info', text: 'Dropped: what was made of it is taken back.' })
  }, 'Could not drop it')
const correct = () =>
  attempt(async () => {
    const { id, first, gone } = mending.value!
    const known = mended.value!.stroke.gone
    await devices.correct(id, {
      version: mended.value!.version,
      first: first || null,
      gone: Object.entries(gone)
        .filter(([, isGone]) => isGone)
        .map(([ball]) => ({ ball, pocket: known.find((g) => g.ball === ball)?.pocket ?? null })),
    })
    mending.value = null
    notices.show({ kind: 'info', text: 'Put right, and with it what was made of it.' })
  }, 'Could not put it right')

// ---- The cue ----
const timings = [
  { value: 'well', label: 'Well timed' },
  { value: 'slowing', label: 'Slowing' },
  { value: 'hurried', label: 'Hurried' },
  { value: 'uneven', label: 'Uneven' },
] as const
const standInCue = (kind: (typeof timings)[number]['value']) => attempt(() => timing.standIn(kind), 'Could not play it')
const readFile = (file: File) => attempt(() => timing.read(file), 'Could not read the file')
const present = computed(() => timing.shown[timing.shown.length - 1] ?? null)
const isChosen = (id: string) => timing.chosen.includes(id)
const choose = (id: string) => attempt(() => timing.choose(id), 'Could not compare them')
</script>

<template>
  <main class="place wide-place" data-testid="devices-place">
    <p class="back"><RouterLink to="/settings">Settings</RouterLink></p>
    <h1>Devices</h1>
    <div class="beside">
      <section aria-labelledby="camera-title">
        <h2 id="camera-title">Camera over the table <HandbookLink of="devices" what="what devices tell" /></h2>
        <p class="task">
          It sends where the balls are; strokes are found in it, and counted or written down without a tap. A made-up camera shows how it
          goes.
        </p>
        <p class="row">
          <OneOf v-model="plays" :options="playChoices" label="What the made-up camera shows" />
          <ElButton type="primary" :disabled="busy" data-testid="start-camera" @click="start">Start a made-up camera</ElButton>
          <ElButton :disabled="busy" data-testid="connect-camera" @click="connect">Connect a camera</ElButton>
        </p>
        <p v-if="goals.length > 1" class="row">
          <span>Its strokes:</span>
          <OneOf v-model="goal" :options="goals" label="Where its strokes go" />
        </p>
        <p v-else class="soft">Open a session or a frame, and its strokes can be counted there.</p>
        <template v-if="camera">
          <p class="row" data-testid="camera-state">
            <PickOne v-if="cameraChoices.length > 1" v-model="followed" :options="cameraChoices" label="Camera" width="190px" />
            <strong v-else>{{ camera.name }}</strong>
            <span :class="camera.isOn ? 'on' : 'soft'">{{ stateWords(camera) }}</span>
            <ElButton v-if="camera.isStandIn && camera.isOn" size="small" :disabled="busy" data-testid="stop-camera" @click="stop"
              >Stop</ElButton
            >
            <ElButton size="small" :disabled="!camera.balls.length" data-testid="lay-out" @click="layOut">Lay it out on the table</ElButton>
            <ElButton size="small" text :disabled="busy" @click="forget">Delete</ElButton>
          </p>
          <p v-if="!camera.isStandIn && !camera.seenAt" class="soft">
            Send its lines to <code>/api/camera/{{ camera.id }}/stream</code>, as docs/devices.md says.
          </p>
          <PlanPicture v-if="position.reference" :balls="camera.balls" :reference="position.reference" :white="lastWay" :pot="otherWay" />
          <p v-if="tally.length" class="soft" data-testid="tally">{{ sentence(tally.join('; ')) }}.</p>
          <h3>{{ sentence(countWords(devices.strokes.length, 'stroke')) }}</h3>
          <p v-if="!devices.strokes.length" class="soft">A stroke is listed once everything has come to rest.</p>
          <ol class="list" aria-live="polite">
            <li v-for="s in devices.strokes.slice(0, 30)" :key="s.id" data-testid="camera-stroke">
              <div class="row">
                <span :class="{ dropped: s.isDropped }">
                  {{ cameraStrokeWords(s) }}{{ ' ' }}<span class="soft">{{ becameWords(s) }}</span
                  >{{ ' ' }}<em v-if="s.stroke.doubts.length">{{ doubtWords(s.stroke.doubts) }}</em>
                </span>
                <ElButton v-if="!s.isDropped" size="small" text data-testid="was-wrong" @click="mend(s)">That was wrong</ElButton>
              </div>
              <div v-if="mending?.id === s.id" class="mend" data-testid="mend">
                <label class="row">
                  <span>Met first</span>
                  <PickOne v-model="mending.first" :options="firstChoices" label="Met first" test-id="mend-first" />
                </label>
                <div class="row" role="group" aria-label="Went in">
                  <span>Went in</span>
                  <ElCheckbox v-for="b in goneChoices" :key="b" v-model="mending.gone[b]" :label="nameOf(b)" />
                </div>
                <p class="row">
                  <ElButton type="primary" size="small" :disabled="busy" data-testid="mend-save" @click="correct">Put it right</ElButton>
                  <ElButton size="small" :disabled="busy" data-testid="mend-drop" @click="drop(s)">Drop it: no stroke</ElButton>
                  <ElButton size="small" text @click="mending = null">Leave it</ElButton>
                </p>
              </div>
            </li>
          </ol>
        </template>
      </section>
      <section aria-labelledby="cue-title">
        <h2 id="cue-title">Timing of the cue</h2>
        <p class="task">
          A sensor on the cue sends how far it has come. What counts is whether the speed still rises when the tip meets the ball.
        </p>
        <p class="row">
          <FilePick accept=".csv,.json,text/csv,application/json" test-id="cue-file" @picked="readFile">Open a file</FilePick>
          <span class="soft">or a made-up stroke:</span>
          <ElButton
            v-for="t in timings"
            :key="t.value"
            size="small"
            :disabled="busy"
            :data-testid="`cue-${t.value}`"
            @click="standInCue(t.value)"
            >{{ t.label }}</ElButton
          >
        </p>
        <p v-if="timing.kept && !timing.kept.strokes.length" class="soft">Nothing has been measured of {{ club.player?.name }} yet.</p>
        <template v-if="present">
          <TimingChart :strokes="timing.shown" />
          <p class="verdict" data-testid="timing-verdict">{{ timingWords(present.timing) }}</p>
          <p class="soft">{{ sentence(phaseWords(present.timing).join(', ')) }}.</p>
          <template v-if="timing.comparison.length">
            <p data-testid="timing-comparison">{{ comparisonWords(timing.comparison) }}</p>
            <ul class="plain">
              <li v-for="f in timing.comparison" :key="f.name" :class="f.scatters ? '' : 'soft'">{{ figureLine(f) }}</li>
            </ul>
          </template>
          <h3>{{ sentence(countWords(timing.kept!.strokes.length, 'stroke')) }} of {{ club.player?.name }}</h3>
          <p class="soft">Up to {{ mostCompared }} lie over one another.</p>
          <ol class="list">
            <li v-for="s in timing.kept!.strokes.slice(0, 20)" :key="s.id" class="row" data-testid="cue-stroke">
              <ElCheckbox :model-value="isChosen(s.id)" @change="choose(s.id)">
                {{ momentWords(s.at) }}, {{ figureWords(s.timing.speed.value, 1) }} m/s
                <span class="soft">{{ timingWords(s.timing).split(/[,:.]/)[0] }}</span>
              </ElCheckbox>
              <ElButton size="small" text :disabled="busy" @click="attempt(() => timing.remove(s), 'Could not delete it')">Delete</ElButton>
            </li>
          </ol>
          <h3>Week by week</h3>
          <ul class="plain" data-testid="cue-weeks">
            <li v-for="w in timing.kept!.weeks" :key="w.monday">
              From {{ dayWords(w.monday) }}: {{ countWords(w.strokes, 'stroke') }}, {{ weekWords(w) }}
            </li>
          </ul>
        </template>
      </section>
    </div>
  </main>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: var(--space-5) var(--space-6);
  align-items: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-3);
  align-items: center;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list > li {
  border-top: 1px solid var(--edge);
  padding: var(--space-1) 0;
}
.list .row {
  justify-content: space-between;
}
.list > .row,
.list > li > .row {
  flex-wrap: nowrap;
}
.mend {
  padding: var(--space-2) var(--space-3);
  border-left: 2px solid var(--accent);
}
.mend .row {
  justify-content: flex-start;
}
.plain {
  margin: 0;
  padding-left: var(--space-4);
}
.dropped {
  text-decoration: line-through;
  opacity: 0.7;
}
.on {
  color: var(--accent);
}
.verdict {
  font-weight: 600;
}
code {
  overflow-wrap: anywhere;
}
/* A line of the list, not a word beside a box. */
.list :deep(.el-checkbox) {
  height: auto;
  min-height: 32px;
  margin-right: 0;
  white-space: normal;
}
</style>
