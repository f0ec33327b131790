<script setup lang="ts">
import { computed } from 'vue'
import { tipWords } from '../../domain/words'
import { degreeWords, lengthWords, sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useShot } from '../../position/shot'

/** How the cue lies, from the side and to scale: the tip on the ball, the bridge hand, the slope over cushion, rail and balls. */
const answer = useShot()
const position = useDraft()
const cue = computed(() => answer.shot?.cue ?? null)
/** Shown, mm: from a little before the ball to behind the bridge. */
const [front, back] = [60, 420]
const R = computed(() => position.reference!.ballRadius * 1000)
const side = computed(() => cue.value!.side)
/** The ball stands at 0 and the cue comes from the right; y grows downwards. */
const height = (behind: number) => (side.value.axisAtBall + behind * side.value.slope) * 1000
const tipAt = computed(() => {
  // Where the axis meets the ball.
  const up = side.value.axisAtBall * 1000 - R.value
  const { slope } = side.value
  const a = 1 + slope * slope
  const b = slope * up
  const x = (-b + Math.sqrt(Math.max(0, b * b - a * (up * up - R.value * R.value)))) / a
  return { x, y: R.value + up + slope * x }
})
const end = back
const above = computed(() => Math.max(90, height(back / 1000) + 24))
const bridge = computed(() => ({ x: side.value.bridgeBehind * 1000, y: side.value.bridgeHeight * 1000 }))
const words = computed(() => {
  const { lower, upper } = cue.value!
  const parts = [`the bridge is ${lengthWords(side.value.bridgeHeight)} high`]
  if (lower) parts.push(`bridging a tip lower makes it ${tipWords(0, lower.heightTips)}, butt ${degreeWords(lower.elevationDegrees)}`)
  if (upper) parts.push(`a tip higher is ${tipWords(0, upper.heightTips)}, butt ${degreeWords(upper.elevationDegrees)}`)
  return `${sentence(parts.join('; '))}.`
})
</script>

<template>
  <figure v-if="cue" class="side-view" data-testid="side-view">
    <svg :viewBox="`${-front} ${-above} ${front + back} ${above + 14}`" role="img" :aria-label="words">
      <rect
        :x="-front"
        y="0"
        :width="front + (side.noseBehind !== null ? Math.min(back, side.noseBehind * 1000) : back)"
        height="14"
        class="bed"
      />
      <path
        v-if="side.noseBehind !== null && side.railBehind !== null && side.noseBehind * 1000 < back"
        :d="`M ${side.noseBehind * 1000} ${-cue.noseTop * 1000} L ${side.railBehind * 1000} ${-cue.railTop * 1000} L ${back} ${-cue.railTop * 1000} L ${back} 14 L ${side.noseBehind * 1000 + 18} 14 Z`"
        class="rail"
      />
      <circle v-for="b in side.ballsBehind" :key="b" :cx="b * 1000" :cy="-R" :r="R" class="ball other" />
      <circle cx="0" :cy="-R" :r="R" class="ball" />
      <line x1="-40" x2="40" :y1="-R" :y2="-R" class="middle" />
      <path
        :d="`M ${tipAt.x} ${-tipAt.y - 5} L ${end} ${-height(end / 1000) - 7} L ${end} ${-height(end / 1000) + 7} L ${tipAt.x} ${-tipAt.y + 5} Z`"
        class="cue"
      />
      <path
        v-if="side.noseBehind === null || side.noseBehind > side.bridgeBehind"
        :d="`M ${bridge.x - 26} 0 Q ${bridge.x - 10} ${-bridge.y} ${bridge.x} ${-bridge.y} Q ${bridge.x + 14} ${-bridge.y} ${bridge.x + 44} 0 Z`"
        class="hand"
      />
    </svg>
    <figcaption class="soft">{{ words }}</figcaption>
  </figure>
</template>

<style scoped>
.side-view {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  max-width: 520px;
  max-height: 170px;
  border-radius: 8px;
  background: #0a1314;
}
.bed {
  fill: #124a4b;
}
.rail {
  fill: #5a3423;
  stroke: #4d918b;
}
.ball {
  fill: #f5efdc;
  stroke: #06181a;
}
.ball.other {
  fill: #b04040;
}
.middle {
  stroke: #12484b;
  stroke-dasharray: 4 4;
}
.cue {
  fill: #d9b77f;
  stroke: #6d4a22;
}
.hand {
  fill: rgb(226 184 150 / 0.75);
}
</style>
