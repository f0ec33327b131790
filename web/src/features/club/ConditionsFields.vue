<script setup lang="ts">
import { computed } from 'vue'
import type { FieldError } from '../../api/client'
import { fieldWords } from '../../lib/problemWords'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import { useDraft } from '../../position/draft'
import { conditionNames, groupNames, presetNames } from './conditionWords'

/** How a table, its balls and a cue behave: what differs from a match table's figures. */
const props = defineProps<{
  /** Which groups of figures; all unless said. */
  of?: readonly string[]
  errors?: readonly FieldError[]
}>()
const changes = defineModel<Record<string, number>>({ required: true })
const emit = defineEmits<{ commit: [] }>()
const reference = computed(() => useDraft().reference!)
const groups = computed(() => [...new Set(reference.value.conditions.map((c) => c.group))].filter((g) => props.of?.includes(g) ?? true))
/** Which named conditions these are; none where a figure has been changed. */
const preset = computed({
  get: () => reference.value.presets.find((p) => JSON.stringify(sorted(p.changes)) === JSON.stringify(sorted(ofTable.value)))?.name ?? '',
  set: (name) => choose(reference.value.presets.find((p) => p.name === name)!.changes),
})
const ofTable = computed(() =>
  Object.fromEntries(
    Object.entries(changes.value).filter(([name]) => reference.value.conditions.find((c) => c.name === name)?.group !== 'cue'),
  ),
)
const presets = computed(() =>
  reference.value.presets.map((p) => ({ value: p.name, label: presetNames[p.name] ?? p.name, testId: `preset-${p.name}` })),
)

const sorted = (o: Record<string, number>) => Object.entries(o).sort(([a], [b]) => a.localeCompare(b))

// Pockets are easier in millimetres; everything else is shown in its own unit.
const scale = (unit: string) => (unit === 'm' ? 1000 : 1)
const unitOf = (unit: string) => (unit === 'm' ? 'mm' : unit)
const digits = (c: { max: number; min: number; unit: string }) => {
  const span = (c.max - c.min) * scale(c.unit)
  return span > 20 ? 1 : span > 1 ? 2 : span > 0.1 ? 3 : 4
}

function set(name: string, value: number, standard: number) {
  const next = { ...changes.value }
  if (Math.abs(value - standard) < 1e-12) delete next[name]
  else next[name] = value
  changes.value = next
}

function choose(presetChanges: Record<string, number>) {
  // The cue's own figures are no table's.
  const own = Object.entries(changes.value).filter(([name]) => reference.value.conditions.find((c) => c.name === name)?.group === 'cue')
  changes.value = { ...presetChanges, ...Object.fromEntries(own) }
  emit('commit')
}
</script>

<template>
  <div>
    <OneOf v-if="groups.includes('cloth')" v-model="preset" class="presets" :options="presets" label="Named conditions" />
    <p v-for="e in errors" :key="e.field" class="field-error" role="alert">
      {{ conditionNames[e.field.replace('conditions.', '')] ?? e.field }}: {{ fieldWords(e) }}
    </p>
    <fieldset v-for="g in groups" :key="g">
      <legend>{{ groupNames[g] ?? g }}</legend>
      <label v-for="c in reference.conditions.filter((c) => c.group === g)" :key="c.name" :class="{ changed: c.name in changes }">
        <span>{{ conditionNames[c.name] ?? c.name }}</span>
        <FigureInput
          :model-value="(changes[c.name] ?? c.default) * scale(c.unit)"
          :min="c.min * scale(c.unit)"
          :max="c.max * scale(c.unit)"
          :digits="digits(c)"
          :label="conditionNames[c.name] ?? c.name"
          :unit="unitOf(c.unit)"
          width="84px"
          @update:model-value="set(c.name, $event / scale(c.unit), c.default)"
          @commit="emit('commit')"
        />
      </label>
    </fieldset>
  </div>
</template>

<style scoped>
.presets {
  margin-bottom: 10px;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--edge);
  margin: 0;
  padding: 6px 0 8px;
}
legend {
  font-weight: 650;
  padding-right: 8px;
}
label {
  display: grid;
  grid-template-columns: 1fr 148px;
  gap: 8px;
  align-items: center;
  margin: 3px 0;
  font-size: 0.93rem;
}
label.changed > span:first-child {
  color: var(--accent);
  font-weight: 600;
}
p {
  margin-top: 0;
}
</style>
