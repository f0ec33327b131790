<script setup lang="ts">
import { ElButton } from 'element-plus'
import type { Problem } from '../api/client'
import { problemWords } from '../lib/problemWords'

/** Why there is no answer, and a way to ask again. */
defineProps<{ problem: Problem; testId?: string }>()
const emit = defineEmits<{ again: [] }>()
</script>

<template>
  <p class="field-error" role="alert" :data-testid="testId">
    {{ problemWords(problem) }} <ElButton size="small" @click="emit('again')">Try again</ElButton>
  </p>
</template>
