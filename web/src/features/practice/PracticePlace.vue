<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed, ref, shallowRef, watch } from 'vue'
import { RouterLink, useRouter } from 'vue-router'
import { ask, askList, client, type Schemas } from '../../api/client'
import { kept } from '../../lib/device'
import { doneShare } from '../../lib/estimates'
import { countWords, daysAgoWords, momentWords } from '../../lib/formats'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { useParts } from '../../lib/useParts'
import { useClub } from '../../position/club'
import LoadingCards from '../../ui/LoadingCards.vue'
import LineButton from '../../ui/LineButton.vue'
import MoreButton from '../../ui/MoreButton.vue'
import OneOf from '../../ui/OneOf.vue'
import SparkLine from '../../ui/SparkLine.vue'
import PlanPicture from '../../table/PlanPicture.vue'
import { useDraft } from '../../position/draft'
import NotTaken from './NotTaken.vue'
import { useRoutines } from './routines'
import { useSession } from './session'
import { amountWords, families, familyNames, ofWords } from './words'

/** What can be practised, a session to begin or to go on with, and those that were. */
const routines = useRoutines()
const sessions = useSession()
const club = useClub()
const router = useRouter()
const notices = useNotices()
const { attempt, busy } = useAttempt()
const position = useDraft()
void attempt(routines.load, 'Could not load the routines')

const search = ref('')
/** Which family is shown; all of them at first. */
const family = ref<string>('all')
const shown = computed(() => {
  const words = search.value.toLowerCase().split(/\s+/).filter(Boolean)
  const found = (routines.list ?? []).filter((r) => words.every((w) => `${r.name} ${r.task}`.toLowerCase().includes(w)))
  return families.flatMap((f) => (family.value === 'all' || family.value === f ? found.filter((r) => r.family === f) : []))
})
const familyChoices = computed(() => [
  { value: 'all', label: 'All' },
  ...families.filter((f) => routines.list?.some((r) => r.family === f)).map((f) => ({ value: f, label: familyNames[f] })),
])

// ---- How each has gone lately ----------------------------------------------------------------------------------
type Tally = Schemas['RoutineTally']
const tallies = shallowRef(new Map<string, Tally>())
watch(
  () => club.ids.players,
  (player) =>
    attempt(async () => {
      const told = await kept(`tallies ${player}`, () =>
        ask(client.GET('/api/practice/statistics', { params: { query: { player: player || undefined } } })),
      )
      if (club.ids.players === player) tallies.value = new Map(told.routines.map((t) => [t.routine, t]))
    }, 'Could not load your results'),
  { immediate: true },
)
/** The last weeks as a line, the last ten in words, and when it was. */
function lately(id: string) {
  const tally = tallies.value.get(id)
  if (!tally) return null
  const weeks = tally.weeks.slice(-8)
  const { scores } = tally
  return {
    line: weeks.map((w) => doneShare(w.share)),
    most: 1,
    words: scores ? `best ${scores.best}` : ofWords(tally.lastTen),
    when: daysAgoWords(tally.lastAt),
  }
}

// ---- Sessions --------------------------------------------------------------------------------------------------
type Item = Schemas['SessionItem']
const past = shallowRef<Item[] | null>(null)
/** Whether the list shows those in the bin. */
const inBin = ref(false)
const loadSessions = () =>
  attempt(async () => {
    const { items, total } = await kept(inBin.value ? 'sessions-bin' : 'sessions', () =>
      askList(
        (range) =>
          client.GET('/api/practice/sessions', { params: { query: { ...range, player: club.ids.players, deleted: inBin.value } } }),
        parts.shown.value,
      ),
    )
    past.value = items
    parts.total.value = total
  }, 'Could not load the sessions')
const parts = useParts(loadSessions, 5)
watch([() => club.ids.players, inBin], loadSessions, { immediate: true })
const open = computed(() => (inBin.value ? null : (past.value?.find((s) => !s.endedAt) ?? null)))

/** Into the bin, where it does not count, until it is restored. */
const remove = (s: Item) =>
  attempt(async () => {
    await ask(client.DELETE('/api/practice/sessions/{id}', { params: { path: { id: s.id }, query: { version: s.version } } }))
    await loadSessions()
    notices.show({
      kind: 'info',
      text: `The session of ${momentWords(s.startedAt)} is in the bin and no longer counts.`,
      action: { label: 'Undo', run: () => void restore(s) },
    })
  }, 'Could not delete it')
