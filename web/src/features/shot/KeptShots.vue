<script setup lang="ts">
import { strokeWords } from '../../domain/words'
import { useKeptShots } from './keptShots'
import { plainStroke } from '../../domain/strokes'
import { useAnswer } from '../../position/answer'

/** One line to take down on the shot, the card, and the shots kept with this position. */
const kept = useKeptShots()
const answer = useAnswer()
const words = (shot: (typeof kept.shots)[number]) => strokeWords({ ...plainStroke, ...shot.content.stroke, pot: null })
</script>

<template>
  <div class="below-panel" data-testid="kept-shots">
    <form class="row" @submit.prevent="kept.keep()">
      <input v-model="kept.note" class="choice line" maxlength="300" placeholder="One line to take down on the shot" aria-label="One line to take down on the shot" data-testid="note" />
      <button class="key chosen" :disabled="kept.busy || !answer.shot" data-testid="keep-shot">Keep this shot</button>
      <button type="button" class="key" :disabled="kept.busy || !answer.shot" data-testid="card-pdf" @click="kept.cardAs('pdf')">Card as PDF</button>
      <button type="button" class="key" :disabled="kept.busy || !answer.shot" @click="kept.cardAs('svg')">Card as SVG</button>
    </form>
    <p v-if="!kept.shots.length" class="soft">No shot is kept with this position yet. Set one up, write the one thing to think of on it, and keep it: the balls, the stroke and the line come back together.</p>
    <ol v-else>
      <li v-for="s in kept.shots" :key="s.id" data-testid="kept-shot">
        <button class="words name" @click="kept.open(s)">
          {{ s.name }}<span v-if="!s.name.includes(words(s))" class="soft">, {{ words(s) }}</span>
        </button>
        <input class="choice line" :value="s.note" maxlength="300" placeholder="no line on it" :aria-label="`Line on ${s.name}`" @change="kept.rewrite(s, ($event.target as HTMLInputElement).value)" />
        <button class="key" :disabled="kept.busy" :aria-label="`Delete ${s.name}`" @click="kept.remove(s)">Delete</button>
      </li>
    </ol>
  </div>
</template>

<style scoped>
.line {
  flex: 1;
  min-width: 180px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  overflow: auto;
  min-height: 0;
  flex: 1;
}
li {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 2px 6px;
}
.name {
  flex: 1.2;
  font-size: 0.93rem;
}
.name::first-letter {
  text-transform: uppercase;
}
.name:hover {
  color: var(--accent);
}
</style>
