<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import { useView, type ShotView } from '../../position/view'
import OneOf from '../../ui/OneOf.vue'
import ChoosePanel from './ChoosePanel.vue'
import StrikePanel from './StrikePanel.vue'
import { useShell } from '../../lib/useShell'

/** How do I play this one, and what if? */
// What stands below what is used first.
const AidsBar = defineAsyncComponent(() => import('./AidsBar.vue'))
const BallPanel = defineAsyncComponent(() => import('../../position/BallPanel.vue'))
const TrialsBar = defineAsyncComponent(() => import('./TrialsBar.vue'))
const TrialsTray = defineAsyncComponent(() => import('./TrialsTray.vue'))
const WaysPanel = defineAsyncComponent(() => import('./WaysPanel.vue'))
const WhatIfPanel = defineAsyncComponent(() => import('./WhatIfPanel.vue'))
const ComparePanel = defineAsyncComponent(() => import('./ComparePanel.vue'))
const GuessPanel = defineAsyncComponent(() => import('./GuessPanel.vue'))
const KeptShots = defineAsyncComponent(() => import('./KeptShots.vue'))

const view = useView()
/** Where there is no room below the plan the lines stand here. */
const { isSmall } = useShell()
const shown = computed({ get: () => view.shotView, set: (to) => view.go('shot', to) })
const views: { value: ShotView; label: string; testId: string }[] = [
  { value: 'set-up', label: 'Set up', testId: 'set-up' },
  { value: 'what-if', label: 'What if', testId: 'what-if' },
  { value: 'there', label: 'Put it there', testId: 'put-it-there' },
  { value: 'compare', label: 'Compare', testId: 'compare-strokes' },
  { value: 'guess', label: 'Guess', testId: 'guess-view' },
  { value: 'kept', label: 'Kept', testId: 'keep' },
]
</script>

<template>
  <div class="panel views"><OneOf v-model="shown" :options="views" label="Of the shot" /></div>
  <template v-if="shown === 'set-up'"
    ><div v-if="isSmall" class="panel"><TrialsBar /><TrialsTray /></div>
    <ChoosePanel /><StrikePanel /><AidsBar /><BallPanel
  /></template>
  <template v-else>
    <div class="panel fills">
      <WaysPanel v-if="shown === 'there'" /><WhatIfPanel v-else-if="shown === 'what-if'" /><ComparePanel
        v-else-if="shown === 'compare'"
      /><GuessPanel v-else-if="shown === 'guess'" /><KeptShots v-else />
    </div>
    <StrikePanel />
    <AidsBar v-if="shown === 'there'" />
  </template>
</template>

<style scoped>
/* Six of them stand in one row of a desk. */
.views :deep(.el-radio-button__inner) {
  padding-inline: var(--space-2);
}
</style>
