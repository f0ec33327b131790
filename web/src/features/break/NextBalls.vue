<script setup lang="ts">
import { ElButton } from 'element-plus'
import { nameOf } from '../../domain/balls'
import { shareWords } from '../../lib/estimates'
import { sentence } from '../../lib/formats'
import BallDot from '../../ui/BallDot.vue'
import LineButton from '../../ui/LineButton.vue'
import ProblemText from '../../ui/ProblemText.vue'
import { usePlans } from './plans'
import { coverWords, nextStrokeWords, worthWords } from './words'

/** Which ball to play for: each one worth it, with the simplest stroke that leaves it on. */
const plans = usePlans()
</script>

<template>
  <div class="next-balls" data-testid="next-balls-list">
    <p class="soft">
      How often the simplest stroke leaves each ball on with a better than even pot, the most valuable first. Click one to set the stroke
      up.
    </p>
    <ProblemText v-if="plans.nextProblem" :problem="plans.nextProblem" @again="plans.nextAgain()" />
    <p v-else-if="!plans.nextBalls" class="soft" role="status">Searching …</p>
    <p v-else-if="!plans.nextBalls.balls.length" class="soft">No stroke leaves any ball on often enough to play for it.</p>
    <ol v-else class="answers" aria-label="Balls to play for, the best first">
      <li
        v-for="b in plans.nextBalls.balls"
        :key="b.ball"
        :class="{ used: plans.pointedNext === b.ball }"
        data-testid="next-ball"
        @mouseenter="plans.pointedNext = b.ball"
        @focusin="plans.pointedNext = b.ball"
      >
        <BallDot :ball="b.ball" class="ball" />
        <LineButton @click="plans.setUpNext(b)"
          ><span
            ><strong>{{ sentence(nameOf(b.ball)) }} {{ shareWords(b.isOn) }}</strong
            ><span class="soft"> – {{ nextStrokeWords(b) }}</span></span
          ></LineButton
        >
        <ElButton
          size="small"
          :type="plans.preferences.next === b.ball ? 'primary' : undefined"
          :aria-pressed="plans.preferences.next === b.ball"
          :aria-label="`Play for the ${nameOf(b.ball)}`"
          data-testid="play-for"
          @click="plans.playFor(b.ball)"
          >Play for it</ElButton
        >
        <p v-if="plans.pointedNext === b.ball" class="why soft">
          Pots {{ shareWords(b.pots) }}, any ball on {{ shareWords(b.anyOn) }}; worth {{ worthWords(b.value, plans.nextBalls.unit) }}. If
          long: {{ coverWords(b.long) }}. If short: {{ coverWords(b.short) }}.
        </p>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.next-balls p {
  margin: 0 0 var(--space-2);
}
.ball {
  justify-self: end;
}
</style>
