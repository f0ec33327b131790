<script setup lang="ts">
import { ref, useId, watch } from 'vue'

/** A figure to type: applied on Enter or when left, refused with the allowed range if it is none or out of it. */
const props = defineProps<{ modelValue: number; min: number; max: number; digits: number; label: string; unit?: string; step?: number; allowed?: string }>()
const emit = defineEmits<{ 'update:modelValue': [value: number]; commit: [] }>()

const shown = (value: number) => (Math.round(value * 10 ** props.digits) / 10 ** props.digits).toFixed(props.digits)
const text = ref(shown(props.modelValue))
const error = ref('')
const errorId = useId()
let editing = false

watch(
  () => props.modelValue,
  (value) => {
    if (editing) return
    text.value = shown(value)
    // It was about the value that was there before.
    error.value = ''
  },
)

function apply() {
  editing = false
  if (text.value.trim() === shown(props.modelValue)) {
    error.value = ''
    return
  }
  const value = Number(text.value.trim().replace(',', '.'))
  if (text.value.trim() === '' || !Number.isFinite(value) || value < props.min - 1e-9 || value > props.max + 1e-9) {
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
</script>

<template>
  <span class="figure-field">
    <input
      v-model="text"
      class="figure-input"
      inputmode="decimal"
      autocomplete="off"
      :aria-label="label + (unit ? `, ${unit}` : '')"
      :aria-invalid="!!error"
      :aria-describedby="error ? errorId : undefined"
      @focus="editing = true"
      @blur="apply"
      @keydown.enter.prevent="apply"
      @keydown.esc.stop="cancel"
      @keydown.up.prevent.stop="nudge(1, $event)"
      @keydown.down.prevent.stop="nudge(-1, $event)"
    />
    <span v-if="unit" class="soft unit">{{ unit }}</span>
    <span v-if="error" class="field-error" :id="errorId" role="alert">{{ error }}</span>
  </span>
</template>

<style scoped>
.figure-field {
  display: inline-flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 5px;
}
.field-error {
  flex-basis: 100%;
}
.unit {
  font-size: 0.9rem;
}
</style>
