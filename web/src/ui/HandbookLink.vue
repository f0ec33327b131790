<script setup lang="ts">
import type { Topic } from '../domain/handbook'

/** A figure's question mark: to its paragraph in the handbook. */
defineProps<{ of: Topic; what: string }>()
</script>

<template>
  <RouterLink
    class="handbook-link"
    :to="`/handbook#${of}`"
    :title="`What ${what} means`"
    :aria-label="`What ${what} means`"
    data-testid="handbook-link"
    >?</RouterLink
  >
</template>

<style scoped>
.handbook-link.handbook-link {
  display: inline-grid;
  place-content: center;
  width: 18px;
  height: 18px;
  margin: 0 var(--space-1);
  border: 1px solid var(--edge);
  border-radius: 50%;
  color: var(--text-soft);
  font-size: var(--type-1);
  font-weight: 600;
  text-decoration: none;
  vertical-align: middle;
}
.handbook-link:hover {
  color: var(--accent);
  border-color: var(--accent);
}
@media (pointer: coarse) {
  .handbook-link.handbook-link {
    width: 26px;
    height: 26px;
  }
}
</style>
