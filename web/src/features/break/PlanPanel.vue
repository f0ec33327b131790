<script setup lang="ts">
import { computed, ref } from 'vue'
import { isRed, lookOf, nameOf, pocketName } from '../../domain/balls'
import FigureInput from '../../ui/FigureInput.vue'
import { fullnessWords, percentWords, reachWords, warningWords } from '../../domain/words'
import { useJudgements } from '../shot/judgements'
import FrameFields from './FrameFields.vue'
import { coverWords, frameWords, isAgainst, lacksWords, planStrokeWords, potWords, reasonWords, worthWords } from './words'
import { usePlans } from './plans'

/** Plan a break: the plans as strips of shots, the shot that is looked at with its reasons, and playing on. */
const plans = usePlans()
const judgements = useJudgements()
const opened = ref<'' | 'frame' | 'wishes'>('')
const beside = ref(false)
const toggle = (what: 'frame' | 'wishes') => (opened.value = opened.value === what ? '' : what)
const letter = (i: number) => String.fromCharCode(65 + i)
const shown = computed(() => plans.shown)
const isFirst = computed(() => plans.shot === 0)

const shortPocket = (pocket: string) => pocketName(pocket).replace('-side', '')
const prospect = computed(() => plans.chosen?.prospect ?? null)
const endWords = computed(() => {
  const p = prospect.value
  if (!p || !plans.chosen) return ''
  const at = plans.chosen.shots[p.endsAt]
  const where = at ? `shot ${p.endsAt + 1}, the ${isRed(at.choice.nominated) ? 'red' : nameOf(at.choice.nominated)}` : `shot ${p.endsAt + 1}`
  return p.cleared > 0.5 ? `clears ${percentWords(p.cleared)} of the time` : `ends most often at ${where} (${percentWords(p.endsShare)})`
})
</script>

