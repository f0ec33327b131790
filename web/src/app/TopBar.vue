<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'
import { useRoute } from 'vue-router'
import { usePlayer } from '../position/player'
import { useRecords } from '../features/frames/records'
import { useDraft } from '../position/draft'

/** The places, the player in hand, and the settings: seen everywhere. */
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
</script>

<template>
  <header class="top">
    <RouterLink class="wordmark" to="/table">Deep Baize</RouterLink>
    <nav aria-label="Places">
      <RouterLink v-for="p in places" :key="p.name" :to="p.to" :aria-current="isHere(p.name) ? 'page' : undefined" :data-testid="p.name === 'library' ? 'positions' : p.name">{{ p.label }}</RouterLink>
    </nav>
    <ElDropdown trigger="click" @command="(skill: string) => players.set({ skill })">
      <button class="key player" data-testid="player">
        <span class="long">Plays as </span>{{ players.player.skill }}<span class="long">, {{ players.player.hand }}-handed</span>
      </button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem v-for="s in position.reference?.skills" :key="s.name" :command="s.name">{{ s.name }}</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <RouterLink class="settings" to="/settings" :aria-current="route.name === 'settings' ? 'page' : undefined" data-testid="settings">Settings</RouterLink>
  </header>
</template>

<style scoped>
.top {
  display: flex;
  gap: 6px 14px;
  align-items: center;
  padding: 0 14px;
  min-height: 44px;
  border-bottom: 1px solid var(--edge);
  background: var(--panel);
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
    flex-wrap: wrap;
    padding: 0 8px;
  }
  nav {
    order: 1;
    flex-basis: 100%;
    justify-content: space-between;
  }
  nav a,
  .settings {
    padding: 0 6px;
  }
  .wordmark {
    flex: 1;
  }
  .long {
    display: none;
  }
}
</style>
