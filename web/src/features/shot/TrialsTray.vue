<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'
import { strokeOf } from '../../domain/strokes'
import { lengthWords, sentence } from '../../lib/formats'
import { useChoices } from '../../position/choices'
import { askName } from '../../ui/askName'
import LineButton from '../../ui/LineButton.vue'
import BallFace from '../../ui/BallFace.vue'
import { useTrials, type Trial } from './trials'
import { styleOf } from './trialsDrawing'

/** The strokes that have left their line: each with its face, its name, and what it changed. */
const trials = useTrials()
const choices = useChoices()
const rows = computed(() => trials.trials.map((trial, i) => ({ trial, ...styleOf(i), isNow: trial.id === trials.mine?.id })).reverse())
const seenWords = (t: Trial) => {
  const end = t.line[t.line.length - 1]
  return t.seenWhite ? `stopped ${lengthWords(Math.hypot(t.seenWhite.x - end.x, t.seenWhite.y - end.y))} from there` : ''
}
/** The last part of a trial's outcome: where the white stops. */
const outcome = (t: Trial) =>
  (t.outcome ?? '')
    .split('; ')
    .pop()!
    .replace(/^white /, '')
const attemptWords = (t: Trial) => (t.earlier?.length ? `${t.earlier.length + (t.seenWhite ? 1 : 0)} attempts` : '')
const words = (t: Trial) => [attemptWords(t), seenWords(t), t.change || outcome(t)].filter(Boolean).join(' · ')

async function act(what: string, trial: Trial) {
  if (what === 'rename') {
    const name = await askName('Name the line', trial.name, 'Name of the line')
    if (name) trials.rename(trial.id, name)
  } else if (what === 'remove') trials.remove(trial.id)
  else if (what === 'compare') choices.add(strokeOf(trial.stroke))
}
</script>

<template>
  <section class="trials" aria-label="Lines of strokes" data-testid="trials">
    <p v-if="trials.changed" class="changed" role="status" data-testid="changed">
      <span class="soft">Against {{ trials.before?.name }}:</span> {{ trials.changed }}
    </p>
    <p v-if="trials.adjustment" class="changed" role="status" data-testid="adjustment">{{ trials.adjustment }}</p>
    <p v-if="trials.measured" class="soft" data-testid="measured">{{ trials.measured }}</p>
    <p v-if="trials.verdict" class="changed" role="status" data-testid="verdict">{{ trials.verdict }}</p>
    <p v-else-if="trials.attempts.length === 2" class="soft">A third attempt tells what they have in common.</p>
    <p v-if="!rows.length" class="soft empty">Each stroke you play or keep leaves its line here. Change one thing and see what it did.</p>
    <ol v-else>
      <li v-for="{ trial, colour, dash, isNow } in rows" :key="trial.id" :class="{ now: isNow }" data-testid="trial-row">
        <ElButton
          text
          size="small"
          class="eye"
          :aria-pressed="trial.shown"
          :aria-label="`${trial.shown ? 'Hide' : 'Show'} the line ${trial.name}`"
          @click="trials.toggle(trial.id)"
        >
          <svg width="30" height="18" aria-hidden="true" :class="{ hidden: !trial.shown }">
            <line x1="1" x2="29" y1="9" y2="9" :stroke="colour" stroke-width="2.5" :stroke-dasharray="dash.map((d) => d / 3).join(' ')" />
          </svg>
        </ElButton>
        <BallFace
          class="tip"
          :side="trial.stroke.side ?? 0"
          :height="trial.stroke.height ?? 0"
          :fill="colour"
          :patch="0.62"
          aria-hidden="true"
        />
        <LineButton :title="`Set up ${trial.name}: ${trial.outcome}`" @click="trials.setUp(trial)"
          ><strong>{{ trial.name }}</strong> <span class="soft">{{ sentence(words(trial)) }}</span></LineButton
        >
        <ElDropdown trigger="click" @command="act($event, trial)">
          <ElButton text size="small" :aria-label="`More on ${trial.name}`">⋯</ElButton>
          <template #dropdown>
            <ElDropdownMenu>
              <ElDropdownItem command="compare" :disabled="choices.isFull || choices.has(strokeOf(trial.stroke))">Compare</ElDropdownItem>
              <ElDropdownItem command="rename">Name it …</ElDropdownItem>
              <ElDropdownItem command="remove">Remove</ElDropdownItem>
            </ElDropdownMenu>
          </template>
        </ElDropdown>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.tip {
  width: 22px;
}
.trials {
  display: flex;
  flex-direction: column;
  gap: var(--space-1);
  min-height: 0;
  min-width: 0;
}
p {
  margin: 0 var(--space-1);
}
.changed {
  font-weight: 600;
}
.changed .soft {
  font-weight: 400;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: hidden auto;
  min-height: 0;
}
li {
  display: grid;
  grid-template-columns: auto auto minmax(0, 1fr) auto;
  gap: var(--space-2);
  align-items: center;
  border-top: 1px solid var(--edge);
}
li.now {
  box-shadow: inset 3px 0 0 var(--accent);
}
.eye {
  padding: 0 var(--space-2);
}
.hidden {
  opacity: 0.25;
}
li :deep(.words) {
  overflow: hidden;
}
</style>
