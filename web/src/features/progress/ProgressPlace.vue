<script setup lang="ts">
import { ElButton, ElTable, ElTableColumn } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { ask, client, exchange, Problem, type Schemas } from '../../api/client'
import { reasonName } from '../../domain/reasons'
import { doneShare } from '../../lib/estimates'
import { figureWords, percentWords, sentence } from '../../lib/formats'
import { useClub } from '../../position/club'
import { useAttempt } from '../../lib/useAttempt'
import { useNotices } from '../../lib/notices'
import ChartBox from '../../ui/ChartBox.vue'
import { useChartInk } from '../../ui/chartInk'
import FilePick from '../../ui/FilePick.vue'
import PickOne from '../../ui/PickOne.vue'
import ProblemText from '../../ui/ProblemText.vue'
import SparkLine from '../../ui/SparkLine.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import RoutineStops from './RoutineStops.vue'
import ShareTable from './ShareTable.vue'
import { useProgress } from './progress'
import { betterWords, shareWords, sinceWords, stanceNames, standardWords, streakWords, weekShare, weekWords } from './words'

/** How it goes: over the weeks, by routine, player, table and cue, with the doubt of every figure. */
const club = useClub()
const route = useRoute()
const router = useRouter()
void club.loadAll().catch(() => {})
const asked = (name: string, otherwise = '') => (typeof route.query[name] === 'string' ? route.query[name] : otherwise)
const filter = computed(() => ({
  routine: asked('routine'),
  player: asked('player', club.ids.players),
  table: asked('table'),
  cue: asked('cue'),
  weeks: Number(asked('weeks', '0')) || 0,
}))
/** Every filter is in the address: it can be sent, and Back goes back. */
const set = (name: string, value: string | number) =>
  router.push({ query: { ...route.query, [name]: value === '' ? undefined : String(value) } })
const setPlayer = (id: string) => router.push({ query: { ...route.query, player: id || 'all' } })
const { answer, problem, isStale, load } = useProgress(() => ({
  ...filter.value,
  player: filter.value.player === 'all' ? '' : filter.value.player,
}))

const players = computed(() => [{ value: 'all', label: 'all players' }, ...club.known.players.map((p) => ({ value: p.id, label: p.name }))])
const tables = computed(() => [{ value: '', label: 'all tables' }, ...club.known.tables.map((t) => ({ value: t.id, label: t.name }))])
const cues = computed(() => [{ value: '', label: 'all cues' }, ...club.known.cues.map((c) => ({ value: c.id, label: c.name }))])
const spans = [
  { value: 0, label: 'all the time' },
  { value: 4, label: 'the last 4 weeks' },
  { value: 12, label: 'the last 12 weeks' },
  { value: 52, label: 'the last year' },
]

const of = computed(() => (answer.value?.of as Required<Schemas['RoutineDetail']> | null) ?? null)
const tally = computed(() => answer.value?.routines.find((r) => r.routine === filter.value.routine) ?? null)
const isRun = computed(() => !!of.value?.scores)
const weeks = computed(() => (tally.value ?? answer.value)?.weeks ?? [])
/** For a coach: the same routine, player beside player. */
const beside = shallowRef<{ label: string; share: Schemas['SuccessRate'] }[]>([])
watch(
  [() => filter.value.routine, () => filter.value.player, () => club.known.players.length],
  async ([routine, player]) => {
    beside.value = []
    if (!routine || player !== 'all') return
    try {
      const all = await Promise.all(
        club.known.players.map(async (p) => ({
          label: p.name,
          share: (await ask(client.GET('/api/practice/statistics', { params: { query: { routine, player: p.id } } }))).of?.all,
        })),
      )
      beside.value = all.filter((b): b is { label: string; share: Schemas['SuccessRate'] } => !!b.share)
    } catch (e) {
      if (!(e instanceof Problem)) throw e
    }
  },
  { immediate: true },
)

