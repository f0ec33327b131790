<script setup lang="ts">
import { defineAsyncComponent } from 'vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import OneOf from '../../ui/OneOf.vue'
import FanPanel from './FanPanel.vue'
import { useWhatIf, type WhatIf } from './whatIf'

/** The stroke that is set up with one thing changed. */
const LadderPanel = defineAsyncComponent(() => import('./LadderPanel.vue'))
const PacesPanel = defineAsyncComponent(() => import('./PacesPanel.vue'))
const ChartPanel = defineAsyncComponent(() => import('./ChartPanel.vue'))
const whatIf = useWhatIf()
const parts: { value: WhatIf; label: string; testId: string; title: string }[] = [
  { value: 'lines', label: 'Lines', testId: 'what-lines', title: 'The ways of the white with other settings' },
  { value: 'ladder', label: 'Ladder', testId: 'what-ladder', title: 'What each setting of one knob reaches' },
  { value: 'paces', label: 'By pace', testId: 'what-paces', title: 'Where the balls stop at each pace' },
  {
    value: 'chart',
    label: 'Parts of the pocket',
    testId: 'what-chart',
    title: 'Where the white goes by the part of the pocket, and by side',
  },
]
</script>

<template>
  <div class="what-if" data-testid="what-if-panel">
    <div class="row"><OneOf v-model="whatIf.part" :options="parts" label="What if" /><HandbookLink of="whatIf" what="what if" /></div>
    <FanPanel v-if="whatIf.part === 'lines'" /><LadderPanel v-else-if="whatIf.part === 'ladder'" /><PacesPanel
      v-else-if="whatIf.part === 'paces'"
    /><ChartPanel v-else />
    <p v-if="whatIf.refusal" class="field-error" role="alert">{{ whatIf.refusal }}</p>
  </div>
</template>

<style scoped>
.what-if {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
}
</style>
