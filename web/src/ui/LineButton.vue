<script setup lang="ts">
import { ElButton } from 'element-plus'

/** Words that do something when pressed, over as many lines as they need. */
</script>

<template>
  <ElButton text class="words"
    ><span><slot /></span
  ></ElButton>
</template>

<style scoped>
.words.el-button {
  height: auto;
  min-height: 28px;
  padding: var(--space-1) var(--space-2);
  margin: 0 calc(-1 * var(--space-2));
  white-space: normal;
  text-align: left;
  justify-content: flex-start;
  color: var(--text);
  font-size: inherit;
  font-weight: inherit;
  line-height: 1.3;
}
.words.el-button > :deep(span) {
  display: block;
}
.words.el-button > :deep(span)::first-letter {
  text-transform: uppercase;
}
</style>
