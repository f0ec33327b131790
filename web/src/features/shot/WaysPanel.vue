<script setup lang="ts">
import { computed } from 'vue'
import type { Way } from '../../api/client'
import { nameOf } from '../../domain/balls'
import { useDraft } from '../../position/draft'
import FigureInput from '../../ui/FigureInput.vue'
import { useGoal, type Goal } from './goal'
import { useWays } from './ways'
import { outcomeOf, rankWords, reachWords, sensitivityWords, tipWords, wayWords } from '../../domain/words'

/** Put it there: where the white should stop or what it should run into, and the ways to do it with this pot. */
const position = useDraft()
const goals = useGoal()
const ways = useWays()
const goal = computed(() => goals.goal)
const pot = computed(() => position.stroke.pot)
const targets = computed(() => position.content.balls.map((b) => b.id).filter((id) => id !== 'white' && id !== pot.value?.ball && id !== pot.value?.through))
const percent = (share: number) => `${(share * 100).toFixed(0)} %`
const sentence = (words: string) => words[0].toUpperCase() + words.slice(1)
const mm = (metres: number) => `${(metres * 1000).toFixed(0)} mm`
const best = computed(() => ways.ways?.[0] ?? null)
const letter = (way: Way) => ['A', 'B'][ways.beside.indexOf(ways.keyOf(way))] ?? ''
const fullnesses: { value: Goal['fullness']; label: string }[] = [
  { value: 'any', label: 'any fullness' },
  { value: 'full', label: 'full' },
  { value: 'half', label: 'half-ball' },
  { value: 'fine', label: 'thin' },
]
const speeds: { value: Goal['speed']; label: string }[] = [
  { value: 'any', label: 'at any pace' },
  { value: 'gentle', label: 'gently' },
  { value: 'firm', label: 'firmly' },
]

function place(change: Partial<{ x: number; y: number }>) {
  goal.value.place = { x: position.reference!.length / 2, y: position.reference!.width / 2, ...goal.value.place, ...change }
}

/** Two are laid beside one another, and take the room of what was asked. */
const isBeside = computed(() => !!ways.a && !!ways.b && !ways.problem)

/** What they are told apart by. */
const rows = computed(() => {
  const [a, b] = [ways.a, ways.b]
  if (!a || !b) return []
  const row = (label: string, of: (w: Way) => string) => ({ label, a: of(a), b: of(b) })
  return [
    row('Stroke', (w) => `${tipWords(w.stroke.side ?? 0, w.stroke.height ?? 0)}, pace ${(w.stroke.pace ?? 0).toFixed(1)}`),
    row('Cushions', (w) => String(w.cushions.length)),
    row('Pot and position', (w) => percent(w.both)),
    row('Pot', (w) => percent(w.pot)),
    row('In-off, kiss', (w) => `${percent(w.inOff)}, ${percent(w.kiss)}`),
    row('If long', (w) => outcomeOf(w.long, w.exact)),
    row('If short', (w) => outcomeOf(w.short, w.exact)),
    row('A pace error moves it', (w) => mm(w.sensitivity.pace ?? 0)),
    row('A height error', (w) => mm(w.sensitivity.height ?? 0)),
    row('Reach', (w) => reachWords(w.reach)),
  ]
})
</script>