<template>
  <div class="below-panel" data-testid="plan-panel">
    <div class="row">
      <span v-if="plans.frame" class="frame-words" data-testid="frame-words">{{ frameWords(plans.frame) }}</span>
      <button class="key" :aria-expanded="opened === 'frame'" data-testid="frame-fields" @click="toggle('frame')">Frame</button>
      <button class="key" :aria-expanded="opened === 'wishes'" data-testid="wishes" @click="toggle('wishes')">Wishes</button>
      <select v-if="plans.saved.length" class="choice" aria-label="Kept plans" data-testid="kept-plans" value="" @change="plans.open(($event.target as HTMLSelectElement).value), (($event.target as HTMLSelectElement).value = '')">
        <option value="" disabled>Kept plans ({{ plans.saved.length }})</option>
        <option v-for="s in plans.saved" :key="s.id" :value="s.id">{{ s.name }}</option>
      </select>
      <span v-if="plans.isSearching" class="progress" role="status">
        <template v-if="plans.answer?.wait">waiting: {{ plans.answer.wait.ahead }} ahead, about {{ plans.answer.wait.seconds.toFixed(0) }} s</template>
        <template v-else>
          <progress :value="plans.answer?.share ?? 0" max="1" aria-label="How far the plan is" />
          <span class="figure soft">{{ (plans.answer?.examined ?? 0).toLocaleString('en') }} positions</span>
        </template>
        <button class="key" data-testid="stop-plan" @click="plans.stop()">Stop</button>
      </span>
      <template v-else-if="plans.wasStopped"><span class="soft">stopped</span><button class="key" @click="plans.search()">Go on</button></template>
    </div>
    <FrameFields v-if="opened === 'frame'" />
    <div v-if="opened === 'wishes'" class="row wishes">
      <select v-model="plans.preferences.target" class="choice" aria-label="Play for" data-testid="target">
        <option value="mostPoints">as many points as there are</option>
        <option value="score">a break of …</option>
        <option value="clear">clear the table</option>
      </select>
      <FigureInput v-if="plans.preferences.target === 'score'" v-model="plans.preferences.score" :min="1" :max="plans.frame?.highestBreak ?? 155" :digits="0" :step="1" label="Break to play for" />
      <select v-model="plans.preferences.risk" class="choice" aria-label="How much a miss is minded">
        <option value="careful">careful</option>
        <option value="balanced">balanced</option>
        <option value="bold">bold</option>
      </select>
      <label><input v-model="plans.preferences.plainOnly" type="checkbox" /> no side</label>
      <label><input v-model="plans.preferences.avoidCannons" type="checkbox" /> avoid cannons</label>
    </div>

    <p v-if="plans.problem" class="field-error" role="alert" data-testid="plan-problem">
      <template v-if="plans.problem.errors.length">{{ plans.problem.errors.map((e) => `${e.message} Allowed: ${e.allowed}.`).join(' ') }}</template>
      <template v-else>{{ plans.problem.message }} {{ plans.problem.detail }}</template>
      <button class="key" @click="plans.search()">Try again</button>
    </p>
    <p v-else-if="plans.answer && plans.answer.share === 1 && !plans.plans.length" class="soft" data-testid="nothing-on">
      No ball on can be potted from here. This is a time for safety: what matters first is that no pot is left.
      <button class="key" data-testid="to-decide" @click="judgements.below = 'decide'">Decide: safeties and escapes</button>
    </p>
    <p v-else-if="!plans.plans.length" class="soft" role="status">Looking for the shot …</p>
    <template v-else>
      <div class="strip-row">
        <span class="joined plans" role="group" aria-label="Plans, the best first">
          <button v-for="(p, i) in plans.plans" :key="i" class="key" :aria-pressed="plans.plan === i && !beside" :data-testid="`plan-${letter(i)}`" @click="(beside = false), plans.look(0, i)">
            {{ letter(i) }} <small class="figure">{{ worthWords(p.shots[0].choice, plans.unit) }}</small>
          </button>
          <button class="key" :aria-pressed="beside" title="The first shots beside one another, and why they rank lower" data-testid="beside-plans" @click="beside = !beside">Why not …</button>
        </span>
        <ol v-if="plans.chosen" class="strip" aria-label="Shots of the plan" data-testid="strip">
          <li v-for="(s, i) in plans.chosen.shots" :key="i">
            <button :class="{ chosen: plans.shot === i }" :aria-pressed="plans.shot === i" :title="potWords(s.choice)" data-testid="plan-shot" @click="(beside = false), plans.look(i)">
              <span class="line"
                ><i class="dot" :style="{ background: lookOf(s.choice.nominated).fill, color: lookOf(s.choice.nominated).ink }">{{ isRed(s.choice.nominated) ? '' : lookOf(s.choice.nominated).mark }}</i
                >{{ shortPocket(s.choice.stroke.pot!.pocket) }}</span
              >
              <span class="line figure soft"
                >{{ percentWords(s.choice.chance) }}<strong>{{ s.points }}</strong></span
              >
            </button>
          </li>
        </ol>
      </div>

      <table v-if="beside" class="others" data-testid="alternatives">
        <thead>
          <tr>
            <th scope="col">First shot</th>
            <th scope="col">Goes in</th>
            <th scope="col">Leaves</th>
            <th scope="col">Why it ranks so</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="(a, i) in plans.answer!.alternatives" :key="i">
            <td>{{ potWords(a.choice) }}: {{ planStrokeWords(a.choice, null) }}</td>
            <td class="figure">{{ percentWords(a.choice.chance) }}</td>
            <td class="figure">{{ a.choice.next.ball ? `${nameOf(a.choice.next.ball)}, ${percentWords(a.choice.next.chance)}` : 'nothing' }}</td>
            <td>{{ lacksWords(a, plans.answer!.alternatives[0].choice, plans.unit) }}</td>
          </tr>
        </tbody>
      </table>
      <div v-else-if="shown" class="detail" data-testid="plan-detail">
        <div class="row deeds">
          <template v-if="isFirst">
            <button class="key chosen" data-testid="potted" @click="plans.playOn()">Potted as planned</button>
            <span class="joined" role="group" aria-label="Missed">
              <button class="key" data-testid="missed-thick" @click="plans.playOn('thick')">Missed thick</button>
              <button class="key" data-testid="missed-thin" @click="plans.playOn('thin')">thin</button>
            </span>
            <button class="key" data-testid="set-up" @click="plans.setUp()">Set up on the desk</button>
          </template>
          <template v-else>
            <span class="soft">The table before shot {{ plans.shot + 1 }}, if all goes as meant.</span>
            <button class="key chosen" data-testid="go-there" @click="plans.goThere()">Set this table up</button>
            <button class="key" @click="plans.look(0)">Back to now</button>
          </template>
          <button class="key" :disabled="plans.isSearching" data-testid="keep-plan" @click="plans.keep()">Keep the plan</button>
          <button class="key" data-testid="print-plan" @click="plans.print()">Cards as PDF</button>
        </div>
        <p class="what">
          <strong>{{ plans.shot + 1 }}. {{ potWords(shown.choice) }}:</strong> {{ planStrokeWords(shown.choice, shown.arrival) }}. {{ Math.abs(shown.choice.cutDegrees).toFixed(0) }}°, {{ fullnessWords[shown.choice.fullnessWord] }}; goes in
          {{ percentWords(shown.choice.chance) }}, gets so far {{ percentWords(shown.alive) }}{{ shown.choice.foul >= 0.01 ? `, foul ${percentWords(shown.choice.foul)}` : '' }}{{ shown.choice.reach.stance !== 'natural' || shown.choice.reach.elevationDegrees > 0 ? `; ${reachWords(shown.choice.reach)}` : '' }}.
        </p>
        <ul v-if="shown.reasons.length" class="reasons" aria-label="Why" data-testid="reasons">
          <li v-for="(r, i) in shown.reasons" :key="i" :class="{ against: isAgainst(r) }">{{ reasonWords(r) }}</li>
        </ul>
        <p class="soft">
          If long: {{ coverWords(shown.long) }}. If short: {{ coverWords(shown.short) }}.
          <span v-if="shown.warnings.length" class="danger">Mind: {{ shown.warnings.slice(0, 4).map(warningWords).join('; ') }}.</span>
        </p>
        <p v-if="prospect" class="soft" data-testid="prospect">
          Plan {{ letter(plans.plan) }} played out {{ prospect.breaks }} times with your errors, later shots at a quick look: {{ prospect.points.toFixed(0) }} points on the average, half of the breaks {{ prospect.median }} or more<template v-if="prospect.target !== null && prospect.target !== undefined">, target reached {{ percentWords(prospect.target) }}</template>; {{ endWords }}.
        </p>
      </div>
    </template>
  </div>
