<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { useRecords } from '../features/frames/records'
import { useDraft } from '../position/draft'
import { skillName } from '../domain/words'
import { usePlayer } from '../position/player'

/** The places, the player in hand, and the settings: seen everywhere. */
const emit = defineEmits<{ tour: []; keys: [] }>()
const players = usePlayer()
const records = useRecords()
const position = useDraft()
const route = useRoute()

const places = computed(() => [
  { name: 'table', label: 'Table', to: '/table' },
  { name: 'practice', label: 'Practice', to: '/practice' },
  { name: 'progress', label: 'Progress', to: '/progress' },
  // The frame that was open last goes on: a phone at the table side falls asleep.
  { name: 'frames', label: 'Frames', to: records.last ? `/frames/${records.last}` : '/frames' },
  { name: 'library', label: 'Library', to: '/library' },
])
const isHere = (name: string) => route.name === name || (name === 'frames' && route.name === 'frame')
const help = (what: string) => (what === 'tour' ? emit('tour') : emit('keys'))
</script>

<template>
  <header class="top">
    <RouterLink class="wordmark" to="/table">Deep Baize</RouterLink>
    <nav aria-label="Places">
      <RouterLink
        v-for="p in places"
        :key="p.name"
        :to="p.to"
        :aria-current="isHere(p.name) ? 'page' : undefined"
        :data-testid="p.name === 'library' ? 'positions' : p.name"
        >{{ p.label }}</RouterLink
      >
    </nav>
    <ElDropdown class="wide" trigger="click" @command="(skill: string) => players.set({ skill })">
      <ElButton data-testid="player">Plays as {{ skillName(players.player.skill) }}, {{ players.player.hand }}-handed</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem v-for="s in position.reference?.skills" :key="s.name" :command="s.name">{{ s.name }}</ElDropdownItem>
          <ElDropdownItem v-if="players.player.own" command="own">{{ skillName('own') }}</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <ElDropdown class="wide" trigger="click" @command="help">
      <ElButton data-testid="help">Help</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="tour">Show me round</ElDropdownItem>
          <ElDropdownItem command="keys">Keys</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <RouterLink class="settings" to="/settings" :aria-current="route.name === 'settings' ? 'page' : undefined" data-testid="settings"
      >Settings</RouterLink
    >
  </header>
</template>

<style scoped>
.top {
  display: flex;
  gap: 6px 12px;
  align-items: center;
  padding: 0 14px;
  min-height: 44px;
  border-bottom: 1px solid var(--edge);
  background: var(--panel);
  flex: none;
}
.wordmark {
  font-weight: 700;
  color: var(--accent);
  text-decoration: none;
  white-space: nowrap;
}
nav {
  display: flex;
  flex: 1;
  gap: 2px;
  min-width: 0;
}
nav a,
.settings {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 11px;
  color: var(--text);
  text-decoration: none;
}
a[aria-current] {
  box-shadow: inset 0 -3px 0 var(--accent);
  font-weight: 650;
}
@media (max-width: 860px) {
  .top {
    padding: 0 4px;
    gap: 0;
  }
  nav {
    justify-content: space-around;
    gap: 0;
  }
  nav a,
  .settings {
    padding: 0 4px;
    font-size: 0.9rem;
  }
  .wordmark {
    display: none;
  }
}
@media (max-width: 620px) {
  .wide {
    display: none;
  }
}
</style>
