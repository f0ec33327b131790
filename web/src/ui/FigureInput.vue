<script setup lang="ts">
import { ElInput } from 'element-plus'
import { ref, useId, watch } from 'vue'
import { readFigure } from '../lib/figures'

/**
 * A figure to type, read as in the browser's language, with its unit or another: applied on Enter or when left, refused with the allowed range if it is none or out of it.
 * Arrows step it, with Shift ten times as far. Phones have no minus among their figures: where one may be typed they show letters too.
 */
const props = defineProps<{
  modelValue: number
  min: number
  max: number
  digits: number
  label: string
  unit?: string
  step?: number
  allowed?: string
  width?: string
  testId?: string
}>()
const emit = defineEmits<{ 'update:modelValue': [value: number]; commit: [] }>()

const shown = (value: number) => (Math.round(value * 10 ** props.digits) / 10 ** props.digits).toFixed(props.digits)
const text = ref(shown(props.modelValue))
const error = ref('')
const errorId = useId()
let editing = false

watch([() => props.modelValue, () => props.digits], ([value]) => {
  if (editing) return
  text.value = shown(value)
  // It was about the value that was there before.
  error.value = ''
})

function apply() {
  editing = false
  if (text.value.trim() === shown(props.modelValue)) {
    error.value = ''
    return
  }
  const value = readFigure(text.value, { locale: navigator.language, unit: props.unit, digits: props.digits })
  if (value === null || value < props.min - 1e-9 || value > props.max + 1e-9) {
    error.value = `${props.label}: ${props.allowed ?? `${shown(props.min)} to ${shown(props.max)}${props.unit ? ` ${props.unit}` : ''}`}`
    return
  }
  error.value = ''
  emit('update:modelValue', value)
  emit('commit')
  text.value = shown(value)
}

function nudge(direction: number, e: KeyboardEvent) {
  const step = (props.step ?? 10 ** -props.digits) * (e.shiftKey ? 10 : 1)
  const value = Math.min(props.max, Math.max(props.min, props.modelValue + direction * step))
  error.value = ''
  editing = false
  emit('update:modelValue', value)
  emit('commit')
  text.value = shown(value)
}

function cancel() {
  editing = false
  error.value = ''
  text.value = shown(props.modelValue)
}

function key(e: KeyboardEvent | Event) {
  if (!(e instanceof KeyboardEvent)) return
  if (e.key === 'Enter') apply()
  else if (e.key === 'Escape') cancel()
  else if (e.key === 'ArrowUp') nudge(1, e)
  else if (e.key === 'ArrowDown') nudge(-1, e)
  else return
  e.stopPropagation()
  e.preventDefault()
}
</script>

<template>
  <span class="figure-field">
    <ElInput
      v-model="text"
      class="figure-input"
      :style="{ width: width ?? '70px' }"
      :inputmode="min < 0 ? 'text' : 'decimal'"
      autocomplete="off"
      :aria-label="label + (unit ? `, ${unit}` : '')"
      :aria-invalid="!!error"
      :aria-describedby="error ? errorId : undefined"
      :data-testid="testId"
      @focus="editing = true"
      @blur="apply"
      @keydown="key"
    />
    <span v-if="unit" class="soft unit">{{ unit }}</span>
    <span v-if="error" :id="errorId" class="field-error" role="alert">{{ error }}</span>
  </span>
</template>

<style scoped>
.figure-field {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: var(--space-2);
}
.figure-input :deep(.el-input__wrapper) {
  padding: 0 var(--space-3);
}
.figure-input :deep(input) {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.field-error {
  flex-basis: 100%;
}
.unit {
  font-size: var(--type-2);
}
</style>
