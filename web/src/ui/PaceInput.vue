<script setup lang="ts">
import { paceUnit } from '../lib/formats'
import FigureInput from './FigureInput.vue'

/** A pace to type, in the player's own numbers; the standard scale in and out. */
defineProps<{ modelValue: number; min: number; max: number; label: string; step?: number; testId?: string }>()
const emit = defineEmits<{ 'update:modelValue': [standard: number]; commit: [] }>()
</script>

<template>
  <FigureInput
    :model-value="paceUnit.of(modelValue)"
    :min="paceUnit.of(min)"
    :max="paceUnit.of(max)"
    :digits="1"
    :step="step"
    :label="label"
    width="58px"
    :test-id="testId"
    @update:model-value="emit('update:modelValue', paceUnit.standard($event))"
    @commit="emit('commit')"
  />
</template>