const restore = (s: Item) =>
  attempt(async () => {
    await ask(client.POST('/api/practice/sessions/{id}/restore', { params: { path: { id: s.id } } }))
    await loadSessions()
    notices.show({ kind: 'info', text: `The session of ${momentWords(s.startedAt)} is back.` })
  }, 'Could not restore it')

// ---- A plan for one --------------------------------------------------------------------------------------------
const minutes = ref(60)
const lengths = [30, 45, 60, 90, 120].map((m) => ({ value: m, label: `${m} min` }))
const plan = shallowRef<Schemas['SessionPart'][] | null>(null)
const layOut = () =>
  attempt(async () => {
    plan.value = await ask(client.GET('/api/practice/plan', { params: { query: { minutes: minutes.value, player: club.ids.players } } }))
  }, 'No plan')
watch(minutes, () => plan.value && layOut())
const drop = (i: number) => (plan.value = plan.value!.filter((_, k) => k !== i))
const nameOf = (id: string) => (id === 'break' ? 'Stand up, walk, stretch' : routines.nameOf(id))

async function begin(parts: Schemas['SessionPart'][]) {
  const first = parts.find((p) => p.routine !== 'break')
  const id = sessions.begin(
    first ? { routine: first.routine, step: 0, mirrored: false, stroke: null, group: '' } : null,
    parts.map((p) => ({ ...p })),
  )
  await router.push(`/practice/sessions/${id}`)
}
</script>

