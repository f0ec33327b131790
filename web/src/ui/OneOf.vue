<script setup lang="ts" generic="T extends string | number">
import { ElRadioButton, ElRadioGroup } from 'element-plus'

/** One of a few that are all seen. */
defineProps<{ options: readonly { value: T; label: string; testId?: string; title?: string }[]; label: string; disabled?: boolean }>()
const model = defineModel<T>({ required: true })
</script>

<template>
  <ElRadioGroup v-model="model" class="one-of" :aria-label="label" :disabled="disabled">
    <ElRadioButton v-for="o in options" :key="o.value" :value="o.value" :title="o.title" :data-testid="o.testId">{{
      o.label
    }}</ElRadioButton>
  </ElRadioGroup>
</template>
