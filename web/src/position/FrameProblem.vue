<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import type { Problem } from '../api/client'
import ProblemText from '../ui/ProblemText.vue'
import { useDraft } from './draft'

/** Why a search has no answer; where the balls are no frame, with the press that makes an exercise of them. */
const props = defineProps<{ problem: Problem; testId?: string }>()
const emit = defineEmits<{ again: [] }>()
const position = useDraft()
const isOfFrame = computed(() => props.problem.errors.some((e) => e.field.startsWith('frame')))
</script>

<template>
  <ProblemText :problem="problem" :test-id="testId" @again="emit('again')" />
  <ElButton v-if="isOfFrame" size="small" data-testid="make-exercise" @click="position.makeExercise()">Make it an exercise</ElButton>
</template>
