<script setup lang="ts">
import { ElButton } from 'element-plus'

/** What to do first where nothing has been saved yet. */
defineEmits<{ done: [] }>()
const steps = [
  { to: '/players', words: 'Say who plays' },
  { to: '/tables', words: 'Describe the table' },
  { to: '/cues', words: 'Describe the cue' },
]
</script>

<template>
  <section class="first-steps" aria-label="First steps" data-testid="first-steps">
    <strong>A new club.</strong>
    <ol>
      <li v-for="s in steps" :key="s.to">
        <RouterLink :to="s.to">{{ s.words }}</RouterLink>
      </li>
      <li>Lay the balls as they are on your table, choose a pot, and save.</li>
    </ol>
    <ElButton size="small" data-testid="first-steps-done" @click="$emit('done')">Done</ElButton>
  </section>
</template>

<style scoped>
.first-steps {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-4);
  align-items: baseline;
  padding: var(--space-2) var(--space-4);
  background: var(--panel-2);
  border-bottom: 1px solid var(--edge);
}
ol {
  display: flex;
  flex-wrap: wrap;
  gap: 0 var(--space-6);
  margin: 0;
  padding: 0 0 0 var(--space-4);
}
a {
  color: var(--accent);
}
</style>
