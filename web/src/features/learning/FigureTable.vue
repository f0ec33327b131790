<script setup lang="ts">
import type { Row } from './words'

/** Learnt figures: value, interval, and how much less is in doubt than before. */
defineProps<{ rows: readonly Row[]; label: string }>()
</script>

<template>
  <ul class="figures" :aria-label="label">
    <li v-for="r in rows" :key="r.key" :class="{ soft: !r.isKnown }" :data-testid="`figure-${r.key}`">
      <span>{{ r.name }}</span>
      <strong class="figure">{{ r.value }}</strong>
      <span class="figure soft">{{ r.range }}</span>
      <span class="bar" role="img" :aria-label="`${Math.round(r.narrowed * 100)} % of the doubt is gone`">
        <i :style="{ width: `${Math.max(2, r.narrowed * 100)}%` }"></i>
      </span>
      <span v-if="!r.isKnown" class="note">these strokes say nothing about it</span>
    </li>
  </ul>
</template>

<style scoped>
.figures {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 0 var(--space-4);
  padding: var(--space-2) 0;
  border-top: 1px solid var(--edge);
}
li > :nth-child(2),
li > :nth-child(3) {
  text-align: right;
}
li > :nth-child(3) {
  grid-column: 2;
}
.bar {
  grid-column: 1;
  grid-row: 2;
  align-self: center;
  height: 6px;
  max-width: 220px;
  width: 100%;
  border-radius: 3px;
  background: var(--edge);
  overflow: hidden;
}
.bar i {
  display: block;
  height: 100%;
  background: var(--accent);
}
.note {
  grid-column: 1 / -1;
  font-size: var(--type-2);
}
</style>
