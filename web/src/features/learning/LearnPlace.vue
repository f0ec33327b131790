<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { RouterLink } from 'vue-router'
import { driftWords, strokeWords } from '../../domain/words'
import { countWords, lengthWords, momentWords, sentence } from '../../lib/formats'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { useClub } from '../../position/club'
import { useClubTable } from '../../position/clubTable'
import { useDraft } from '../../position/draft'
import { provideDrawing } from '../../table/bed'
import CountPlan from '../../table/CountPlan.vue'
import { askName } from '../../ui/askName'
import HandbookLink from '../../ui/HandbookLink.vue'
import OneOf from '../../ui/OneOf.vue'
import FigureTable from './FigureTable.vue'
import { useLearning } from './learning'
import { againstWords, figureNames, gainWords, latelyWords, habitWords, heldWords, lineWords, playerRows, tableRows } from './words'

/** A few strokes that teach most about a table; what counted attempts tell of the player; taken over with a press. */
const learning = useLearning()
const club = useClub()
const notices = useNotices()
const position = useDraft()
const { attempt, busy } = useAttempt()
provideDrawing(computed(() => position.reference!))
const table = useClubTable()

watch([() => club.ids.tables, () => club.ids.cues, () => club.ids.players], () => attempt(learning.load, 'Could not load the table'), {
  immediate: true,
})
const knowledge = computed(() => learning.knowledge)
const choices = computed(() =>
  (knowledge.value?.next ?? []).map((_, i) => ({ value: i, label: ['teaches most', 'second', 'third'][i], testId: `teach-${i}` })),
)
const stroke = computed(() => knowledge.value?.next[learning.chosen])
const aimLine = computed(() => (stroke.value ? [stroke.value.balls[0], stroke.value.towards] : []))
/** Where the white was pointed at. */
const white = ref<{ x: number; y: number } | null>(null)
watch(stroke, () => (white.value = null))
/** How well a thumb shows a place, m. */
const thumb = 0.02

const keep = () =>
  attempt(async () => {
    await learning.seenAt(stroke.value!, white.value!, thumb)
  }, 'Could not keep it')
const standIn = () =>
  attempt(async () => {
    const seen = await learning.playByStandIn(stroke.value!)
    const at = seen.finals.find((f) => f.id === 'white')
    notices.show({ kind: 'info', text: at?.pocket ? 'The made-up table: the white went in.' : 'The made-up table has played it.' })
  }, 'Could not play it')
const remove = (i: number) => attempt(() => learning.remove(knowledge.value!.trials[i]), 'Could not delete it')

const rows = computed(() => tableRows(knowledge.value?.estimates ?? []))
const trialRows = computed(() =>
  (knowledge.value?.trials ?? [])
    .map((t, i) => {
      const end = t.seen.finals.find((f) => f.id === 'white')
      return {
        id: t.id,
        index: i,
        name: `${t.line ? lineWords[t.line] : 'Another stroke'}: ${strokeWords(t.stroke)}`,
        isHeld: knowledge.value!.held[i],
        isStrange: knowledge.value!.strange.includes(i),
        when: momentWords(t.playedAt),
        at: end?.pocket ? 'went in' : '',
      }
    })
    .reverse(),
)
const dots = computed(() =>
  (knowledge.value?.trials ?? [])
    .flatMap((t, i) => t.seen.finals.filter((f) => f.id === 'white' && !f.pocket).map((f) => ({ ...f, i })))
    .map(({ x, y, i }) => ({
      key: String(i),
      number: i + 1,
      x: x ?? 0,
      y: y ?? 0,
      isDone: !!knowledge.value!.held[i],
      isStrong: i === knowledge.value!.trials.length - 1,
      group: '',
    })),
)

const today = () => new Date().toISOString().slice(0, 10)
const takeTable = () =>
  attempt(async () => {
    const name = await askName('Name what you have learnt', `${club.table?.name ?? 'Table'}, ${today()}`, 'Name')
    if (!name) return
    const known = knowledge.value!.estimates.filter((e) => e.narrowed >= 0.1)
    const made = await learning.take('table', name, Object.fromEntries(known.map((e) => [e.name, e.value])))
    notices.show({
      kind: 'info',
      text:
        `${club.table?.name} has the figures you learnt: chances and plans use them from now on.` +
        (made.isFollowed ? '' : ' The position on the table keeps conditions of its own: change them under Conditions.'),
      action: { label: 'Undo', run: () => void attempt(() => learning.undo(made.id), 'Could not undo it') },
    })
  }, 'Could not take them over')

