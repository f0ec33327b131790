<script setup lang="ts">
import { useDraft } from '../position/draft'
import { steps, useView, type Step } from '../position/view'
import { unsavedAddress } from './router'
import { stepNames } from './tableAddress'

/** The steps of the work at the table, each with its address. */
const view = useView()
const position = useDraft()
const asks: Record<Step, string> = {
  read: 'What is on?',
  shot: 'How do I play this one, and what if?',
  break: 'What next, and after that?',
  safety: 'Or leave it?',
}
const testIds: Record<Step, string> = { read: 'what-is-on', shot: 'what-happens', break: 'plan-break', safety: 'decide' }
const to = (step: Step) => ({ name: 'table', params: { position: position.origin?.id ?? unsavedAddress, step } })
</script>

<template>
  <nav class="steps" aria-label="Steps">
    <RouterLink
      v-for="s in steps"
      :key="s"
      :to="to(s)"
      :title="asks[s]"
      :aria-current="view.step === s ? 'step' : undefined"
      :data-testid="testIds[s]"
      >{{ stepNames[s] }}</RouterLink
    >
  </nav>
</template>

<style scoped>
.steps {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  border-bottom: 1px solid var(--edge);
  position: sticky;
  top: 0;
  background: var(--panel);
  z-index: 5;
  flex: none;
}
a {
  display: grid;
  place-content: center;
  min-height: 40px;
  color: var(--text-soft);
  text-decoration: none;
}
a:focus-visible {
  outline-offset: -2px;
}
a:hover {
  color: var(--text);
}
[aria-current] {
  color: var(--text);
  font-weight: 650;
  box-shadow: inset 0 -3px 0 var(--accent);
}
@media (pointer: coarse) {
  a {
    min-height: 44px;
  }
}
</style>
