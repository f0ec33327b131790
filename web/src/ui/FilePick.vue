<script setup lang="ts">
import { ElButton } from 'element-plus'
import { ref } from 'vue'

/** A button that asks for a file. */
defineProps<{ accept: string; testId?: string }>()
const emit = defineEmits<{ picked: [file: File] }>()
const input = ref<HTMLInputElement>()

function pick() {
  const file = input.value?.files?.[0]
  if (file) emit('picked', file)
  // The same file can be picked again.
  input.value!.value = ''
}
</script>

<template>
  <span>
    <ElButton @click="input?.click()"><slot /></ElButton>
    <input ref="input" type="file" :accept="accept" hidden :data-testid="testId" @change="pick" />
  </span>
</template>
