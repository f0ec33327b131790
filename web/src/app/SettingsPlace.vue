<script setup lang="ts">
import { useDark } from '@vueuse/core'
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import PlayerFields from '../features/club/PlayerFields.vue'
import SkillMeaning from '../features/club/SkillMeaning.vue'
import CorrectionList from '../features/safety/CorrectionList.vue'
import TableConditions from '../features/club/TableConditions.vue'
import { units } from '../lib/formats'
import OneOf from '../ui/OneOf.vue'
import { useClub } from '../position/club'
import HandbookLink from '../ui/HandbookLink.vue'
import KeyList from './keys/KeyList.vue'

/** What is set once: who plays, on what table, with which keys, in which units and dress. */
defineEmits<{ tour: [] }>()
const club = useClub()
const dark = useDark({ initialValue: 'dark', disableTransition: false })
const theme = computed({ get: () => (dark.value ? 'dark' : 'light'), set: (value) => (dark.value = value === 'dark') })
const themes = [
  { value: 'dark', label: 'Dark', testId: 'theme-dark' },
  { value: 'light', label: 'Light', testId: 'theme-light' },
]
const unit = computed({ get: () => units.value, set: (value) => (units.value = value) })
const unitChoices = [
  { value: 'mm', label: 'Millimetres', testId: 'units-mm' },
  { value: 'inches', label: 'Inches', testId: 'units-inches' },
] as const
</script>

<template>
  <main class="place wide-place settings" data-testid="settings-place">
    <h1>Settings</h1>
    <div v-if="club.player" class="columns">
      <div>
        <section aria-label="Player">
          <h2>{{ club.player.name }}</h2>
          <PlayerFields :player="club.player" />
          <p class="row">
            <RouterLink to="/players">All players</RouterLink>
            <RouterLink to="/tables">All tables</RouterLink>
            <RouterLink to="/cues">All cues</RouterLink>
          </p>
        </section>
        <section aria-labelledby="devices-title">
          <h2 id="devices-title">Devices</h2>
          <p>
            <RouterLink to="/devices" data-testid="to-devices">A camera over the table, a sensor on the cue</RouterLink>
          </p>
        </section>
        <section aria-labelledby="units-title">
          <h2 id="units-title">Units</h2>
          <OneOf v-model="unit" :options="unitChoices" label="Units" />
        </section>
        <section aria-labelledby="theme-title">
          <h2 id="theme-title">Dress</h2>
          <OneOf v-model="theme" :options="themes" label="Dress" />
        </section>
        <section aria-labelledby="help-title">
          <h2 id="help-title">Help</h2>
          <ElButton data-testid="help-tour" @click="$emit('tour')">Show me round</ElButton>
        </section>
        <section aria-label="Corrections"><CorrectionList /></section>
        <section aria-labelledby="keys-title">
          <h2 id="keys-title">Keys</h2>
          <KeyList />
        </section>
      </div>
      <section aria-labelledby="conditions-title">
        <h2 id="conditions-title">Conditions <HandbookLink of="conditions" what="the conditions" /></h2>
        <TableConditions />
      </section>
      <!-- Last, for it comes last. -->
      <section class="whole" aria-label="What the skill means"><SkillMeaning :player="club.player" /></section>
    </div>
  </main>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(min(420px, 100%), 1fr));
  gap: 0 calc(2 * var(--space-6));
  align-items: start;
}
section.whole {
  grid-column: 1 / -1;
}
section {
  margin-bottom: var(--space-6);
}
h2 {
  margin-bottom: var(--space-3);
}
</style>
