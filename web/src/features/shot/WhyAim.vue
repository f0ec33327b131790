<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { ref } from 'vue'
import { useJudgements } from './judgements'

/** Unfolds why the stroke is aimed so: in the desk and not over the plan, which shows what it speaks of. Esc folds it. */
const judgements = useJudgements()
const button = ref<InstanceType<typeof ElButton>>()
useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  if (e.key !== 'Escape' || !judgements.sidesOpen || e.defaultPrevented) return
  judgements.sidesOpen = false
  ;(button.value?.$el as HTMLElement | undefined)?.focus()
})
</script>

<template>
  <ElButton
    ref="button"
    size="small"
    :aria-expanded="judgements.sidesOpen"
    aria-controls="why-aim"
    data-testid="why-aim"
    @click="judgements.sidesOpen = !judgements.sidesOpen"
    >Why</ElButton
  >
</template>
