<script setup lang="ts">
import { computed } from 'vue'
import { lengthUnit } from '../lib/formats'
import FigureInput from './FigureInput.vue'

/** A length to type, in the units that the user likes; metres in and out. */
const props = defineProps<{
  modelValue: number
  min: number
  max: number
  label: string
  digits?: number
  allowedFrom?: number
  allowedTo?: number
  width?: string
  testId?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [metres: number]; commit: [] }>()
const digits = computed(() => (props.digits ?? 0) + lengthUnit.digits)
const shown = (metres: number) => lengthUnit.of(metres).toFixed(digits.value)
const allowed = computed(() => `${shown(props.allowedFrom ?? props.min)} to ${shown(props.allowedTo ?? props.max)} ${lengthUnit.name}`)
</script>

<template>
  <FigureInput
    :model-value="lengthUnit.of(modelValue)"
    :min="lengthUnit.of(min)"
    :max="lengthUnit.of(max)"
    :digits="digits"
    :step="lengthUnit.name === 'mm' ? 1 : 0.1"
    :label="label"
    :unit="lengthUnit.name"
    :allowed="allowed"
    :width="width"
    :test-id="testId"
    @update:model-value="emit('update:modelValue', lengthUnit.metres($event))"
    @commit="emit('commit')"
  />
</template>
