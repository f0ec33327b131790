<script setup lang="ts">
import { computed } from 'vue'
import { eventWords, outcomeWords, strokeWords } from '../shots/words'
import { useWorkspace } from '../workspace/workspace'
import { listedEvents } from './events'
import { usePlayback } from './playback'

const workspace = useWorkspace()
const playback = usePlayback()
const events = computed(() => (workspace.shot ? listedEvents(workspace.shot.simulation) : []))
const now = computed(() => events.value.findLastIndex((e) => e.event.time <= playback.time + 1e-6))

// What no control of the desk shows by itself.
const refused = computed(() => {
  const p = workspace.problem
  if (!p) return []
  if (!p.errors.length) return [`${p.message} ${p.detail}`]
  return p.errors.filter((e) => !e.field.startsWith('stroke')).map((e) => `${e.message} Allowed: ${e.allowed}.`)
})
</script>

<template>
  <section class="picture" aria-label="Picture: the shot played back">
    <template v-if="refused.length">
      <p v-for="e in refused" :key="e" class="field-error" role="alert">{{ e }}</p>
    </template>
    <p v-else-if="workspace.shot" class="outcome" data-testid="outcome"><strong>{{ strokeWords(workspace.stroke) }}:</strong> {{ outcomeWords(workspace.shot.simulation) }}</p>
    <div class="controls">
      <button class="key" data-testid="play" :disabled="!playback.duration" @click="playback.isPlaying && playback.speed === 1 ? playback.pause() : playback.play(1)">
        {{ playback.isPlaying && playback.speed === 1 ? 'Pause' : 'Play' }}
      </button>
      <button class="key" :disabled="!playback.duration" @click="playback.isPlaying && playback.speed < 1 ? playback.pause() : playback.play(0.2)">
        {{ playback.isPlaying && playback.speed < 1 ? 'Pause' : 'Slowly' }}
      </button>
      <input
        v-model.number="playback.time"
        type="range"
        min="0"
        :max="playback.duration"
        step="0.01"
        aria-label="Moment of the shot, seconds"
        data-testid="scrubber"
        @input="playback.pause()"
      />
      <output class="figure">{{ playback.time.toFixed(2) }} of {{ playback.duration.toFixed(2) }} s</output>
      <button class="key" :disabled="playback.time === 0" @click="playback.rewind()">Set up again</button>
    </div>
    <ol v-if="events.length > 1" class="events" aria-label="What happens" data-testid="events">
      <li v-for="(e, i) in events" :key="i" :class="{ now: playback.time > 0 && i === now, danger: e.event.kind === 'pot' && e.event.ball === 'white' }">
        <button @click="playback.pause(), (playback.time = e.event.time)">
          <span class="figure soft">{{ e.event.time.toFixed(2) }}</span>
          <span class="number figure">{{ e.number ?? '' }}</span>
          <span>{{ eventWords(e.event) }}</span>
        </button>
      </li>
    </ol>
    <p v-else class="soft empty">Nothing moves yet. Drag the brass diamond to aim, or choose a ball and a pocket on the desk.</p>
  </section>
</template>

<style scoped>
.picture {
  display: flex;
  flex-direction: column;
  gap: 8px;
  min-height: 0;
  flex: 1;
}
.outcome {
  margin: 0 4px;
  min-height: 1.3em;
}
.outcome strong::first-letter {
  text-transform: uppercase;
}
.controls {
  display: flex;
  gap: 8px;
  align-items: center;
}
.controls output {
  white-space: nowrap;
  min-width: 9.4em;
  text-align: right;
}
.events {
  list-style: none;
  margin: 0;
  padding: 0;
  columns: 2 260px;
  column-gap: 18px;
  overflow: auto;
  min-height: 0;
  flex: 1;
}
.events li {
  break-inside: avoid;
}
.events button {
  all: unset;
  display: grid;
  grid-template-columns: 3.2em 1.9em 1fr;
  align-items: baseline;
  width: 100%;
  padding: 2px 6px;
  border-radius: 5px;
  cursor: pointer;
  font-size: 0.93rem;
}
.events button:hover {
  background: var(--panel-2);
}
.events button:focus-visible {
  outline: 2px solid var(--accent);
}
.events .now button {
  background: var(--panel-2);
  box-shadow: inset 3px 0 0 var(--accent);
}
.number {
  font-weight: 650;
  color: var(--accent);
}
.empty {
  margin: 4px;
}
</style>
