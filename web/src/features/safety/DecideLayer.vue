<script setup lang="ts">
import { nameOf, pocketName } from '../../domain/balls'
import { percentWords } from '../../lib/formats'
import { useDrawing } from '../../table/bed'
import { useDecideDrawing } from './decideDrawing'

/** Of the plan's drawing: the safety or escape that is chosen, and the other player's ways after the stroke that is set up. */
const { safety, escape, rivalLines, openingEnds } = useDecideDrawing()
const { sx, sy, points, outlinePath } = useDrawing()
</script>

<template>
  <g v-if="safety" class="spread" data-testid="safety-spread">
    <path :d="outlinePath(safety.whiteSpread)" class="likely"><title>The white stops in here two times of three</title></path>
    <path :d="outlinePath(safety.ballSpread)" class="nearly"><title>The ball stops in here two times of three</title></path>
  </g>
  <g v-if="escape?.mirror" class="mirror" data-testid="mirror">
    <polyline :points="points(escape.mirror.points)" />
    <line
      v-if="escape.mirror.known"
      :x1="sx(escape.mirror.known.fromX)"
      :y1="sy(escape.mirror.known.fromY)"
      :x2="sx(escape.mirror.known.toX)"
      :y2="sy(escape.mirror.known.toY)"
      class="known"
    />
  </g>
  <g v-for="o in openingEnds" :key="o.number" class="opening" data-testid="opening-ends">
    <line :x1="sx(o.white.x)" :y1="sy(o.white.y)" :x2="sx(o.black.x)" :y2="sy(o.black.y)" :class="{ best: o.number === 1 }" />
    <circle :cx="sx(o.white.x)" :cy="sy(o.white.y)" r="26" class="white" />
    <circle :cx="sx(o.black.x)" :cy="sy(o.black.y)" r="26" class="black" />
  </g>
  <g v-if="rivalLines.length" class="rival" data-testid="rival-lines">
    <line
      v-for="l in rivalLines"
      :key="l.ball + l.pocket"
      :x1="sx(l.fromX)"
      :y1="sy(l.fromY)"
      :x2="sx(l.toX)"
      :y2="sy(l.toY)"
      :class="{ closed: !l.chance }"
    >
      <title>
        {{ nameOf(l.ball) }}, {{ pocketName(l.pocket) }} pocket:
        {{ l.chance ? percentWords(l.chance) : `closed by the ${nameOf(l.blocker ?? '')}` }}
      </title>
    </line>
  </g>
</template>

<style scoped>
.mirror .known {
  stroke-dasharray: 2 10;
  stroke-linecap: round;
}
.opening circle {
  stroke: var(--chalk);
  stroke-width: 6;
}
.opening .white {
  fill: none;
}
.opening .black {
  fill: #16191a;
}
.opening line {
  stroke: var(--chalk-soft);
  stroke-width: 4;
  stroke-dasharray: 6 18;
}
.opening line.best {
  stroke: var(--brass);
  stroke-width: 7;
}
.rival line {
  stroke: var(--coral);
  stroke-width: 9;
  stroke-dasharray: 30 8;
}
.rival line.closed {
  stroke-width: 3;
  stroke-dasharray: 4 14;
}
</style>
