<script setup lang="ts">
import { refDebounced } from '@vueuse/core'
import { computed } from 'vue'
import { eventWords, outcomeWords, strokeWords, warningWords } from '../../domain/words'
import { useAnswer } from '../../position/answer'
import { useDraft } from '../../position/draft'
import { listedEvents } from '../../position/events'
import { usePlayback } from '../../position/playback'
import MapBar from '../read/MapBar.vue'
import { useMap } from '../read/map'
import { useGoal } from './goal'
import { useJudgements, type FanKind } from './judgements'

const answer = useAnswer()
const position = useDraft()
const playback = usePlayback()
const judgements = useJudgements()
const goals = useGoal()
const map = useMap()
const fans: { kind: FanKind; label: string }[] = [
  { kind: 'routes', label: 'Routes' },
  { kind: 'paces', label: 'Paces' },
  { kind: 'heights', label: 'Heights' },
  { kind: 'sides', label: 'Sides' },
]
const percent = (share: number) => `${(share * 100).toFixed(0)} %`
// Once the hand rests: while a control is dragged, the path on the plan comes first, and a list that changes with it could not be read anyhow.
const listed = refDebounced(
  computed(() => (answer.shot ? listedEvents(answer.shot.simulation) : { list: [], more: 0 })),
  150,
)
const events = computed(() => listed.value.list)
const now = computed(() => events.value.findLastIndex((e) => e.event.time <= playback.time + 1e-6))

// What no control of the desk shows by itself.
const refused = computed(() => {
  const p = position.problem
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
    <p v-else-if="answer.shot" class="outcome" role="status" data-testid="outcome"><RouterLink class="stroke" :to="{ name: 'table', params: { ...$route.params, step: 'shot' } }" title="To the shot"><strong>{{ strokeWords(position.stroke) }}:</strong></RouterLink> {{ outcomeWords(answer.shot.simulation) }}
      <span v-if="goals.warnings.length" class="danger" data-testid="warnings">Mind: {{ goals.warnings.map(warningWords).join('; ') }}.</span>
    </p>
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
    <div class="controls also">
      <span class="joined" role="group" aria-label="Also on the plan">
        <button v-for="f in fans" :key="f.kind" class="key" :disabled="!position.stroke.pot" :aria-pressed="judgements.fanKind === f.kind" :data-testid="`fan-${f.kind}`" @click="judgements.fanKind = judgements.fanKind === f.kind ? null : f.kind">{{ f.label }}</button>
        <button class="key" :aria-pressed="judgements.spreadOpen" data-testid="spread" @click="judgements.spreadOpen = !judgements.spreadOpen">Spread</button>
        <button class="key" :aria-pressed="map.isOpen" title="Where to be for the next ball" data-testid="where-to-be" @click="map.isOpen = !map.isOpen">Map</button>
      </span>
    </div>
    <p v-if="judgements.fanKind && judgements.refusals.fan" class="outcome field-error" role="alert">No fan: {{ judgements.refusals.fan }}</p>
    <p v-if="judgements.spreadOpen && judgements.refusals.spread && !judgements.isSampling" class="outcome field-error" role="alert" data-testid="spread-refused">Not sampled: {{ judgements.refusals.spread }}</p>
    <p v-else-if="judgements.spreadOpen && !judgements.spread" class="outcome soft" role="status">Playing it 2,000 times …</p>
    <p v-else-if="judgements.spread" class="outcome" :class="{ soft: judgements.isSampling }" data-testid="chances">
      <template v-if="judgements.spread.pot !== null"
        ><strong>Goes in {{ percent(judgements.spread.pot) }}</strong>; missed thick {{ percent(judgements.spread.missThick ?? 0) }}, thin {{ percent(judgements.spread.missThin ?? 0) }};
      </template>
      in-off {{ percent(judgements.spread.inOff) }}, kiss {{ percent(judgements.spread.kiss) }}<template v-if="judgements.spread.wanted !== null"
        >; does what is wanted {{ percent(judgements.spread.wanted) }}, with the pot {{ percent(judgements.spread.both ?? 0) }}</template
      >.
    </p>
    <MapBar v-if="map.isOpen" />
    <ol v-if="events.length > 1" class="events" aria-label="What happens" data-testid="events" :style="{ '--rows': Math.ceil((events.length + (listed.more ? 1 : 0)) / 2) }">
      <li v-for="(e, i) in events" :key="i" :class="{ now: playback.time > 0 && i === now, danger: e.event.kind === 'pot' && e.event.ball === 'white' }">
        <button @click="playback.pause(), (playback.time = e.event.time)">
          <span class="figure soft">{{ e.event.time.toFixed(2) }}</span>
          <span class="number figure">{{ e.number ?? '' }}</span>
          <span>{{ eventWords(e.event) }}</span>
        </button>
      </li>
      <li v-if="listed.more" class="soft more">and {{ listed.more }} more contacts of the other balls</li>
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
.stroke {
  color: inherit;
  text-decoration: underline dotted;
  text-underline-offset: 3px;
}
.outcome strong::first-letter {
  text-transform: uppercase;
}
.controls {
  display: flex;
  gap: 8px;
  align-items: center;
}
.also {
  flex-wrap: wrap;
}
.also .joined button.key {
  padding: 0 7px;
}
@media (max-width: 860px) {
  .controls {
    flex-wrap: wrap;
  }
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
  display: grid;
  grid: repeat(var(--rows), auto) / auto-flow minmax(0, 1fr);
  column-gap: 18px;
  align-content: start;
  overflow: auto;
  min-height: 0;
  flex: 1;
}
@media (max-width: 860px) {
  .events {
    grid: none;
  }
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
.more {
  padding: 2px 6px;
  font-size: 0.93rem;
}
.number {
  font-weight: 650;
  color: var(--accent);
}
.empty {
  margin: 4px;
}
</style>
