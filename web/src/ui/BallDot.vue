<script setup lang="ts">
import { isRed, lookOf } from '../domain/balls'

/** A ball as its list names it: its colour with its mark, a red with its number. */
defineProps<{ ball: string }>()
</script>

<template>
  <span class="dot" :style="{ background: lookOf(ball).fill, color: lookOf(ball).ink }" aria-hidden="true">{{
    isRed(ball) ? ball.slice(4) : lookOf(ball).mark
  }}</span>
</template>

<style scoped>
.dot {
  width: 20px;
  height: 20px;
  border-radius: 50%;
  border: 1px solid var(--edge);
  display: inline-grid;
  place-content: center;
  font-weight: 700;
  font-size: var(--type-1);
  flex: none;
  vertical-align: -5px;
}
</style>
