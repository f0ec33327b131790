<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { nameOf, theBall } from '../../domain/balls'
import { countWords, lengthWords, sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useShot } from '../../position/shot'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useGuess, type GuessKind } from './guess'

/** Guess first, then see it drawn: how far off, and how one's guesses get better. */
const guess = useGuess()
const position = useDraft()
const answer = useShot()
const kinds: { value: GuessKind; label: string; testId: string }[] = [
  { value: 'stop', label: 'Where it stops', testId: 'guess-stop' },
  { value: 'routes', label: 'Stun, follow, screw', testId: 'guess-routes' },
  { value: 'ball', label: 'Which ball', testId: 'guess-ball' },
]
const balls = computed(() => [
  { value: '', label: 'which ball?' },
  { value: 'none', label: 'no ball' },
  ...position.content.balls
    .filter((b) => b.id !== 'white' && b.id !== answer.shot?.cut?.struck)
    .map((b) => ({ value: b.id, label: nameOf(b.id) })),
])
const task = computed(() => {
  if (!answer.shot) return 'Set up a stroke first, or draw a layout to guess.'
  if (guess.kind === 'ball') return 'Which ball does the white meet after the first?'
  if (guess.placed.length < guess.wanted)
    return guess.next ? `Touch the plan where the white stops by ${guess.next}.` : 'Touch the plan where the white will stop.'
  return 'Drag a mark to change it, then show the answer.'
})
const result = computed(() => {
  if (guess.rightBall !== null) {
    const truth = guess.rightBall === 'none' ? 'it meets no other ball' : `it meets ${theBall(guess.rightBall)}`
    return guess.rightBall === guess.ball ? `Right: ${truth}.` : `No: ${truth}.`
  }
  return guess.error === null
    ? 'The white goes in, so there is no place to guess.'
    : `${lengthWords(guess.error)} off${guess.kind === 'routes' ? ', on the average of the three' : ''}.`
})
/** Errors of the last guesses, oldest first, as a small line. */
const line = computed(() => {
  const errors = (guess.summary?.last ?? []).flatMap((g) => (g.error === null || g.error === undefined ? [] : [g.error])).reverse()
  const most = Math.max(0.1, ...errors)
  return errors.map((e, i) => `${(i / Math.max(1, errors.length - 1)) * 200},${36 - (e / most) * 32}`).join(' ')
})
const better = computed(() => {
  const s = guess.summary
  if (!s?.count || s.lately === null || s.lately === undefined) return 'No guesses yet. Twenty show whether your eye improves.'
  const lately = `The last of ${countWords(s.count, 'guess', 'guesses')}: ${lengthWords(s.lately)} off on the average`
  return s.before === null || s.before === undefined ? `${lately}.` : `${lately}; before them ${lengthWords(s.before)}.`
})
</script>

<template>
  <div class="guess" data-testid="guess">
    <OneOf v-model="guess.kind" :options="kinds" label="What is guessed" />
    <p role="status" data-testid="guess-task">{{ guess.isShown ? sentence(result) : task }}</p>
    <PickOne
      v-if="guess.kind === 'ball' && !guess.isShown"
      v-model="guess.ball"
      :options="balls"
      label="Ball that the white meets"
      test-id="guess-which"
      width="150px"
    />
    <div class="row">
      <ElButton v-if="!guess.isShown" type="primary" :disabled="!guess.canShow" data-testid="guess-show" @click="guess.show()"
        >Show the answer</ElButton
      >
      <ElButton v-else data-testid="guess-again" @click="guess.begin()">Guess again</ElButton>
      <ElButton :type="guess.isShown ? 'primary' : undefined" data-testid="guess-another" @click="guess.another()">Draw a layout</ElButton>
    </div>
    <svg v-if="line.includes(' ')" class="line" viewBox="-3 -3 206 46" role="img" aria-label="Errors of your last guesses">
      <line x1="0" x2="200" y1="36" y2="36" />
      <polyline :points="line" />
    </svg>
    <p class="soft" data-testid="guess-better">{{ better }} <HandbookLink of="guess" what="guessing first" /></p>
  </div>
</template>

<style scoped>
.guess {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
}
.guess p {
  margin: 0;
}
.line {
  width: 220px;
  height: 46px;
}
.line line {
  stroke: var(--edge);
}
.line polyline {
  fill: none;
  stroke: var(--accent);
  stroke-width: 2;
}
</style>
