<script setup lang="ts">
import { computed } from 'vue'
import type { Reference, Schemas } from '../../api/client'
import { shareWords } from '../../lib/estimates'
import { pictureWords } from './words'

/** Where ten strokes at one shot go: the ways of the ball, and where the white stops. */
const props = defineProps<{ shot: Schemas['PicturedShot']; reference: Pick<Reference, 'length' | 'width' | 'baulkLineX'> }>()
const titles: Record<Schemas['PicturedShotKind'], string> = {
  longPot: 'Ten long pots: 1.8 m and 1.8 m',
  openRed: 'Ten long reds in the open: 2.5 m and 0.7 m',
  double: 'Ten doubles into a middle pocket',
  blackAndOn: 'Ten blacks, the white to run 1.5 m',
}
const { length, width } = props.reference
const title = computed(() => titles[props.shot.kind])
const y = (place: { y: number }) => width - place.y
const points = (places: { x: number; y: number }[]) => places.map((p) => `${p.x},${y(p)}`).join(' ')
</script>

<template>
  <figure>
    <svg :viewBox="`-0.08 -0.08 ${length + 0.16} ${width + 0.16}`" role="img" :aria-label="`${title}: ${pictureWords(shot.strokes)}`">
      <rect x="-0.08" y="-0.08" :width="length + 0.16" :height="width + 0.16" rx="0.07" fill="var(--cushion)" />
      <rect :width="length" :height="width" fill="var(--cloth)" />
      <line :x1="reference.baulkLineX" :x2="reference.baulkLineX" y1="0" :y2="width" class="baulk" />
      <polyline v-for="(s, i) in shot.strokes" :key="i" :points="points(s.ball)" :class="{ missed: !s.isPotted }" class="way" />
      <template v-for="(s, i) in shot.strokes" :key="`e${i}`">
        <circle v-if="s.isPotted" :cx="s.ball[s.ball.length - 1].x" :cy="y(s.ball[s.ball.length - 1])" r="0.026" class="in" />
        <path
          v-else
          :transform="`translate(${s.ball[s.ball.length - 1].x} ${y(s.ball[s.ball.length - 1])})`"
          d="M-0.03 -0.03 L0.03 0.03 M-0.03 0.03 L0.03 -0.03"
          class="out"
        />
        <circle v-if="s.white && shot.kind === 'blackAndOn'" :cx="s.white.x" :cy="y(s.white)" r="0.026" class="white" />
      </template>
      <circle :cx="shot.ball.x" :cy="y(shot.ball)" r="0.04" :class="shot.kind === 'blackAndOn' ? 'black' : 'red'" />
      <circle :cx="shot.white.x" :cy="y(shot.white)" r="0.04" class="cue" />
    </svg>
    <figcaption>
      {{ title }}: <strong>{{ pictureWords(shot.strokes) }}</strong>, {{ shareWords(shot.potted) }} of many
    </figcaption>
  </figure>
</template>

<style scoped>
figure {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
}
.baulk {
  stroke: var(--chalk-soft);
  stroke-width: 0.008;
}
.way {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 0.01;
}
.way.missed {
  stroke: var(--coral);
  stroke-dasharray: 0.05 0.03;
}
.in {
  fill: var(--chalk);
}
.out {
  stroke: var(--coral);
  stroke-width: 0.016;
}
.white {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 0.014;
}
.cue {
  fill: #fffdf2;
}
.red {
  fill: #b3232a;
}
.black {
  fill: #16191a;
  stroke: var(--chalk-soft);
  stroke-width: 0.006;
}
</style>
