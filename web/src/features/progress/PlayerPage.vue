<script setup lang="ts">
import { computed } from 'vue'
import { doneShare } from '../../lib/estimates'
import { countWords, figureWords } from '../../lib/formats'
import { useClub } from '../../position/club'
import BallRun from '../../ui/BallRun.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import ProblemText from '../../ui/ProblemText.vue'
import SparkLine from '../../ui/SparkLine.vue'
import { countedWords, formWords, tasks, usePlayerPage } from './playerPage'
import { useProgress } from './progress'
import { sinceWords } from './words'

/** A player's page: best breaks and runs, what goes better, what to work on. */
const props = defineProps<{ id: string }>()
const club = useClub()
void club.loadAll().catch(() => {})
const { answer: page, problem, again } = usePlayerPage(() => props.id)
/** For the lines over the weeks: the page is whole without them. */
const { answer: statistics } = useProgress(() => ({ routine: '', player: props.id, table: '', cue: '', weeks: 0 }))
const lines = computed(() => {
  const routines = (statistics.value?.routines ?? []).filter((r) => r.weeks.length > 1)
  return new Map(routines.map((r) => [r.routine, r.weeks.map((w) => doneShare(w.share))]))
})
const up = computed(() => page.value?.up.slice(0, 4) ?? [])
const todo = computed(() => (page.value ? tasks(page.value) : []))
const isEmpty = computed(() => !!page.value && !page.value.attempts && !page.value.frames)
const toRoutine = (routine: string) => ({ path: '/progress', query: { player: props.id, routine } })
</script>

<template>
  <main class="place wide-place" data-testid="player-page">
    <h1>{{ page?.name ?? club.find('players', id)?.name ?? 'Player' }}</h1>
    <ProblemText v-if="problem" :problem="problem" @again="again" />
    <template v-else>
      <p class="soft counted">
        <template v-if="page">{{ countedWords(page) }}</template>
        <span v-else role="status">Counting …</span>
        <RouterLink :to="{ path: '/progress', query: { player: id } }">Progress</RouterLink>
        <RouterLink :to="`/players/${id}`">Player’s figures</RouterLink>
      </p>
      <p v-if="isEmpty" class="empty">
        Nothing counted yet. Play a routine under <RouterLink to="/practice">Practice</RouterLink> or record a frame under
        <RouterLink to="/frames">Frames</RouterLink>: best runs, form and what to work on then appear here.
      </p>
      <p v-if="statistics && sinceWords(statistics.weeks)" class="since">{{ sinceWords(statistics.weeks) }}</p>
      <div v-if="!isEmpty" class="cards" :aria-busy="!page">
        <section aria-labelledby="best-title">
          <h2 id="best-title">Best</h2>
          <template v-if="page">
            <RouterLink v-for="(b, i) in page.breaks" :key="i" :to="`/frames/${b.frame}/breaks`" class="break" data-testid="page-break">
              <strong class="figure" :class="{ first: i === 0 }">{{ b.points }}</strong>
              <span
                ><BallRun :balls="b.balls" /><span class="soft">{{ b.title }}</span></span
              >
            </RouterLink>
            <p v-if="!page.breaks.length" class="soft">No break recorded in a frame yet.</p>
            <ul v-if="page.runs.length">
              <li v-for="r in page.runs" :key="r.routine">
                <RouterLink :to="toRoutine(r.routine)">{{ r.name }}</RouterLink>
                <span class="figure"
                  ><strong>{{ r.scores.best }}</strong
                  ><span class="soft">
                    best, {{ figureWords(r.scores.typical, 0) }} typical of {{ countWords(r.scores.of, 'run') }}</span
                  ></span
                >
              </li>
            </ul>
          </template>
        </section>
        <section aria-labelledby="up-title">
          <h2 id="up-title">Going up <HandbookLink of="success" what="success in practice" /></h2>
          <template v-if="page">
            <ul v-if="up.length" data-testid="page-up">
              <li v-for="f in up" :key="f.routine">
                <RouterLink :to="toRoutine(f.routine)">{{ f.name }}</RouterLink>
                <SparkLine v-if="lines.get(f.routine)" :values="lines.get(f.routine)!" :most="1" :label="`${f.name} over the weeks`" />
                <span class="figure soft">{{ formWords(f) }}</span>
              </li>
            </ul>
            <p v-else class="soft">Nothing yet. A routine needs 20 attempts before its halves are compared.</p>
          </template>
        </section>
        <section aria-labelledby="work-title">
          <h2 id="work-title">Work on</h2>
          <template v-if="page">
            <ol v-if="todo.length" data-testid="page-tasks">
              <li v-for="t in todo" :key="t.what">
                <strong>{{ t.what }}</strong>
                <span class="figure soft">{{ t.why }}</span>
                <RouterLink v-if="t.routine" :to="`/practice/routines/${t.routine}`">Practise it</RouterLink>
              </li>
            </ol>
            <p v-else class="soft">Nothing stands out. Say why when an attempt fails, and the commonest reason appears here.</p>
          </template>
        </section>
      </div>
    </template>
  </main>
</template>

<style scoped>
.counted {
  margin: 0 0 var(--space-4);
}
.counted a {
  margin-left: var(--space-4);
}
.since {
  font-size: var(--type-4);
  margin: 0 0 var(--space-4);
}
.cards {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(280px, 100%), 1fr));
  gap: var(--space-5);
  align-items: start;
}
/* As high as it will be: nothing jumps when the figures come. */
section {
  min-height: 160px;
  padding: var(--space-4);
  border: 1px solid var(--edge);
  border-radius: var(--radius);
  background: var(--panel);
}
h2 {
  margin-bottom: var(--space-3);
}
ul,
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-1) var(--space-3);
  padding: var(--space-3) 0;
  border-top: 1px solid var(--edge);
}
li .soft {
  flex-basis: 100%;
}
li .figure > .soft {
  flex-basis: auto;
}
.place li a {
  margin-right: auto;
}
.place a.break {
  display: flex;
  align-items: center;
  gap: var(--space-3);
  margin: 0 0 var(--space-3);
  color: var(--text);
  text-decoration: none;
}
.break > span {
  display: flex;
  flex-direction: column;
}
.break strong {
  min-width: 2ch;
  font-size: var(--type-4);
}
.break strong.first {
  font-size: calc(1.6 * var(--type-5));
  line-height: 1;
  color: var(--accent);
}
</style>
