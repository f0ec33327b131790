<script setup lang="ts">
/** A gallery of plans that is still on its way: cards of the right size, so that nothing moves when it comes. */
withDefaults(defineProps<{ count?: number }>(), { count: 6 })
</script>

<template>
  <ul class="gallery" role="status" aria-label="Loading …">
    <li v-for="i in count" :key="i" class="loading" aria-hidden="true">
      <span class="plan"></span>
      <span class="line"></span>
      <span class="line short"></span>
    </li>
  </ul>
</template>

<style scoped>
.plan {
  /* A table with its wood: 3.569 m by 1.778 m, 0.12 m around. */
  aspect-ratio: 3.809 / 2.018;
  background: var(--panel-2);
}
.line {
  height: 1.1em;
  margin: var(--space-3) var(--space-4) 0;
  border-radius: 4px;
  background: var(--panel-2);
}
.line.short {
  width: 55%;
  margin-bottom: calc(2 * var(--space-6));
}
</style>
