<script setup lang="ts">
import { computed } from 'vue'
import { lightOn, lookOf, isRed } from '../../domain/balls'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { useShot } from '../../position/shot'
import { picture, sightOf, type Place, type Seen } from '../../table/sight'

/** The shot as the player sees it when down on it: balls, cushions and the pocket where they would be seen, the ghost ball, the lines. */
const position = useDraft()
const answer = useShot()
const players = usePlayer()
const r = computed(() => position.reference!)
const white = computed(() => position.ball('white'))
const cut = computed(() => answer.shot?.cut ?? null)
const sight = computed(() => (white.value ? sightOf(white.value, answer.aim, players.player.height ?? 1.75, r.value.ballRadius) : null))
/** Height of a cushion's nose above the bed, m: 7R/5. */
const nose = computed(() => 1.4 * r.value.ballRadius)
const points = (list: readonly Seen[]) => list.map((p) => `${p.x.toFixed(1)},${p.y.toFixed(1)}`).join(' ')
const corners = computed(() => {
  const { length, width } = r.value
  return [
    { x: 0, y: 0 },
    { x: length, y: 0 },
    { x: length, y: width },
    { x: 0, y: width },
  ]
})
const bed = computed(() => points(sight.value!.polygon(corners.value.map((p) => ({ ...p, z: 0 })))))
const cushions = computed(() =>
  corners.value
    .map((p, i) => {
      const q = corners.value[(i + 1) % 4]
      const wall: Place[] = [
        { ...p, z: 0 },
        { ...q, z: 0 },
        { ...q, z: nose.value },
        { ...p, z: nose.value },
      ]
      return { far: Math.max(...wall.map((w) => sight.value!.see(w).depth)), points: points(sight.value!.polygon(wall)) }
    })
    .filter((w) => w.points)
    .sort((a, b) => b.far - a.far),
)
const holes = computed(() =>
  (answer.table?.pockets ?? []).map((p) => ({
    name: p.name,
    points: points(
      sight.value!.polygon(
        Array.from({ length: 20 }, (_, i) => {
          const a = (i * Math.PI) / 10
          return { x: p.drop.x + p.drop.radius * Math.cos(a), y: p.drop.y + p.drop.radius * Math.sin(a), z: 0 }
        }),
      ),
    ),
  })),
)
const balls = computed(() =>
  position.content.balls
    .map((b) => ({ id: b.id, at: sight.value!.see({ x: b.x, y: b.y, z: r.value.ballRadius }) }))
    .filter((b) => b.at.depth > 0.12)
    .sort((a, b) => b.at.depth - a.at.depth)
    .map((b) => ({ ...b, radius: sight.value!.radiusAt(b.at.depth) })),
)
const ghost = computed(() => {
  if (!cut.value) return null
  const at = sight.value!.see({ x: cut.value.ghostX, y: cut.value.ghostY, z: r.value.ballRadius })
  return at.depth > 0.12 ? { ...at, radius: sight.value!.radiusAt(at.depth) } : null
})
const line = (from: { x: number; y: number }, to: { x: number; y: number }) => {
  const [a, b] = [from, to].map((p) => sight.value!.see({ ...p, z: 0 }))
  return a.depth > 0.12 && b.depth > 0.12 ? points([a, b]) : ''
}
const aimLine = computed(() => (cut.value && white.value ? line(white.value, { x: cut.value.ghostX, y: cut.value.ghostY }) : ''))
const legs = computed(() => (cut.value?.legs ?? []).map((l) => line({ x: l.fromX, y: l.fromY }, { x: l.toX, y: l.toY })).filter(Boolean))
/** Where the tip goes, on the white as it is seen. */
const tip = computed(() => {
  const b = balls.value.find((x) => x.id === 'white')
  // One tip moves the contact by 8.4 mm, a ball's radius is 26.25.
  const unit = b && (b.radius * r.value.millimetresPerTip) / (1000 * r.value.ballRadius) / 1.19
  return b && unit ? { x: b.at.x + position.stroke.side * unit, y: b.at.y - position.stroke.height * unit, radius: unit * 0.5 } : null
})
</script>

<template>
  <figure v-if="sight" class="sight" data-testid="sight">
    <svg
      :viewBox="`${-picture.width / 2} ${-picture.height / 2} ${picture.width} ${picture.height}`"
      role="img"
      aria-label="The shot as you see it, down on it"
    >
      <rect :x="-picture.width / 2" :y="-picture.height / 2" :width="picture.width" :height="picture.height" class="room" />
      <polygon v-for="(w, i) in cushions" :key="i" :points="w.points" class="cushion" />
      <polygon :points="bed" class="bed" />
      <polygon
        v-for="h in holes"
        :key="h.name"
        :points="h.points"
        class="hole"
        :class="{ wanted: h.name === position.stroke.pot?.pocket }"
      />
      <polyline v-for="(l, i) in legs" :key="i" :points="l" class="potting" />
      <polyline v-if="aimLine" :points="aimLine" class="aim" />
      <template v-for="b in balls" :key="b.id">
        <circle v-if="ghost && b.id === 'white'" :cx="ghost.x" :cy="ghost.y" :r="ghost.radius" class="ghost" />
        <ellipse :cx="b.at.x" :cy="b.at.y + b.radius * 0.92" :rx="b.radius" :ry="b.radius * 0.22" class="ground" />
        <circle :cx="b.at.x" :cy="b.at.y" :r="b.radius" :fill="lightOn(b.id)" class="ball" />
        <text v-if="!isRed(b.id) && b.id !== 'white'" :x="b.at.x" :y="b.at.y" :font-size="b.radius" :fill="lookOf(b.id).ink">
          {{ lookOf(b.id).mark }}
        </text>
      </template>
      <circle v-if="tip" :cx="tip.x" :cy="tip.y" :r="tip.radius" class="tip" />
    </svg>
  </figure>
</template>

<style scoped>
.sight {
  margin: 0;
}
svg {
  display: block;
  width: 100%;
  max-width: 520px;
  border-radius: 8px;
  overflow: hidden;
}
.room {
  fill: #0a1314;
}
.bed {
  fill: url(#cloth-light);
}
.cushion {
  fill: #0e4645;
  stroke: #4d918b;
  stroke-width: 0.8;
}
.hole {
  fill: #020506;
}
.hole.wanted {
  stroke: var(--brass);
  stroke-width: 1.6;
}
.potting,
.aim {
  fill: none;
  stroke: var(--brass);
  stroke-width: 1.2;
  stroke-dasharray: 5 4;
}
.aim {
  stroke: var(--chalk-soft);
}
.ghost {
  fill: none;
  stroke: var(--chalk);
  stroke-width: 1.2;
  stroke-dasharray: 3 2.5;
}
.ground {
  fill: rgb(2 16 17 / 0.4);
}
.ball {
  stroke: #06181a;
  stroke-width: 0.6;
}
.tip {
  fill: rgb(18 72 75 / 0.5);
  stroke: #12484b;
}
text {
  font-weight: 700;
  text-anchor: middle;
  dominant-baseline: central;
}
</style>
