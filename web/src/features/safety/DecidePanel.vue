<script setup lang="ts">
import { ref } from 'vue'
import { percentWords, reachWords } from '../../domain/words'
import { useDraft } from '../../position/draft'
import { useDecide } from './decide'
import { alongWords, attackFigures, attackWords, escapeFigures, escapeWords, goFirstWords, leaveWords, mirrorWords, openingWords, safetyFigures, safetyWords, sentence, towardsWords, verdictWords } from './words'

/** Attack or defend: one list of pots, safeties and escapes, the verdict, and what is left. */
const position = useDraft()
const decide = useDecide()
const passed = ref(20)
const side = ref(1)
const what = ref<'passed' | 'cushion'>('passed')
</script>

<template>
  <div class="below-panel decide" data-testid="decide-panel">
    <div class="row">
      <label
        >against
        <select v-model="decide.rival" class="choice" aria-label="The other player’s skill" data-testid="rival">
          <option v-for="s in position.reference!.skills" :key="s.name" :value="s.name">{{ s.name }}</option>
        </select></label
      >
      <button class="key" :aria-pressed="decide.leaveOpen" title="What the stroke that is set up leaves to the other player" data-testid="what-it-leaves" @click="decide.leaveOpen = !decide.leaveOpen">What it leaves</button>
      <span v-if="decide.isSearching" class="progress" role="status">
        <template v-if="decide.found?.wait">waiting: {{ decide.found.wait.ahead }} ahead, about {{ decide.found.wait.seconds.toFixed(0) }} s</template>
        <template v-else>
          <progress :value="decide.found?.share ?? 0" max="1" aria-label="How far the search is" />
          <span class="figure soft">{{ (decide.found?.examined ?? 0).toLocaleString('en') }} positions</span>
        </template>
        <button class="key" data-testid="stop-decide" @click="decide.stop()">Stop</button>
      </span>
      <template v-else-if="decide.wasStopped"><span class="soft">stopped</span><button class="key" @click="decide.search()">Go on</button></template>
      <strong v-if="decide.found" class="verdict" data-testid="verdict">{{ verdictWords(decide.found) }}</strong>
      <span v-if="decide.found?.winWithPot != null && decide.found?.winWithSafety != null" class="soft figure">wins the frame {{ percentWords(decide.found.winWithPot) }} by the pot, {{ percentWords(decide.found.winWithSafety) }} by the safety</span>
    </div>
    <div v-if="decide.isBlackBall" class="row">
      <button class="key" :class="{ chosen: !decide.openings }" :disabled="decide.isComparing" data-testid="compare-openings" @click="decide.compare()">Compare the openings</button>
      <span v-if="decide.isComparing" class="progress" role="status">
        <template v-if="decide.openings?.wait">waiting: {{ decide.openings.wait.ahead }} ahead</template>
        <progress v-else :value="decide.openings?.share ?? 0" max="1" aria-label="How far the comparison is" />
        <button class="key" @click="decide.stopComparing()">Stop</button>
      </span>
      <span v-else-if="decide.comparisonProblem" class="field-error" role="alert">{{ decide.comparisonProblem.message }} {{ decide.comparisonProblem.detail }}</span>
      <strong v-else-if="decide.openings?.share === 1" data-testid="go-first">{{ goFirstWords(decide.openings.openings) }}</strong>
      <span v-else class="soft">The re-spotted black, white from the D: on this table, at both players’ skill.</span>
    </div>
    <table v-if="decide.openings?.openings.length" class="openings" data-testid="openings">
      <thead>
        <tr>
          <th scope="col">Opening</th>
          <th scope="col">Safe</th>
          <th scope="col">Pot</th>
          <th scope="col">Double</th>
          <th scope="col">Tight</th>
          <th scope="col">Wins</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="o in decide.openings.openings" :key="o.kind">
          <td><button class="words" @click="decide.setOpening(o)">{{ openingWords(o, position.reference!.width) }}</button></td>
          <td class="figure">{{ percentWords(o.safe) }}</td>
          <td class="figure">{{ percentWords(o.potLeft) }}</td>
          <td class="figure">{{ percentWords(o.doubleLeft) }}</td>
          <td class="figure">{{ percentWords(o.tight) }}</td>
          <td class="figure">{{ o.rallies ? percentWords(o.wins) : '…' }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="decide.view" class="soft" data-testid="leave-words">{{ leaveWords(decide.view) }}</p>
    <p v-if="decide.problem" class="field-error" role="alert" data-testid="decide-problem">
      <template v-if="decide.problem.errors.length">{{ decide.problem.errors.map((e) => `${e.message} Allowed: ${e.allowed}.`).join(' ') }}</template>
      <template v-else>{{ decide.problem.message }} {{ decide.problem.detail }}</template>
      <button class="key" @click="decide.search()">Try again</button>
    </p>
    <p v-else-if="!decide.items.length && decide.isSearching" class="soft" role="status">Weighing pots and safeties …</p>
    <p v-else-if="!decide.items.length && decide.found?.share === 1" class="soft">Neither a pot nor a safety nor an escape was found from here. Move a ball, or take the foul that gives least.</p>
    <ol v-else class="answers" aria-label="Pots, safeties and escapes, the best first">
      <li v-for="i in decide.items" :key="i.key" :class="{ used: decide.chosen === i.key }" data-testid="decide-item" :data-kind="i.kind">
        <span class="figure value" :title="'Points to be expected of it'">{{ (i.value >= 0 ? '+' : '−') + Math.abs(i.value).toFixed(1) }}</span>
        <button class="words" @click="decide.choose(i)">{{ i.kind === 'attack' ? attackWords(i.attack) : i.kind === 'safety' ? safetyWords(i.safety) : escapeWords(i.escape) }}</button>
        <span class="figure soft">{{ i.kind === 'attack' ? percentWords(i.attack.choice.chance) : i.kind === 'safety' ? `pot left ${percentWords(i.safety.potLeft)}` : `hits ${percentWords(i.escape.hit)}` }}</span>
        <div v-if="decide.chosen === i.key" class="why" data-testid="decide-detail">
          <template v-if="i.kind === 'attack'">
            <p>{{ attackFigures(i.attack) }}</p>
            <button v-if="i.attack.part && position.stroke.pot?.part !== i.attack.part" class="key" data-testid="err-side" @click="decide.err(i.attack)">Aim at the {{ i.attack.part < 0 ? 'thick' : 'thin' }} side of the pocket</button>
          </template>
          <p v-else-if="i.kind === 'safety'">{{ safetyFigures(i.safety) }} {{ sentence(reachWords(i.safety.reach)) }}.</p>
          <template v-else>
            <p>{{ escapeFigures(i.escape) }} {{ sentence(reachWords(i.escape.reach)) }}.</p>
            <p v-if="i.escape.mirror" data-testid="mirror-words">{{ mirrorWords(i.escape) }}</p>
            <form class="row try" @submit.prevent="decide.correct(i.escape, what, (side * passed) / 1000)">
              <label
                >Tried? It
                <select v-model="what" class="choice" aria-label="What happened" data-testid="what-happened">
                  <option value="passed">passed the ball</option>
                  <option value="cushion">met the first cushion</option>
                </select></label
              >
              <label><input v-model.number="passed" class="choice small" type="number" min="0" max="1000" aria-label="By how much, mm" data-testid="passed" /> mm</label>
              <select v-model.number="side" class="choice" aria-label="On which side">
                <option :value="1">{{ what === 'passed' ? 'left of its middle, as the white came' : `too far towards ${towardsWords(i.escape, 1)}` }}</option>
                <option :value="-1">{{ what === 'passed' ? 'right of its middle, as the white came' : `too far towards ${towardsWords(i.escape, -1)}` }}</option>
              </select>
              <button class="key" data-testid="correct">Correct the aim</button>
              <button v-if="decide.learnt" type="button" class="key" data-testid="keep-correction" @click="decide.keepLearnt()">Keep as this table’s</button>
            </form>
            <p v-if="i.escape.kept" class="row" data-testid="kept-correction">
              On this table, by {{ i.escape.kept.trials }} trial{{ i.escape.kept.trials > 1 ? 's' : '' }}: {{ alongWords(i.escape, i.escape.kept.along) }}.
              <button class="key" @click="decide.aimKept(i.escape)">Aim with it</button>
              <button class="key" @click="decide.forget(i.escape)">Forget it</button>
            </p>
          </template>
        </div>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.decide {
  overflow: auto;
}
.value {
  text-align: right;
  font-weight: 650;
}
.why p {
  margin: 1px 0;
}
.openings {
  border-collapse: collapse;
  font-size: 0.92rem;
  font-variant-numeric: tabular-nums;
}
.openings th {
  font-weight: 400;
  color: var(--text-soft);
  text-align: left;
}
.openings th,
.openings td {
  padding: 1px 10px 1px 4px;
}
.openings th,
.openings .figure {
  white-space: nowrap;
}
.try {
  font-size: 0.9rem;
}
.small {
  width: 68px;
}
</style>
