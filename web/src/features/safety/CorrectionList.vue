<script setup lang="ts">
import { ElButton } from 'element-plus'
import { shallowRef } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { countWords, sentence } from '../../lib/formats'
import { useAttempt } from '../../lib/useAttempt'
import { alongWords } from './words'
import { offCushionsWords } from '../../domain/words'

/** What trials of escapes have taught of this table, cushions by cushions. */
const kept = shallowRef<Schemas['CorrectionResult'][] | null>(null)
const { attempt } = useAttempt()
const load = () =>
  attempt(async () => {
    kept.value = await ask(client.GET('/api/escape/corrections', { params: { query: { take: 200 } } }))
  }, 'Could not load the corrections')
const forget = ({ route, version }: Schemas['CorrectionResult']) =>
  attempt(async () => {
    await ask(client.DELETE('/api/escape/corrections/{route}', { params: { path: { route }, query: { version } } }))
    await load()
  }, 'Could not delete the correction')
void load()
</script>

<template>
  <div>
    <h2>Corrections</h2>
    <p class="soft">Learned from escapes you tried: how far this table differs from the model along the first cushion.</p>
    <ul v-if="kept?.length">
      <li v-for="c in kept" :key="c.route">
        <span
          >{{ sentence(offCushionsWords(c.route.split('.'))) }}: {{ alongWords({ cushions: c.route.split('.') }, c.along) }}, from
          {{ countWords(c.trials, 'trial') }}</span
        >
        <ElButton size="small" @click="forget(c)">Delete correction</ElButton>
      </li>
    </ul>
    <p v-else-if="kept" class="soft">
      None yet. When snookered, open Safety, try an escape, say by how much it missed, and keep the correction.
    </p>
  </div>
</template>

<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  justify-content: space-between;
  gap: var(--space-3);
  align-items: center;
  padding: var(--space-2) 0;
  border-top: 1px solid var(--edge);
}
</style>
