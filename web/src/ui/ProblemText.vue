<script setup lang="ts">
import { ElButton } from 'element-plus'
import type { Problem } from '../api/client'
import { problemWords } from '../lib/problemWords'

/** Why there is no answer; whether it is tried again by itself, and a way to ask at once. */
defineProps<{ problem: Problem; testId?: string }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <p v-if="problem.isForLater" class="trying" role="status" :data-testid="testId">
    {{ problemWords(problem) }} Retrying automatically. <ElButton size="small" @click="emit('again')">Try now</ElButton>
  </p>
  <p v-else class="field-error" role="alert" :data-testid="testId">
    {{ problemWords(problem) }} <ElButton size="small" @click="emit('again')">Try again</ElButton>
  </p>
</template>