const ink = useChartInk()
const picked = ref(-1)
/** Whether the weeks are also listed: the picture comes first. */
const hasFigures = ref(false)
watch(weeks, () => (picked.value = -1))
/** A routine against itself: its typical score, or its share, week by week. */
const lineOf = (t: Schemas['RoutineTally']): { values: number[]; most: number } =>
  t.scores
    ? { values: t.weeks.map((w) => w.typicalScore ?? 0), most: t.scores.best }
    : { values: t.weeks.map((w) => doneShare(w.share)), most: 1 }
const isStandard = computed(() => weeks.value.some((w) => w.standard))
const percents = (share: number) => Math.round(share * 1000) / 10
const weekChart = computed(() => ({
  xAxis: { type: 'category' as const, data: weeks.value.map((w) => weekWords(w.from)) },
  yAxis: isRun.value ? { type: 'value' as const, name: 'points', min: 0 } : { type: 'value' as const, name: 'done, %', min: 0, max: 100 },
  series: isRun.value
    ? [
        { type: 'line' as const, name: 'typical', data: weeks.value.map((w) => w.typicalScore), color: ink.value.main, symbolSize: 9 },
        { type: 'scatter' as const, name: 'best', data: weeks.value.map((w) => w.bestScore), color: ink.value.second, symbolSize: 9 },
      ]
    : [
        // The doubt of each week, from the lowest to the highest that its share may be.
        {
          type: 'bar' as const,
          stack: 'doubt',
          data: weeks.value.map((w) => weekShare(w).low * 100),
          itemStyle: { color: 'transparent' },
          barWidth: 3,
        },
        {
          type: 'bar' as const,
          stack: 'doubt',
          data: weeks.value.map((w) => (weekShare(w).high - weekShare(w).low) * 100),
          itemStyle: { color: ink.value.doubt },
          barWidth: 3,
        },
        { type: 'line' as const, data: weeks.value.map((w) => percents(weekShare(w).share)), color: ink.value.main, symbolSize: 9 },
      ],
}))
const weekLine = computed(() => {
  const w = weeks.value[picked.value]
  if (!w) return 'Point at a week for its figures.'
  if (isRun.value) return `Week of ${weekWords(w.from)}: ${w.share.of} runs, typically ${w.typicalScore}, at best ${w.bestScore}.`
  return w.standard
    ? `Week of ${weekWords(w.from)}: ${standardWords(w.standard)}; ${w.share.done} of ${w.share.of} done as played.`
    : `Week of ${weekWords(w.from)}: ${shareWords(w.share)}.`
})
const runChart = computed(() => ({
  xAxis: { type: 'category' as const, data: (of.value?.lastScores ?? []).map((_, i) => i + 1), name: 'run' },
  yAxis: { type: 'value' as const, name: 'points', min: 0 },
  series: [{ type: 'scatter' as const, data: of.value?.lastScores ?? [], color: ink.value.main, symbolSize: 8 }],
}))
const causeChart = computed(() => {
  const causes = [...(of.value?.causes ?? [])].reverse()
  return {
    grid: { left: 92, right: 30, top: 6, bottom: 24 },
    xAxis: { type: 'value' as const, minInterval: 1 },
    yAxis: { type: 'category' as const, data: causes.map((c) => reasonName(c.reason)) },
    series: [
      {
        type: 'bar' as const,
        data: causes.map((c) => c.times),
        color: ink.value.missed,
        barMaxWidth: 16,
        label: { show: true, position: 'right' as const, color: ink.value.text },
      },
    ],
  }
})
/** By hand and reach, and with the white by a cushion: where there is more than one of a kind. */
const ways = computed(() => {
  const stances = (of.value?.stances ?? []).map((s) => ({ label: stanceNames[s.stance], share: s.share }))
  const [open, cushion] = of.value?.cushion ?? []
  return [
    ...(stances.length > 1 ? stances : []),
    ...(open?.of && cushion?.of
      ? [
          { label: 'white in the open', share: open },
          { label: 'white by a cushion', share: cushion },
        ]
      : []),
  ]
})
const missed = computed(() => of.value?.causes[0]?.missed ?? 0)
const trend = computed(() => {
  const t = of.value?.trend
  if (!t) return ''
  const per = figureWords(t.perAttempt * 10000, 1)
  const error = figureWords(t.error * 10000, 1)
  return `${t.perAttempt > 0 ? '+' : ''}${per} ± ${error} points for each hundred attempts${t.isTold ? '' : ': no more than chance'}.`
})
const counted = (kind: string) => answer.value?.kinds.find((k) => k.kind === kind)?.inRoutines ?? 0
const kinds = computed(() => (answer.value?.kinds ?? []).filter((k) => !k.kind.startsWith('again') && (k.inRoutines || k.inFrames)))
/** Shots that were put back and played again within runs. */
const repeats = computed(() => ({ done: counted('againDone'), of: counted('againDone') + counted('againNot') }))
const notices = useNotices()
const { attempt } = useAttempt()
/** A file of attempts, as it was written here or on another machine: each is there once. */
const bringIn = (file: File) =>
  attempt(async () => {
    const text = await file.text()
    const isCsv = file.name.toLowerCase().endsWith('.csv')
    const answer = isCsv
      ? await exchange('/api/practice/attempts/import/csv', JSON.stringify({ csv: text }))
      : await exchange('/api/practice/attempts/import', text)
    const told = JSON.parse(answer) as Schemas['ImportedAttempts']
    notices.show({ kind: 'info', text: `${told.new} attempts of ${told.attempts} are new, in ${told.sessions} sessions.` })
    await club.loadAll()
    void load()
  }, 'Could not import the file')
