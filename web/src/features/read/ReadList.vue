<script setup lang="ts">
import { computed, ref } from 'vue'
import { lookOf, nameOf, pocketName } from '../../domain/balls'
import { useDraft } from '../../position/draft'
import { useJudgements, type PotOption } from '../shot/judgements'
import CutPicture from '../shot/CutPicture.vue'
import { fullnessWords, kindWords, reachWords, whyNotWords } from '../../domain/words'

/** What is on: every pot with its chance, and of those that are not on, why. */
const judgements = useJudgements()
const position = useDraft()
const order = ref<'chance' | 'points' | 'ease'>('chance')

const points = (id: string) => ({ yellow: 2, green: 3, brown: 4, blue: 5, pink: 6, black: 7 })[id] ?? 1
const orders: Record<typeof order.value, (a: PotOption, b: PotOption) => number> = {
  chance: (a, b) => b.chance - a.chance,
  points: (a, b) => points(b.cut.ball) - points(a.cut.ball) || b.chance - a.chance,
  ease: (a, b) => b.toleranceDegrees - a.toleranceDegrees,
}
const on = computed(() => (judgements.options ?? []).filter((o) => o.chance > 0).sort(orders[order.value]))
/** For a ball with no pot on, the pocket that comes nearest to it. */
const off = computed(() => {
  const potted = new Set(on.value.map((o) => o.cut.ball))
  const seen = new Set<string>()
  return (judgements.options ?? []).filter((o) => o.chance === 0 && !potted.has(o.cut.ball) && !seen.has(o.cut.ball) && seen.add(o.cut.ball))
})
const isChosen = (o: PotOption) => {
  const [pot, of] = [position.stroke.pot, judgements.potOf(o.cut)]
  return pot?.ball === of.ball && pot.pocket === of.pocket && pot.through === of.through && pot.off === of.off
}
const reaches = { natural: '', stretch: 'stretch', otherHand: 'other hand', rest: 'rest' }
const mm = (metres: number | null) => (metres === null ? '' : `${(metres * 1000).toFixed(0)}`)
const room = (o: PotOption) => mm(o.cueBallClearance === null ? o.potClearance : Math.min(o.cueBallClearance, o.potClearance ?? Infinity))
</script>

<template>
  <div class="list" data-testid="read-list">
    <p v-if="judgements.refusals.read" class="field-error" role="alert">Not read: {{ judgements.refusals.read }}</p>
    <p v-else-if="!judgements.options" class="soft">Reading the table …</p>
    <p v-else-if="!judgements.options.length" class="soft">There is nothing to pot. Add a ball on the desk.</p>
    <table v-else @mouseleave="judgements.pointed = null">
      <thead>
        <tr>
          <th>Ball</th>
          <th>Pocket</th>
          <th class="number"><button :aria-pressed="order === 'chance'" @click="order = 'chance'">Chance</button></th>
          <th class="number"><button :aria-pressed="order === 'points'" @click="order = 'points'">Points</button></th>
          <th>Fullness</th>
          <th class="number" title="From the white to the contact, and from the ball to the pocket">Distances, cm</th>
          <th class="number" title="Least room beside the two ways">Room, mm</th>
          <th class="number" title="Across the line of aim at the contact"><button :aria-pressed="order === 'ease'" @click="order = 'ease'">Tolerance</button></th>
          <th title="How the white is reached, and how far the butt must be raised">Reach</th>
        </tr>
      </thead>
      <tbody>
        <tr
          v-for="o in on"
          :key="[o.cut.ball, o.cut.pocket, o.cut.struck, o.cut.off].join()"
          :class="{ chosen: isChosen(o) }"
          tabindex="0"
          @mouseenter="judgements.pointed = o"
          @focus="judgements.pointed = o"
          @blur="judgements.pointed = null"
          @click="judgements.choose(o)"
          @keydown.enter="judgements.choose(o)"
        >
          <td><span class="dot" :style="{ background: lookOf(o.cut.ball).fill }" />{{ nameOf(o.cut.ball) }}</td>
          <td>{{ pocketName(o.cut.pocket) }}<span v-if="o.cut.kind !== 'direct'" class="kind" :title="kindWords(o.cut)">{{ o.cut.kind === 'double' ? 'double' : `${o.cut.kind} ${nameOf(o.cut.struck)}` }}</span></td>
          <td class="number"><strong>{{ (o.chance * 100).toFixed(0) }} %</strong><span v-if="o.pace > position.stroke.pace" class="soft" title="At the softest pace that gets there"> at {{ o.pace.toFixed(1) }}</span></td>
          <td class="number">{{ points(o.cut.ball) }}</td>
          <td :title="fullnessWords[o.cut.fullnessWord]"><CutPicture class="mini" :offset="Math.sign(o.cut.cutDegrees) * o.cut.aimOffset" :radius="position.reference!.ballRadius" :ball="o.cut.struck" /> <span class="word">{{ fullnessWords[o.cut.fullnessWord] }}</span> <span class="soft">{{ Math.abs(o.cut.cutDegrees).toFixed(0) }}°</span></td>
          <td class="number">{{ (o.cut.cueBallDistance * 100).toFixed(0) }} + {{ (o.cut.potDistance * 100).toFixed(0) }}</td>
          <td class="number">{{ room(o) }}</td>
          <td class="number">±{{ (o.toleranceMillimetres / 2).toFixed(1) }} mm</td>
          <td class="soft" :title="reachWords(o.reach)">{{ reaches[o.reach.stance] }}<template v-if="o.reach.elevationDegrees"> {{ o.reach.elevationDegrees.toFixed(0) }}°</template></td>
        </tr>
        <tr v-for="o in off" :key="o.cut.ball" class="soft" @mouseenter="judgements.pointed = o">
          <td><span class="dot" :style="{ background: lookOf(o.cut.ball).fill }" />{{ nameOf(o.cut.ball) }}</td>
          <td colspan="8">{{ whyNotWords(o) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>

<style scoped>
.list {
  overflow: auto;
  min-height: 0;
  flex: 1;
}
table {
  width: 100%;
  border-collapse: collapse;
  font-size: 0.88rem;
  font-variant-numeric: tabular-nums;
}
th {
  text-align: left;
  font-weight: 600;
  position: sticky;
  top: 0;
  background: var(--page);
  padding: 1px 5px;
}
th button {
  all: unset;
  cursor: pointer;
  text-decoration: underline dotted;
}
th button[aria-pressed='true'] {
  color: var(--accent);
  text-decoration: none;
}
th button:focus-visible {
  outline: 2px solid var(--accent);
}
td {
  padding: 2px 5px;
  white-space: nowrap;
}
.number {
  text-align: right;
}
tbody tr[tabindex] {
  cursor: pointer;
}
tbody tr[tabindex]:hover,
tbody tr[tabindex]:focus-visible {
  background: var(--panel-2);
}
tr.chosen {
  box-shadow: inset 3px 0 0 var(--accent);
}
/* On a tablet the picture and the angle say it. */
@media (max-width: 1100px) {
  .word {
    display: none;
  }
  th,
  td {
    padding: 2px 4px;
  }
}
.kind {
  color: var(--accent);
  margin-left: 6px;
}
.mini {
  width: 34px;
  height: 18px;
  vertical-align: middle;
}
.dot {
  display: inline-block;
  width: 11px;
  height: 11px;
  border-radius: 50%;
  border: 1px solid var(--text-soft);
  margin-right: 6px;
}
</style>
