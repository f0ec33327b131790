<script setup lang="ts">
import { computed } from 'vue'
import { fieldWords } from '../../lib/problemWords'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import { useDraft } from '../../position/draft'
import { conditionNames, groupNames, presetNames } from './words'

/** How this table, these balls and this cue behave: kept with the position. */
defineProps<{
  /** What it stands in is called so already. */
  isTitled?: boolean
}>()
const position = useDraft()
const reference = computed(() => position.reference!)
const changes = computed(() => position.content.conditions)
const groups = computed(() => [...new Set(reference.value.conditions.map((c) => c.group))])
const errors = computed(() => position.problem?.errors.filter((e) => e.field.startsWith('conditions')) ?? [])
/** Which named conditions these are; none where a figure has been changed. */
const preset = computed({
  get: () => reference.value.presets.find((p) => JSON.stringify(sorted(p.changes)) === JSON.stringify(sorted(changes.value)))?.name ?? '',
  set: (name) => choose(reference.value.presets.find((p) => p.name === name)!.changes),
})
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
  position.content.conditions = next
}

function choose(presetChanges: Record<string, number>) {
  position.content.conditions = { ...presetChanges }
  position.commit()
}
</script>

<template>
  <div>
    <h2 v-if="!isTitled">Conditions</h2>
    <p class="soft">How this table, these balls and this cue behave. The plan follows at once.</p>
    <OneOf v-model="preset" class="presets" :options="presets" label="Named conditions" />
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
          @commit="position.commit()"
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
