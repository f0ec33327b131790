<script setup lang="ts">
import { ElButton, ElSlider } from 'element-plus'
import { computed, ref } from 'vue'
import { ask, client, type FieldError } from '../../api/client'
import { useAnswer } from '../../lib/useAnswer'
import { driftWords } from '../../domain/words'
import { useLatest } from '../../lib/useLatest'
import PlanPicture from '../../table/PlanPicture.vue'
import { fieldWords } from '../../lib/problemWords'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import { useDraft } from '../../position/draft'
import { conditionMeanings, conditionNames, effectWords, groupNames, presetNames, scaleWords } from './conditionWords'

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
// ---- In the player's words: five scales, and what each changes -------------------------------------------------
const isExact = ref(false)
const feeling = useAnswer({
  question: () => ({ conditions: changes.value }),
  ask: (body, signal) => ask(client.POST('/api/conditions', { body: { ...body, to: 0 }, signal })),
  rest: 60,
})
const scales = computed(() => (feeling.answer.value?.scales ?? []).filter((s) => groups.value.includes(s.scale)))
/** The scale whose stroke is drawn: the last one that was turned. */
const shown = ref('cloth')
const drawn = computed(() => scales.value.find((s) => s.scale === shown.value && s.way.length) ?? scales.value.find((s) => s.way.length))
// ---- A table is never quite level ----
const runsOff = computed(() => feeling.answer.value?.runsOff ?? { x: 0, y: 0 })
const drift = computed(() => (groups.value.includes('cloth') ? driftWords(runsOff.value) : ''))
/** From the middle of the table, ten times as long as it is. */
const driftArrow = computed(() => {
  const middle = { x: reference.value.length / 2, y: reference.value.width / 2 }
  return [middle, { x: middle.x + 10 * runsOff.value.x, y: middle.y + 10 * runsOff.value.y }]
})
/** One at a time, and always the newest: a slider that is dragged asks at every step. */
const turn = useLatest(async (scale: string, to: number) => {
  shown.value = scale
  const turned = await ask(client.POST('/api/conditions', { body: { conditions: changes.value, scale, to } }))
  changes.value = { ...turned.conditions }
})
</script>

<template>
  <div>
    <OneOf v-if="groups.includes('cloth')" v-model="preset" class="presets" :options="presets" label="Named conditions" />
    <p v-for="e in errors" :key="e.field" class="field-error" role="alert">
      {{ conditionNames[e.field.replace('conditions.', '')] ?? e.field }}: {{ fieldWords(e) }}
    </p>
    <div v-for="f in scales" :key="f.scale" class="scale" :data-testid="`feel-${f.scale}`">
      <span class="name">{{ groupNames[f.scale] }}</span>
      <span class="soft end">{{ scaleWords[f.scale][0] }}</span>
      <ElSlider
        :model-value="f.at"
        :min="-1"
        :max="1"
        :step="0.05"
        :show-tooltip="false"
        :aria-label="`${groupNames[f.scale]}: ${scaleWords[f.scale].join(' to ')}`"
        @input="turn(f.scale, $event as number)"
        @change="emit('commit')"
      />
      <span class="soft end">{{ scaleWords[f.scale][1] }}</span>
      <span class="effect">{{ effectWords(f) }}</span>
    </div>
    <PlanPicture v-if="drawn" class="shows" :balls="[{ id: 'white', ...drawn.way[0] }]" :reference="reference" :white="drawn.way" />
    <template v-if="drift">
      <p class="drift" data-testid="drift">{{ drift }}</p>
      <PlanPicture class="shows" :balls="[]" :reference="reference" :white="driftArrow" />
    </template>
    <ElButton size="small" :aria-expanded="isExact" data-testid="exact-figures" @click="isExact = !isExact">{{
      isExact ? 'Hide the exact figures' : 'Exact figures'
    }}</ElButton>
    <fieldset v-for="g in isExact ? groups : []" :key="g">
      <legend>{{ groupNames[g] ?? g }}</legend>
      <label v-for="c in reference.conditions.filter((c) => c.group === g)" :key="c.name" :class="{ changed: c.name in changes }">
        <span
          >{{ conditionNames[c.name] ?? c.name }}<span class="soft meaning">{{ conditionMeanings[c.name] }}</span></span
        >
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
  margin-bottom: var(--space-3);
}
.scale {
  display: grid;
  grid-template-columns: 5em 4em minmax(90px, 1fr) 5em;
  gap: 0 var(--space-3);
  align-items: center;
  padding: var(--space-2) 0;
}
.name {
  font-weight: 650;
}
.end {
  font-size: var(--type-2);
}
.scale .end:nth-child(2) {
  text-align: right;
}
.effect {
  grid-column: 2 / 5;
  font-size: var(--type-3);
}
.shows {
  max-width: 340px;
  margin: var(--space-3) 0;
}
.meaning {
  display: block;
  font-size: var(--type-2);
  font-weight: 400;
}
fieldset {
  border: 0;
  border-top: 1px solid var(--edge);
  margin: 0;
  padding: var(--space-2) 0 var(--space-3);
}
legend {
  font-weight: 650;
  padding-right: var(--space-3);
}
label {
  display: grid;
  grid-template-columns: 1fr 148px;
  gap: var(--space-3);
  align-items: center;
  margin: var(--space-1) 0;
  font-size: var(--type-3);
}
label.changed > span:first-child {
  color: var(--accent);
  font-weight: 600;
}
p {
  margin-top: 0;
}
</style>
