<script setup lang="ts">
import { computed } from 'vue'
import { useDraft } from '../../position/draft'
import { useShot } from '../../position/shot'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useJudgements } from './judgements'
import { rangeWords, type Knob } from './windowWords'

/** How far each knob may be turned until the pot, or what the white is to do, is lost: a bar for each, with where it stands. */
const judgements = useJudgements()
const position = useDraft()
const answer = useShot()
const windows = computed(() => judgements.windows)

const rows = computed(() => {
  const w = windows.value
  if (!w?.isMet) return []
  const { paceMin, paceMax, tipLimit } = position.reference!
  const { pace, height, side } = position.stroke
  // Of all aims only those near by count: the bar is three times as wide as what does it.
  const aims = w.aim ? 3 * Math.max(w.aim.to - answer.aim, answer.aim - w.aim.from, 0.01) : 1
  const list: { knob: Knob; name: string; range: typeof w.pace; at: number; least: number; most: number }[] = [
    { knob: 'pace', name: 'Pace', range: w.pace, at: pace, least: paceMin, most: paceMax },
    { knob: 'height', name: 'Height', range: w.height, at: height, least: -tipLimit, most: tipLimit },
    { knob: 'side', name: 'Side', range: w.side, at: side, least: -tipLimit, most: tipLimit },
    { knob: 'aim', name: 'Aim', range: w.aim, at: answer.aim, least: answer.aim - aims, most: answer.aim + aims },
  ]
  return list.flatMap(({ range, at, least, most, ...row }) => {
    if (!range) return []
    // Aims grow to the left, and a bar to the right.
    const share = (v: number) => (row.knob === 'aim' ? (most - v) / (most - least) : (v - least) / (most - least)) * 100
    const [a, b] = [share(range.from), share(range.to)].sort((x, y) => x - y)
    return [
      { ...row, left: a, width: Math.max(1, b - a), at: Math.min(100, Math.max(0, share(at))), words: rangeWords(row.knob, range, at) },
    ]
  })
})
const asked = computed(() => (judgements.hasGoal ? 'goes in and does that' : 'goes in'))
</script>

<template>
  <div v-if="windows" class="windows" :class="{ stale: judgements.areWindowsStale }" data-testid="windows">
    <p class="soft">
      <template v-if="windows.isMet">It {{ asked }} with, each by itself <HandbookLink of="window" what="a window" /></template>
      <template v-else>{{
        judgements.hasGoal ? 'As set up, it does not go in and do that.' : 'As set up, the ball does not go in, or the white follows it.'
      }}</template>
    </p>
    <div v-for="r in rows" :key="r.knob" class="knob" :data-testid="`window-${r.knob}`">
      <span>{{ r.name }}</span>
      <svg viewBox="0 0 100 10" preserveAspectRatio="none" role="img" :aria-label="`${r.name}: ${r.words}`">
        <rect x="0" y="4" width="100" height="2" class="track" />
        <rect :x="r.left" y="1.5" :width="r.width" height="7" class="range" />
        <line :x1="r.at" :x2="r.at" y1="0" y2="10" class="at" />
      </svg>
      <span class="figure">{{ r.words }}</span>
    </div>
  </div>
</template>

<style scoped>
.windows {
  display: flex;
  flex-direction: column;
  gap: var(--space-1);
  font-size: var(--type-2);
}
.knob {
  display: grid;
  grid-template-columns: 3.6em minmax(60px, 1fr) minmax(9.5em, auto);
  gap: var(--space-3);
  align-items: center;
}
svg {
  width: 100%;
  height: 12px;
}
.track {
  fill: var(--edge);
}
.range {
  fill: var(--accent);
  opacity: 0.75;
}
.at {
  stroke: var(--text);
  stroke-width: 2.5;
  vector-effect: non-scaling-stroke;
}
</style>
