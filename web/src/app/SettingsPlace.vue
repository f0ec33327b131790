<script setup lang="ts">
import { useDark } from '@vueuse/core'
import { ElRadioButton, ElRadioGroup } from 'element-plus'
import { computed } from 'vue'
import ConditionsFields from '../features/settings/ConditionsFields.vue'
import KeyList from './keys/KeyList.vue'
import PlayerFields from '../features/players/PlayerFields.vue'

/** What is set once: who plays, on what table, with which keys, in which dress. */
const dark = useDark({ initialValue: 'dark' })
const theme = computed({ get: () => (dark.value ? 'dark' : 'light'), set: (value) => (dark.value = value === 'dark') })
</script>

<template>
  <main class="place settings" data-testid="settings-place">
    <h1>Settings</h1>
    <section aria-label="Player"><PlayerFields /></section>
    <section aria-labelledby="theme-title">
      <h2 id="theme-title">Dress</h2>
      <ElRadioGroup v-model="theme" aria-label="Dress">
        <ElRadioButton value="dark" data-testid="theme-dark">Dark</ElRadioButton>
        <ElRadioButton value="light" data-testid="theme-light">Light</ElRadioButton>
      </ElRadioGroup>
    </section>
    <section><ConditionsFields /></section>
    <section aria-labelledby="keys-title">
      <h2 id="keys-title">Keys</h2>
      <KeyList />
    </section>
  </main>
</template>

<style scoped>
section {
  margin-bottom: 22px;
  max-width: 720px;
}
</style>
