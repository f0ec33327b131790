<script setup lang="ts">
import { nameOf, pocketName } from '../../domain/balls'
import { percentWords } from '../../lib/formats'
import { useDrawing } from '../../table/bed'
import { useDecideDrawing } from './decideDrawing'
import { useEscapes } from './escapes'

/** Of the plan's drawing: the safety or escape that is chosen, and the other player's ways after the stroke that is set up. */
const { safety, escape, rivalLines, openingEnds } = useDecideDrawing()
const { sx, sy, points, outlinePath } = useDrawing()
const escapes = useEscapes()
</script>

<template>
  <g v-if="safety" class="spread" data-testid="safety-spread">
    <path :d="outlinePath(safety.whiteSpread)" class="likely"><title>Two thirds of strokes leave the white in here</title></path>
    <path :d="outlinePath(safety.ballSpread)" class="nearly"><title>Two thirds of strokes leave the ball in here</title></path>
  </g>
  <g v-if="escapes.family" class="family" data-testid="family-band">
    <title>From anywhere here the ball is hit off the same point of the cushion</title>
    <rect
      v-for="p in escapes.family.places"
      :key="`${p.x}/${p.y}`"
      :x="sx(p.x - escapes.family.cell / 2)"
      :y="sy(p.y + escapes.family.cell / 2)"
      :width="escapes.family.cell * 1000"
      :height="escapes.family.cell * 1000"
    />
    <circle :cx="sx(escapes.family.point.x)" :cy="sy(escapes.family.point.y)" r="20" />
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
.family rect {
  fill: rgb(226 184 90 / 0.2);
}
.family circle {
  fill: none;
  stroke: var(--brass);
  stroke-width: calc(8px * var(--u));
}
.mirror .known {
  stroke-dasharray: calc(2px * var(--u)) calc(10px * var(--u));
  stroke-linecap: round;
}
.opening circle {
  stroke: var(--chalk);
  stroke-width: calc(6px * var(--u));
}
.opening .white {
  fill: none;
}
.opening .black {
  fill: #16191a;
}
.opening line {
  stroke: var(--chalk-soft);
  stroke-width: calc(4px * var(--u));
  stroke-dasharray: calc(6px * var(--u)) calc(18px * var(--u));
}
.opening line.best {
  stroke: var(--brass);
  stroke-width: calc(7px * var(--u));
}
.rival line {
  stroke: var(--coral);
  stroke-width: calc(9px * var(--u));
  stroke-dasharray: calc(30px * var(--u)) calc(8px * var(--u));
}
.rival line.closed {
  stroke-width: calc(3px * var(--u));
  stroke-dasharray: calc(4px * var(--u)) calc(14px * var(--u));
}
</style>