const exported = (kind: string) => {
  const query = new URLSearchParams(
    Object.entries({ ...filter.value, player: filter.value.player === 'all' ? '' : filter.value.player, weeks: '' })
      .filter(([, v]) => v)
      .map(([k, v]) => [k, String(v)]),
  )
  return `/api/practice/attempts/export/${kind}?${query.toString()}`
}
</script>

<template>
  <main class="place wide-place" data-testid="progress-place">
    <h1>{{ tally ? tally.name : 'Progress' }}</h1>
    <div class="row filters">
      <PickOne
        :model-value="filter.player"
        :options="players"
        label="Player"
        width="min(190px, 43vw)"
        test-id="filter-player"
        @picked="setPlayer"
      />
      <PickOne :model-value="filter.table" :options="tables" label="Table" width="min(190px, 43vw)" @picked="set('table', $event)" />
      <PickOne :model-value="filter.cue" :options="cues" label="Cue" width="min(170px, 43vw)" @picked="set('cue', $event)" />
      <PickOne :model-value="filter.weeks" :options="spans" label="Time" width="min(160px, 43vw)" @picked="set('weeks', $event)" />
      <RouterLink v-if="filter.player && filter.player !== 'all'" :to="`/progress/player/${filter.player}`" data-testid="to-player-page"
        >Player’s page</RouterLink
      >
      <ElButton v-if="filter.routine" data-testid="all-routines" @click="set('routine', '')">All routines</ElButton>
    </div>
    <ProblemText v-if="problem" :problem="problem" @again="load" />
    <p v-else-if="!answer" class="soft loading" role="status">Counting …</p>
    <div v-else-if="!answer.attempts" class="empty" data-testid="progress-empty">
      <p>
        Nothing has been counted{{ filter.routine || filter.table || filter.cue || filter.weeks ? ' that this asks for' : ' yet' }}. Choose
        a routine under <RouterLink to="/practice">Practice</RouterLink>, play it, and say after each attempt whether it was done: ten are
        enough for a first figure.
      </p>
    </div>
    <div v-else class="columns" :class="{ fading: isStale }">
      <section aria-labelledby="weeks-title">
        <p v-if="!isRun && sinceWords(weeks)" class="since" data-testid="since">{{ sinceWords(weeks) }}</p>
        <h2 id="weeks-title">Week by week <HandbookLink of="success" what="success in practice" /></h2>
        <ChartBox :option="weekChart" label="Share done, week by week" @picked="picked = $event" />
        <p class="soft figure" role="status">{{ weekLine }}</p>
        <p v-if="isStandard" class="soft" data-testid="standard">
          Each routine is compared with itself, weighted as over all the weeks shown (direct standardisation), so a week of easy routines
          does not look like progress.
        </p>
        <p v-if="!isRun" class="soft">Thin bars: 95 % interval.</p>
        <p>
          <ElButton size="small" :aria-expanded="hasFigures" data-testid="weeks-figures" @click="hasFigures = !hasFigures">{{
            hasFigures ? 'Hide the figures' : 'Every week in figures'
          }}</ElButton>
        </p>
        <ElTable v-if="hasFigures" :data="weeks" size="small" data-testid="weeks">
          <ElTableColumn label="Week of" width="90"
            ><template #default="{ row }">{{ weekWords(row.from) }}</template></ElTableColumn
          >
          <ElTableColumn v-if="isRun" label="Runs" width="70"
            ><template #default="{ row }">{{ row.share.of }}</template></ElTableColumn
          >
          <ElTableColumn v-if="isRun" prop="typicalScore" label="Typical" />
          <ElTableColumn v-if="isRun" prop="bestScore" label="Best" />
          <ElTableColumn v-else label="Done"
            ><template #default="{ row }">{{
              row.standard ? `${standardWords(row.standard)}; ${row.share.done} of ${row.share.of} as played` : shareWords(row.share)
            }}</template></ElTableColumn
          >
        </ElTable>
      </section>

      <section v-if="of && tally" aria-labelledby="so-far-title" data-testid="detail">
        <h2 id="so-far-title">So far</h2>
        <template v-if="of.scores">
          <p>
            <strong>{{ of.scores.best }}</strong> at best, <strong>{{ figureWords(of.scores.typical, 0) }}</strong> typically,
            <strong>{{ figureWords(of.scores.lastTen, 0) }}</strong> in the last ten, of {{ of.scores.of }} runs. The target was reached in
            {{ shareWords(of.all) }}.
          </p>
          <ChartBox :option="runChart" label="Scores of the latest runs" />
        </template>
        <dl v-else>
          <dt>All</dt>
          <dd data-testid="all-share">{{ shareWords(of.all) }}</dd>
          <dt>Last ten</dt>
          <dd>{{ of.lastTen.done }} of {{ of.lastTen.of }}</dd>
          <dt>Best ten</dt>
          <dd>{{ of.bestTen.done }} of {{ of.bestTen.of }}: what is remembered</dd>
          <dt v-if="of.typical !== null">Typical</dt>
          <dd v-if="of.typical !== null">{{ percentWords(of.typical) }} in a session: half of them went better</dd>
          <dt v-if="of.longestRun > 1">Runs</dt>
          <dd v-if="of.longestRun > 1">{{ sentence(streakWords(of.longestRun, of.runByLuck)) }}</dd>
          <dt v-if="trend">Trend</dt>
          <dd v-if="trend">{{ trend }}</dd>
        </dl>
        <template v-if="of.better">
          <h3>Better than before?</h3>
          <p data-testid="better">{{ betterWords(of.better) }}</p>
        </template>
        <template v-if="of.betterSide">
          <h3>Side against side</h3>
          <p>
            As laid: {{ shareWords(of.sides[0]) }}. The other side: {{ shareWords(of.sides[1]) }}.
            {{ betterWords(of.betterSide, 'the other side', 'the one as laid', false) }}
          </p>
        </template>
        <template v-if="ways.length > 1">
          <h3>From which stance</h3>
          <ShareTable :rows="ways" data-testid="got-at" />
        </template>
        <template v-if="of.steps.length > 1 && !isRun">
          <h3>Step by step</h3>
          <ShareTable :rows="of.steps.map((share, i) => ({ label: answer!.stepLabels[i] ?? String(i + 1), share }))" label="Step" />
        </template>
        <template v-if="of.causes.length">
          <h3>Why not, of {{ missed }} that were not done</h3>
          <ChartBox :option="causeChart" label="Reasons for misses" :height="`${50 + 24 * of.causes.length}px`" />
        </template>
        <template v-if="beside.length > 1">
          <h3>Player beside player</h3>
          <ShareTable :rows="beside" label="Player" data-testid="beside" />
        </template>
      </section>

      <section v-if="!of || !tally" aria-labelledby="by-routine-title">
        <h2 id="by-routine-title">By routine</h2>
        <ul class="by-routine" data-testid="by-routine">
          <li v-for="r in answer.routines" :key="r.routine">
            <RouterLink :to="{ query: { ...route.query, routine: r.routine } }" :data-testid="`progress-${r.routine}`">{{
              r.name
            }}</RouterLink>
            <SparkLine v-if="r.weeks.length > 1" v-bind="lineOf(r)" :label="`${r.name} over the weeks`" />
            <span v-else></span>
            <span class="share">{{
              r.scores
                ? `typically ${figureWords(r.scores.typical, 0)}, at best ${r.scores.best}, of ${r.scores.of} runs`
                : shareWords(r.all)
            }}</span>
            <span class="figure soft"
              >last ten {{ r.scores ? figureWords(r.scores.lastTen, 0) : `${r.lastTen.done} of ${r.lastTen.of}` }}</span
            >
          </li>
        </ul>
        <p v-if="repeats.of" data-testid="repeats">
          Shots put back and played again in runs: <strong>{{ repeats.done }} of {{ repeats.of }}</strong> worked.
        </p>
        <template v-if="kinds.length">
          <h3>Strokes by kind</h3>
          <ElTable :data="kinds" size="small">
            <ElTableColumn label="Kind"
              ><template #default="{ row }">{{ sentence(row.kind) }}</template></ElTableColumn
            >
            <ElTableColumn prop="inRoutines" label="In runs" width="100" />
            <ElTableColumn prop="inFrames" label="In breaks of frames" width="160" />
          </ElTable>
        </template>
        <p class="row">
          <a :href="exported('csv')" data-testid="export-csv">Attempts as CSV</a>
          <a :href="exported('json')" data-testid="export-json">as JSON</a>
          <FilePick accept=".json,.csv,application/json,text/csv" test-id="import-attempts" @picked="bringIn">Import attempts</FilePick>
        </p>
      </section>
      <section v-if="of?.stops.length">
        <RoutineStops :stops="of.stops" :labels="answer.stepLabels" :routine="filter.routine" />
      </section>
    </div>
  </main>