</template>

<style scoped>
.frame-words {
  margin: 0 4px;
  font-variant-numeric: tabular-nums;
}
.wishes :deep(.figure-input) {
  width: 58px;
}
.strip-row {
  display: flex;
  gap: 8px;
  align-items: stretch;
  min-width: 0;
}
.plans {
  flex: none;
}
.plans .key {
  min-height: 46px;
  line-height: 1.15;
}
.plans small {
  display: block;
}
.strip {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  gap: 4px;
  overflow-x: auto;
  scrollbar-width: thin;
  min-width: 0;
}
.strip button {
  all: unset;
  box-sizing: border-box;
  display: flex;
  flex-direction: column;
  justify-content: center;
  gap: 1px;
  min-height: 46px;
  padding: 2px 6px;
  border: 1px solid var(--edge);
  border-radius: 7px;
  background: var(--panel-2);
  font-size: 0.82rem;
  cursor: pointer;
  white-space: nowrap;
}
.strip button:hover {
  border-color: var(--accent);
}
.strip button.chosen {
  border-color: var(--accent);
  box-shadow: inset 0 -3px 0 var(--accent);
}
.strip button:focus-visible {
  outline: 2px solid var(--accent);
}
.line {
  display: flex;
  gap: 6px;
  align-items: center;
  justify-content: space-between;
}
.line strong {
  color: var(--text);
}
.dot {
  width: 17px;
  height: 17px;
  border-radius: 50%;
  border: 1px solid var(--edge);
  display: inline-grid;
  place-content: center;
  font-style: normal;
  font-weight: 700;
  font-size: 0.72rem;
}
.detail {
  overflow: auto;
  min-height: 0;
  flex: 1;
  font-size: 0.93rem;
}
.deeds {
  margin-bottom: 3px;
}
.what::first-letter {
  text-transform: uppercase;
}
.reasons {
  margin: 2px 4px;
  padding: 0;
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 3px 6px;
}
.reasons li {
  padding: 0 8px;
  border: 1px solid var(--edge);
  border-radius: 999px;
  background: var(--panel-2);
  font-size: 0.88rem;
}
.reasons li.against {
  border-color: var(--danger);
  color: var(--danger);
}
.others {
  border-collapse: collapse;
  display: block;
  overflow: auto;
  min-height: 0;
  font-size: 0.9rem;
  font-variant-numeric: tabular-nums;
}
.others th,
.others td {
  text-align: left;
  padding: 2px 12px 2px 4px;
  vertical-align: top;
}
.others th,
.others .figure {
  white-space: nowrap;
}
.others th {
  color: var(--text-soft);
  font-weight: 400;
}
.others td:first-child::first-letter {
  text-transform: uppercase;
}
</style>