<template>
  <main class="place wide-place" data-testid="practice-place">
    <div class="head">
      <h1>Practice</h1>
      <p v-if="open" class="open">
        <RouterLink :to="`/practice/sessions/${open.id}`" data-testid="go-on"
          ><strong>Resume the session of {{ momentWords(open.startedAt) }}</strong></RouterLink
        >
        <span class="soft">{{ countWords(open.attempts, 'attempt') }} so far</span>
      </p>
    </div>
    <NotTaken />
    <div class="columns">
      <section aria-labelledby="routines-title">
        <div class="row">
          <h2 id="routines-title">Routines</h2>
          <ElInput
            v-model="search"
            class="search"
            type="search"
            placeholder="Search"
            aria-label="Search the routines"
            clearable
            data-testid="search-routines"
          />
        </div>
        <OneOf v-model="family" class="families" :options="familyChoices" label="Kind of routine" />
        <LoadingCards v-if="!routines.list" />
        <p v-else-if="!shown.length" class="soft">No matches.</p>
        <ul v-else class="gallery">
          <li v-for="r in shown" :key="r.id">
            <RouterLink class="card" :to="`/practice/routines/${r.id}`" :data-testid="`routine-${r.id}`">
              <PlanPicture
                :balls="r.balls"
                :reference="position.reference!"
                :white="r.picture.white"
                :pot="r.picture.pot"
                :areas="r.areas"
              />
              <span class="text">
                <strong>{{ r.name }}</strong>
                <span class="task soft">{{ r.task }}</span>
                <span v-if="lately(r.id)" class="lately" data-testid="lately">
                  <SparkLine :values="lately(r.id)!.line" :most="lately(r.id)!.most" :label="`${r.name} over the weeks`" />
                  <strong class="figure">{{ lately(r.id)!.words }}</strong>
                  <span class="soft">{{ lately(r.id)!.when }}</span>
                </span>
                <span v-else class="soft">{{ amountWords(r) }}</span>
              </span>
            </RouterLink>
          </li>
        </ul>
        <p v-if="routines.list" class="soft own">
          To make your own, set up a position at the <RouterLink to="/table">table</RouterLink>, and press <em>Practise this</em> above the
          plan.
        </p>
      </section>
      <div>
        <section aria-labelledby="plan-title">
          <h2 id="plan-title">A session</h2>
          <div class="row">
            <OneOf v-model="minutes" :options="lengths" label="How long" />
            <ElButton data-testid="lay-out" @click="layOut">Plan one</ElButton>
            <ElButton data-testid="begin-empty" @click="begin([])">Start without a plan</ElButton>
          </div>
          <template v-if="plan">
            <ol class="parts" data-testid="plan">
              <li v-for="(p, i) in plan" :key="i">
                <span :class="{ soft: p.routine === 'break' }">{{ nameOf(p.routine) }}, {{ p.minutes }} min</span>
                <ElButton size="small" text :aria-label="`Leave out ${nameOf(p.routine)}`" @click="drop(i)">Leave out</ElButton>
              </li>
            </ol>
            <ElButton type="primary" :disabled="busy || !plan.length" data-testid="begin" @click="begin(plan)">Begin</ElButton>
          </template>
          <p class="soft caution">
            Back, neck and bridge wrist tire before you feel it. Stand up at the breaks, stop at pain, and put your club’s or a
            physiotherapist’s advice first. One foot stays on the floor.
          </p>
        </section>
        <section aria-labelledby="past-title">
          <h2 id="past-title">Sessions of {{ club.player?.name }}</h2>
          <ul v-if="past?.length" class="list" data-testid="sessions">
            <li v-for="s in past" :key="s.id" class="row">
              <component :is="inBin ? 'span' : RouterLink" class="session" :to="`/practice/sessions/${s.id}`">
                <strong>{{ momentWords(s.startedAt) }}</strong>
                <span>{{ ofWords({ done: s.done, of: s.attempts }) }} done: {{ s.routines.map(nameOf).join(', ') || 'nothing yet' }}</span>
              </component>
              <ElButton
                size="small"
                text
                :aria-label="`${inBin ? 'Restore' : 'Delete'} the session of ${momentWords(s.startedAt)}`"
                :data-testid="inBin ? 'restore-session' : 'delete-session'"
                @click="inBin ? restore(s) : remove(s)"
                >{{ inBin ? 'Restore' : 'Delete' }}</ElButton
              >
            </li>
          </ul>
          <p v-else-if="past && inBin" class="soft">The bin is empty. Deleted sessions wait here until you restore them.</p>
          <p v-else-if="past" class="soft">No sessions yet. Choose a routine and play it, or plan a session.</p>
          <div v-else class="to-come" role="status" aria-label="Loading …"></div>
          <MoreButton :shown="past?.length ?? 0" :total="parts.total.value" @more="parts.more" />
          <p class="row">
            <LineButton @click="router.push('/progress')">Progress over the weeks</LineButton>
            <LineButton data-testid="learn-table" @click="router.push('/practice/learn')"
              >Learn how your table runs, in ten strokes</LineButton
            >
            <LineButton data-testid="train-eye" @click="router.push('/table/now/shot?view=guess')"
              >Train your eye: guess where the white stops</LineButton
            >
            <LineButton data-testid="session-bin" @click="inBin = !inBin">{{ inBin ? 'Back to the sessions' : 'The bin' }}</LineButton>
          </p>
        </section>
      </div>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(320px, 380px);
  gap: 0 var(--space-6);
  align-items: start;
}
@media (max-width: 1000px) {
  .columns {
    grid-template-columns: 1fr;
  }
}
.families {
  margin: var(--space-3) 0 var(--space-4);
  max-width: 100%;
  overflow-x: auto;
  scrollbar-width: thin;
}
.own {
  margin-top: var(--space-5);
}
.card {
  display: flex;
  flex-direction: column;
  flex: 1;
  color: var(--text);
  text-decoration: none;
}
.place .card {
  color: var(--text);
  margin: 0;
}
.card .text {
  display: flex;
  flex-direction: column;
  gap: var(--space-1);
  padding: var(--space-3) var(--space-4) var(--space-3);
  flex: 1;
}
.card .task {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.lately {
  display: flex;
  align-items: center;
  gap: var(--space-3);
  margin-top: auto;
  white-space: nowrap;
}
.lately .soft {
  margin-left: auto;
}
/* Beside the title, whose height it keeps: what is below does not move when it comes. */
.head {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-5);
  align-items: center;
  margin-bottom: var(--space-4);
}
.head h1 {
  margin: 0;
}
.open {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-4);
  align-items: baseline;
  margin: calc(-1 * var(--space-1)) 0;
  padding: var(--space-1) var(--space-4);
  border: 1px solid var(--accent);
  border-radius: 8px;
}
/* At the table the session comes first. */
@media (max-width: 860px) {
  .columns > :last-child {
    order: -1;
  }
}
/* As high as five sessions. */
.to-come {
  height: 340px;
}
.search {
  flex: 1;
  max-width: 280px;
}
h3 {
  font-size: var(--type-3);
  color: var(--text-soft);
  margin: var(--space-4) 0 var(--space-1);
}
.list,
.parts {
  margin: 0;
  padding: 0;
}
.list {
  list-style: none;
}
.list li {
  border-top: 1px solid var(--edge);
}
.list .row {
  flex-wrap: nowrap;
  justify-content: space-between;
}
.list a,
.list .session {
  display: flex;
  flex-direction: column;
  padding: var(--space-3) 0;
  color: var(--text);
  text-decoration: none;
}
.list a:hover strong {
  color: var(--accent);
}
.parts {
  padding-left: var(--space-5);
  margin: var(--space-3) 0;
}
.caution {
  font-size: var(--type-2);
}
</style>