</template>

<style scoped>
.since {
  font-size: var(--type-4);
  margin: 0 0 var(--space-3);
}
.filters {
  margin-bottom: var(--space-3);
}
.columns {
  display: grid;
  /* No wider than the window, whatever a table in it would like. */
  grid-template-columns: minmax(0, 1fr);
  gap: var(--space-3) var(--space-6);
  align-items: start;
}
@media (min-width: 960px) {
  .columns {
    grid-template: auto 1fr / 1fr 1fr;
  }
  /* Figures beside the chart, however many: what is below the chart does not wait for them. */
  .columns > :nth-child(2) {
    grid-area: 1 / 2 / span 2;
  }
}
.loading {
  min-height: 420px;
}
.by-routine {
  list-style: none;
  margin: var(--space-2) 0 0;
  padding: 0;
}
.by-routine li {
  display: grid;
  grid-template-columns: minmax(7em, 1fr) 110px minmax(0, 2.4fr) 7.5em;
  gap: var(--space-1) var(--space-4);
  align-items: center;
  padding: var(--space-2) 0;
  border-top: 1px solid var(--edge);
  font-size: var(--type-2);
}
.by-routine .figure {
  margin: 0;
  min-height: 0;
}
@media (max-width: 520px) {
  .by-routine li {
    grid-template-columns: 1fr 110px;
  }
  .by-routine .figure {
    text-align: right;
  }
}
.columns.fading {
  opacity: 0.6;
}
.figure {
  min-height: 1.4em;
  margin: var(--space-1) 0 var(--space-2);
  font-variant-numeric: tabular-nums;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: var(--space-2) var(--space-5);
  margin: 0;
}
dt {
  color: var(--text-soft);
}
dd {
  margin: 0;
}
h3 {
  font-size: var(--type-3);
  margin: var(--space-4) 0 var(--space-2);
}
p {
  margin: var(--space-2) 0;
}
</style>
