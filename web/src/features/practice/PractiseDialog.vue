<script setup lang="ts">
import { ElButton, ElCheckbox, ElDialog, ElInput } from 'element-plus'
import { computed, ref, watch } from 'vue'
import { useRouter } from 'vue-router'
import { pocketName, theBall } from '../../domain/balls'
import { sentence } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { usePractise } from '../../position/practise'
import LengthInput from '../../ui/LengthInput.vue'
import FigureInput from '../../ui/FigureInput.vue'
import { useRoutines, type Step } from './routines'

/** Makes what lies on the table a routine: sensible as it stands, so that one press keeps it. */
const practise = usePractise()
const routines = useRoutines()
const router = useRouter()
const { attempt, busy } = useAttempt()
const name = ref('')
const isPotted = ref(true)
const stops = ref(true)
const radius = ref(0.15)
const attempts = ref(10)
const bothSides = ref(true)
watch(
  () => practise.asked,
  (asked) => {
    if (!asked) return
    name.value = asked.name.slice(0, 120)
    isPotted.value = !!asked.stroke.pot && !asked.stroke.free
    stops.value = !!asked.stop
    radius.value = 0.15
    attempts.value = 10
    bothSides.value = true
  },
  { immediate: true },
)
const pot = computed(() => practise.asked?.stroke.pot)
const demands = computed<Step['demands']>(() => [
  ...(isPotted.value && pot.value ? [{ kind: 'pot' as const }] : []),
  ...(stops.value && practise.asked?.stop
    ? [{ kind: 'whiteIn' as const, area: { x: practise.asked.stop.x, y: practise.asked.stop.y, radius: radius.value } }]
    : []),
])
const keep = () =>
  attempt(async () => {
    const { balls, stroke } = practise.asked!
    const made = await routines.create({
      name: name.value.trim(),
      family: 'own',
      task: '',
      why: '',
      lookFor: '',
      steps: practise.asked!.steps?.map((s) => ({ ...s, balls })) ?? [{ label: 'as laid', balls, stroke, demands: demands.value }],
      order: practise.asked!.steps ? 'ladder' : 'steps',
      attempts: attempts.value,
      bothSides: bothSides.value,
      knob: practise.asked!.knob ?? null,
    })
    practise.leave()
    await router.push(`/practice/routines/${made.id}`)
  }, 'Could not keep the routine')
</script>

<template>
  <ElDialog :model-value="!!practise.asked" title="Practise this" width="min(480px, 94vw)" @close="practise.leave()">
    <div v-if="practise.asked" class="fields">
      <ElInput v-model="name" :maxlength="120" aria-label="Name of the routine" data-testid="routine-name" />
      <template v-if="practise.asked.steps">
        <strong>Rungs</strong>
        <ol class="rungs">
          <li v-for="s in practise.asked.steps" :key="s.label + s.stroke?.height + s.stroke?.pace">{{ sentence(s.label) }}</li>
        </ol>
        <p class="soft">The next rung comes when one is done, the one before when it is not.</p>
      </template>
      <template v-else>
        <strong>Done is</strong>
        <ElCheckbox v-if="pot" v-model="isPotted">{{ theBall(pot.ball) }} into the {{ pocketName(pot.pocket) }} pocket</ElCheckbox>
        <div v-if="practise.asked.stop" class="row">
          <ElCheckbox v-model="stops">the white stops where it is drawn, within</ElCheckbox>
          <LengthInput v-model="radius" :min="0.03" :max="1" label="How near" />
        </div>
        <p v-if="!demands.length" class="field-error" role="alert">Ask for something: a pot, or where the white stops.</p>
      </template>
      <label class="row"
        ><FigureInput v-model="attempts" :min="1" :max="200" :digits="0" label="Attempts" /> attempts
        <ElCheckbox v-model="bothSides">from both sides of the table</ElCheckbox></label
      >
    </div>
    <template #footer>
      <ElButton @click="practise.leave()">Cancel</ElButton>
      <ElButton
        type="primary"
        :disabled="busy || (!demands.length && !practise.asked?.steps) || !name.trim()"
        data-testid="keep-routine"
        @click="keep"
        >Keep it as a routine</ElButton
      >
    </template>
  </ElDialog>
</template>

<style scoped>
.fields {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  align-items: flex-start;
}
.fields .el-input {
  width: 100%;
}
p {
  margin: 0;
}
.rungs {
  margin: 0;
  padding-left: 1.6em;
}
</style>