// ---- The player ----
const learnPlayer = () => attempt(learning.loadPlayer, 'Could not learn from your attempts')
const learnt = computed(() => learning.player?.learnt ?? null)
const parts = computed(() => playerRows(learnt.value?.estimates ?? []))
const habits = computed(() => (learnt.value ? habitWords(learnt.value.habits) : []))
const takePlayer = () =>
  attempt(async () => {
    const name = await askName('Name what you have learnt', `${club.player?.name ?? 'Player'}, ${today()}`, 'Name')
    if (!name) return
    const figures = Object.fromEntries(learnt.value!.estimates.filter((e) => e.narrowed >= 0.1).map((e) => [e.name, e.value]))
    const { pace, buttDegrees } = learnt.value!.habits
    // His own five only where it is more than chance, and within what a five may be.
    if (pace.low > 0 || pace.high < 0) figures.paceOfFive = Math.min(8, Math.max(3, learnt.value!.paceOfFive))
    const butt = learnt.value!.naturalElevation
    if (butt != null && buttDegrees && (buttDegrees.low > 0 || buttDegrees.high < 0)) figures.naturalElevation = butt
    const made = await learning.take('player', name, figures)
    notices.show({
      kind: 'info',
      text: `${club.player?.name} strikes with these figures from now on.`,
      action: { label: 'Undo', run: () => void attempt(() => learning.undo(made.id), 'Could not undo it') },
    })
  }, 'Could not take them over')

const learnGain = () => attempt(learning.loadGain, 'Could not work it out')

const takenRows = computed(() =>
  learning.taken.map((t) => ({
    ...t,
    words: Object.entries(t.after)
      .map(([name, v]) => ({ name: figureNames[name]?.name.split(':')[0] ?? name, by: againstWords(t.before[name], v) }))
      .filter((c) => c.by)
      .slice(0, 4)
      .map((c) => `${c.name} ${c.by}`)
      .join('; '),
  })),
)
</script>

