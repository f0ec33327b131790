<script setup lang="ts">
import { ElButton, ElSwitch } from 'element-plus'
import { ref } from 'vue'
import type { Command } from '../../position/commands'
import { useCommands } from './commands'
import { keyIn, keyWords, useKeys } from './keys'

/** Every command with its key, to be changed or switched off. */
const commands = useCommands(() => {})
const keys = useKeys(commands)
/** The command whose next key press becomes its key. */
const waiting = ref<string | null>(null)
const said = ref('')

function take(command: Command, e: KeyboardEvent) {
  if (waiting.value !== command.id || ['Shift', 'Control', 'Alt', 'Meta', 'Tab'].includes(e.key)) return
  e.preventDefault()
  e.stopPropagation()
  waiting.value = null
  if (e.key === 'Escape') return
  const lost = keys.change(command, keyIn(e))
  said.value = lost ? `“${lost.name}” has no key now.` : ''
}
</script>

<template>
  <div>
    <p class="row">
      <ElSwitch
        v-model="keys.single.value"
        aria-label="Single-character keys are on"
        active-text="Single-character keys are on"
        data-testid="single-keys"
      />
      <ElButton size="small" :disabled="!Object.keys(keys.changed.value).length" @click="keys.reset()">Reset all keys</ElButton>
    </p>
    <p class="soft">Hold Shift to move or turn ten times as far. To change a key, click it and press the new one; Esc cancels.</p>
    <p v-if="said" role="status">{{ said }}</p>
    <div class="commands">
      <div v-for="c in commands" :key="c.id" class="command" :data-testid="`command-${c.id}`">
        <ElButton
          size="small"
          class="keycap"
          :type="waiting === c.id ? 'primary' : undefined"
          :aria-label="`${waiting === c.id ? 'press a key' : keys.keyOf(c) ? keyWords(keys.keyOf(c)!) : 'none'}: ${c.name}`"
          @click="waiting = c.id"
          @keydown="take(c, $event)"
          @blur="waiting = null"
          >{{ waiting === c.id ? 'press a key' : keys.keyOf(c) ? keyWords(keys.keyOf(c)!) : 'none' }}</ElButton
        >
        <span class="name">{{ c.name }}</span>
        <ElSwitch
          size="small"
          :model-value="keys.keyOf(c) !== null"
          :aria-label="`a key for: ${c.name}`"
          @update:model-value="(on: string | number | boolean) => keys.change(c, on ? c.key : null)"
        />
      </div>
    </div>
    <p class="soft">
      Long sessions bent over a table strain the back, the neck and the bridge wrist: take breaks, and stop at pain. Your club's or a
      physiotherapist's advice comes first.
    </p>
  </div>
</template>

<style scoped>
.row {
  display: flex;
  flex-wrap: wrap;
  gap: var(--space-3) var(--space-5);
  align-items: center;
  justify-content: space-between;
}
.command {
  display: grid;
  grid-template-columns: 7.5em 1fr auto;
  gap: var(--space-3);
  align-items: center;
  padding: var(--space-1) 0;
  border-bottom: 1px solid var(--edge);
}
.keycap {
  justify-self: start;
}
</style>
