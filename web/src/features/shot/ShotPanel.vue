<script setup lang="ts">
import { computed, defineAsyncComponent } from 'vue'
import BallPanel from '../../position/BallPanel.vue'
import { useView, type ShotView } from '../../position/view'
import OneOf from '../../ui/OneOf.vue'
import AidsBar from './AidsBar.vue'
import ChoosePanel from './ChoosePanel.vue'
import StrikePanel from './StrikePanel.vue'

/** How do I play this one, and what if? */
const WaysPanel = defineAsyncComponent(() => import('./WaysPanel.vue'))
const ComparePanel = defineAsyncComponent(() => import('./ComparePanel.vue'))
const KeptShots = defineAsyncComponent(() => import('./KeptShots.vue'))

const view = useView()
const shown = computed({ get: () => view.shotView, set: (to) => view.go('shot', to) })
const views: { value: ShotView; label: string; testId: string }[] = [
  { value: 'set-up', label: 'Set up', testId: 'set-up' },
  { value: 'there', label: 'Put it there', testId: 'put-it-there' },
  { value: 'compare', label: 'Compare', testId: 'compare-strokes' },
  { value: 'kept', label: 'Kept', testId: 'keep' },
]
</script>

<template>
  <div class="panel views"><OneOf v-model="shown" :options="views" label="Of the shot" /></div>
  <template v-if="shown === 'set-up'"><ChoosePanel /><StrikePanel /><AidsBar /><BallPanel /></template>
  <template v-else>
    <div class="panel fills">
      <WaysPanel v-if="shown === 'there'" /><ComparePanel v-else-if="shown === 'compare'" /><KeptShots v-else />
    </div>
    <StrikePanel />
    <AidsBar v-if="shown === 'there'" />
  </template>
</template>