<template>
  <main class="place wide-place" data-testid="learn-place">
    <p class="back"><RouterLink to="/practice">Practice</RouterLink></p>
    <h1>Learn your table</h1>
    <p class="task">
      Ten strokes tell how {{ club.table?.name ?? 'this table' }} runs. Play the one below on your table, show where the white stopped, and
      the next one is chosen by what it would tell.
    </p>
    <p v-if="!knowledge" class="soft" role="status">Working out which stroke tells most …</p>
    <div v-else class="beside">
      <div>
        <OneOf v-if="choices.length > 1" v-model="learning.chosen" :options="choices" label="Which stroke" />
        <template v-if="stroke">
          <p class="stroke" data-testid="teaching-stroke">
            <strong>{{ lineWords[stroke.line] }}</strong>: {{ strokeWords(stroke.stroke) }}. Where does it stop?
          </p>
          <CountPlan
            :balls="stroke.balls"
            :table="table"
            :trials="dots"
            :way="aimLine"
            :white="white"
            can-point
            @point="(at) => (white = at)"
          />
          <p class="row">
            <ElButton type="primary" :disabled="!white || busy" data-testid="keep-trial" @click="keep">It stopped here</ElButton>
            <ElButton
              :disabled="busy"
              title="A made-up player on a made-up table, whose figures nobody tells: to try this without a table"
              data-testid="stand-in"
              @click="standIn"
              >Let the made-up table play it</ElButton
            >
            <span v-if="busy" class="soft" role="status">Learning …</span>
            <span v-else-if="!white" class="soft">Touch the plan where the white stopped.</span>
          </p>
        </template>
        <section v-if="trialRows.length" aria-labelledby="trials-title">
          <h2 id="trials-title">{{ sentence(countWords(trialRows.length, 'stroke')) }} so far</h2>
          <p v-if="heldWords(knowledge.held)" data-testid="held">{{ heldWords(knowledge.held) }}</p>
          <ol class="list">
            <li v-for="t in trialRows" :key="t.id" class="row" data-testid="learning-trial">
              <span>
                {{ t.index + 1 }}. {{ t.name }} <span class="soft">{{ [t.when, t.at].filter(Boolean).join(', ') }}</span>
                <em v-if="t.isStrange"> does not fit</em>
                <span v-else-if="!t.isHeld" class="soft"> outside its area</span>
              </span>
              <ElButton size="small" text :aria-label="`Delete stroke ${t.index + 1}`" @click="remove(t.index)">Delete</ElButton>
            </li>
          </ol>
        </section>
      </div>
      <div class="words">
        <section aria-labelledby="known-title">
          <h2 id="known-title">How well it is known <HandbookLink of="learning" what="what strokes tell" /></h2>
          <p class="known" data-testid="knowledge">
            The end of a typical shot is known within <strong class="figure">{{ lengthWords(knowledge.knowledge) }}</strong>
            <span v-if="knowledge.trials.length" class="soft"> ({{ lengthWords(knowledge.knowledgeBefore) }} before the first stroke).</span
            ><template v-else>: each stroke narrows it.</template>
          </p>
          <p v-if="driftWords(knowledge.runsOff) && knowledge.trials.length">{{ driftWords(knowledge.runsOff) }}</p>
          <p v-if="knowledge.trials.length > 2" class="soft">
            These strokes ended {{ lengthWords(knowledge.missBefore) }} from where a match table would have them, and
            {{ lengthWords(knowledge.missAfter) }} from where this one does; the rest is your own spread.
          </p>
          <FigureTable v-if="knowledge.trials.length" :rows="rows" label="Figures of the table" />
          <p>
            <ElButton type="primary" :disabled="busy || knowledge.trials.length < 3" data-testid="take-table" @click="takeTable"
              >Use these figures</ElButton
            >
            <span v-if="knowledge.trials.length < 3" class="soft"> after three strokes at the least</span>
          </p>
        </section>
        <section aria-labelledby="player-title">
          <h2 id="player-title">{{ club.player?.name }}</h2>
          <p class="soft">From attempts that were counted with the place where the white stopped.</p>
          <p><ElButton :disabled="busy" data-testid="learn-player" @click="learnPlayer">Learn from my attempts</ElButton></p>
          <p v-if="learning.player && !learnt" role="status">
            {{ sentence(countWords(learning.player.attempts, 'attempt')) }} with a place: too few. Five are the least, thirty tell
            something.
          </p>
          <template v-if="learnt">
            <p>From {{ countWords(learning.player!.attempts, 'attempt') }}:</p>
            <ul v-if="habits.length" data-testid="habits">
              <li v-for="h in habits" :key="h">{{ h }}</li>
            </ul>
            <p v-else class="soft">Nothing that you do each time: it is scatter.</p>
            <FigureTable :rows="parts" label="Parts of the player’s error" />
            <p><ElButton type="primary" :disabled="busy" data-testid="take-player" @click="takePlayer">Use these figures</ElButton></p>
          </template>
        </section>
        <section aria-labelledby="gain-title">
          <h2 id="gain-title">What to practise</h2>
          <p class="soft">
            How much more a visit to an open table would be worth to {{ club.player?.name }}, were one part of the error smaller by a fifth.
          </p>
          <p><ElButton :disabled="busy" data-testid="learn-gain" @click="learnGain">Work it out</ElButton></p>
          <template v-if="learning.gain">
            <ol data-testid="gain">
              <li v-for="(p, i) in learning.gain.parts" :key="p.part">
                {{ gainWords(p) }}
                <div v-if="i < 3 && p.points.value > 2 * p.points.error" class="soft">{{ latelyWords(p.routines, learning.routines) }}</div>
              </li>
            </ol>
            <p class="soft">
              Breaks of {{ learning.gain.visit.value.toFixed(0) }} ± {{ learning.gain.visit.error.toFixed(0) }} points as you are, from
              {{ learning.gain.visit.strokes }} open tables played with your errors.
              <RouterLink to="/practice">Routines for it</RouterLink>
            </p>
          </template>
        </section>
        <section v-if="takenRows.length" aria-labelledby="taken-title">
          <h2 id="taken-title">Taken over</h2>
          <ul class="list">
            <li v-for="t in takenRows" :key="t.id" class="row" data-testid="taken">
              <span
                ><strong>{{ t.name }}</strong> <span class="soft">{{ momentWords(t.takenAt) }}</span><br /><span class="soft">{{
                  t.words
                }}</span></span
              >
              <span v-if="t.undoneAt" class="soft">undone</span>
              <ElButton v-else size="small" @click="attempt(() => learning.undo(t.id), 'Could not undo it')">Undo</ElButton>
            </li>
          </ul>
        </section>
      </div>
    </div>
  </main>
</template>

<style scoped>
.beside {
  display: grid;
  grid-template-columns: minmax(0, 1.5fr) minmax(300px, 1fr);
  gap: var(--space-5) var(--space-6);
  align-items: start;
}
@media (max-width: 900px) {
  .beside {
    grid-template-columns: minmax(0, 1fr);
  }
}
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3);
  align-items: center;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list .row {
  flex-wrap: nowrap;
  justify-content: space-between;
  border-top: 1px solid var(--edge);
  padding: var(--space-1) 0;
}
</style>