<template>
  <div class="below-panel" data-testid="ways">
    <div v-if="!isBeside" class="row">
      <span class="joined" role="group" aria-label="What the white should do">
        <button class="key" :aria-pressed="goal.kind === 'stop'" data-testid="goal-stop" @click="goal.kind = 'stop'">Stop here</button>
        <button class="key" :aria-pressed="goal.kind === 'cannon'" data-testid="goal-cannon" @click="goal.kind = 'cannon'">Run into a ball</button>
      </span>
      <template v-if="goal.kind === 'stop'">
        <label>up <FigureInput :model-value="(goal.place?.x ?? 0) * 1000" :min="0" :max="position.reference!.length * 1000" :digits="0" :step="10" label="Place up the table" unit="mm" @update:model-value="place({ x: $event / 1000 })" /></label>
        <label>across <FigureInput :model-value="(goal.place?.y ?? 0) * 1000" :min="0" :max="position.reference!.width * 1000" :digits="0" :step="10" label="Place across" unit="mm" @update:model-value="place({ y: $event / 1000 })" /></label>
        <label>within <FigureInput :model-value="goal.radius * 1000" :min="30" :max="1000" :digits="0" :step="10" label="Within" unit="mm" @update:model-value="goal.radius = $event / 1000" /></label>
      </template>
      <template v-else>
        <select v-model="goal.ball" class="choice" aria-label="Ball to run into" data-testid="goal-ball">
          <option value="">which ball?</option>
          <option v-for="id in targets" :key="id" :value="id">{{ nameOf(id) }}</option>
        </select>
        <select v-model="goal.fullness" class="choice" aria-label="How full">
          <option v-for="f in fullnesses" :key="f.value" :value="f.value">{{ f.label }}</option>
        </select>
        <select v-model="goal.speed" class="choice" aria-label="How fast">
          <option v-for="s in speeds" :key="s.value" :value="s.value">{{ s.label }}</option>
        </select>
      </template>
      <label class="check"><input v-model="ways.plainOnly" type="checkbox" /> no side</label>
      <span v-if="ways.isSearching" class="progress" role="status">
        <progress :value="ways.share" max="1" aria-label="How far the search is" />
        <span class="figure soft">{{ ways.strokes.toLocaleString('en') }} strokes</span>
        <button class="key" data-testid="stop-search" @click="ways.stop()">Stop</button>
      </span>
      <template v-else-if="ways.wasStopped"
        ><span class="soft">stopped</span><button class="key" @click="ways.search()">Go on</button></template
      >
    </div>
    <p v-if="ways.problem" class="field-error" role="alert">{{ ways.problem.message }} {{ ways.problem.detail }} <button class="key" @click="ways.search()">Try again</button></p>
    <p v-else-if="!pot" class="soft">Choose a ball and a pocket first: the white’s way begins with a pot.</p>
    <p v-else-if="!goals.entry" class="soft">{{ goal.kind === 'stop' ? 'Point at the plan where the white should stop. Drag the circle, or its rim, to change it.' : 'Choose the ball that the white should run into after the pot.' }}</p>
    <p v-else-if="ways.ways && !ways.ways.length && !ways.isSearching" class="soft">This pot has no aim from here, so the white cannot be sent anywhere with it. Choose another pot.</p>
    <table v-else-if="isBeside && ways.a && ways.b" class="beside" data-testid="beside">
      <thead>
        <tr>
          <td><button class="key" @click="ways.beside = []">Back to all</button></td>
          <th v-for="(w, i) in [ways.a, ways.b]" :key="i"><button class="key" @click="ways.use(w)">Set up {{ ['A', 'B'][i] }}</button></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="r in rows" :key="r.label" :class="{ differs: r.a !== r.b }">
          <th scope="row">{{ r.label }}</th>
          <td>{{ r.a }}</td>
          <td>{{ r.b }}</td>
        </tr>
      </tbody>
    </table>
    <ol v-else-if="ways.ways || ways.asSet" class="answers list" :class="{ soft: ways.isSearching && !ways.share }" aria-label="Ways, the likeliest first">
      <li v-if="ways.asSet" class="as-set soft">
        <span class="figure chance">{{ percent(ways.asSet.both) }}</span>
        <span>as it is set up now{{ ways.asSet.isMet ? '' : `: ${mm(ways.asSet.off)} off` }}</span>
      </li>
      <li
        v-for="(w, i) in ways.ways ?? []"
        :key="ways.keyOf(w)"
        :class="{ used: ways.isUsed(w) }"
        data-testid="way"
        @mouseenter="ways.pointed = ways.keyOf(w)"
        @mouseleave="ways.pointed = null"
        @focusin="ways.pointed = ways.keyOf(w)"
        @focusout="ways.pointed = null"
      >
        <span class="figure chance"><strong>{{ percent(w.both) }}</strong></span>
        <button class="words" :aria-label="`Set up: ${wayWords(w)}`" @click="ways.use(w)">{{ wayWords(w) }}<em v-if="!w.isMet" class="danger"> – nearest there is, {{ mm(w.off) }} off</em></button>
        <button class="key lay" :aria-pressed="!!letter(w)" :aria-label="`Lay way ${i + 1} beside another`" @click="ways.lay(w)">{{ letter(w) || 'A | B' }}</button>
        <p v-if="ways.isUsed(w) && best" class="why">
          {{ rankWords(w, best) }}. {{ sentence(sensitivityWords(w)) }}.
          Long: {{ outcomeOf(w.long, w.exact) }}. Short: {{ outcomeOf(w.short, w.exact) }}. In-off {{ percent(w.inOff) }}, kiss {{ percent(w.kiss) }}. {{ sentence(reachWords(w.reach)) }}.
        </p>
      </li>
    </ol>
    <p v-else class="soft" role="status">Trying strokes …</p>
  </div>
</template>

<style scoped>
.row :deep(.figure-input) {
  width: 58px;
}
.list {
  overflow: auto;
  min-height: 0;
  flex: 1;
}
.chance {
  text-align: right;
}
.words::first-letter {
  text-transform: uppercase;
}
.lay {
  min-height: 24px;
  padding: 0 8px;
  font-size: 0.85rem;
}
@media (pointer: coarse) {
  .lay {
    min-height: 40px;
  }
}
.why {
  margin: 0 0 3px;
}
.why::first-letter {
  text-transform: uppercase;
}
.beside {
  border-collapse: collapse;
  font-size: 0.92rem;
  font-variant-numeric: tabular-nums;
  display: block;
  overflow: auto;
  min-height: 0;
}
.beside th {
  text-align: left;
  font-weight: 400;
  color: var(--text-soft);
  padding: 1px 14px 1px 6px;
}
.beside td {
  padding: 1px 14px 1px 6px;
}
.beside .differs td {
  font-weight: 600;
}
</style>
