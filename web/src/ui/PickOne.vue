<script setup lang="ts" generic="T extends string | number">
import { ElOption, ElSelect } from 'element-plus'

/** One of a list that is too long to be seen at once. */
defineProps<{ options: readonly { value: T; label: string }[]; label: string; placeholder?: string; testId?: string; width?: string }>()
const model = defineModel<T>({ required: true })
const emit = defineEmits<{ picked: [value: T] }>()
</script>

<template>
  <ElSelect
    v-model="model"
    :aria-label="label"
    :placeholder="placeholder ?? label"
    :empty-values="[null, undefined]"
    :style="{ width: width ?? '150px' }"
    :data-testid="testId"
    @change="emit('picked', $event as T)"
  >
    <ElOption v-for="o in options" :key="o.value" :value="o.value" :label="o.label" :data-value="o.value" />
  </ElSelect>
</template>
