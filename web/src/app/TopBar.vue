<script setup lang="ts">
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'
import { useRoute, useRouter } from 'vue-router'
import { useRecords } from '../features/frames/records'
import { useOutbox } from '../lib/outbox'
import { useAttempt } from '../lib/useAttempt'
import { kinds, useClub, type Kind } from '../position/club'
import { followingTable } from '../position/following'
import { isUpdateReady, takeUpdate } from './updates'

/** The places, the player in hand, and the settings: seen everywhere. */
const emit = defineEmits<{ tour: []; keys: [] }>()
const club = useClub()
const router = useRouter()
const { attempt } = useAttempt()
const records = useRecords()
const route = useRoute()
const outbox = useOutbox()

const places = computed(() => [
  { name: 'table', label: 'Table', to: '/table' },
  { name: 'practice', label: 'Practice', to: '/practice' },
  { name: 'progress', label: 'Progress', to: '/progress' },
  // The frame that was open last goes on: a phone at the table side falls asleep.
  { name: 'frames', label: 'Frames', to: records.last ? `/frames/${records.last}` : '/frames' },
  { name: 'library', label: 'Library', to: '/library' },
])
const isHere = (name: string) =>
  route.name === name ||
  (name === 'frames' && route.name === 'frame') ||
  (name === 'practice' && ['routine', 'session'].includes(String(route.name)))
const initials = computed(() =>
  (club.player?.name ?? '')
    .split(/\s+/)
    .map((w) => w[0] ?? '')
    .join('')
    .slice(0, 3),
)
const inHand = computed(() => `${club.player?.name} · ${club.table?.name} · ${club.cue?.name}`)
const inHandTitle = computed(() => `In hand: ${inHand.value}`)
/** All there are is read when somebody looks. */
const look = (isOpen: boolean) => {
  if (isOpen) void attempt(club.loadAll, 'Could not load players, tables and cues')
}
function choose(what: { kind: Kind; id: string } | { go: string }) {
  if ('go' in what) return router.push(what.go)
  return attempt(async () => void (await take(what.kind, what.id)), 'Could not change it')
}
const take = (kind: Kind, id: string) => (kind === 'players' ? club.take(kind, id) : followingTable(() => club.take(kind, id)))
const help = (what: string) => (what === 'handbook' ? void router.push('/handbook') : what === 'tour' ? emit('tour') : emit('keys'))
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
    <div v-if="isUpdateReady || outbox.refused.length || outbox.trouble" class="state">
      <ElButton
        v-if="isUpdateReady"
        type="primary"
        size="small"
        title="A newer version is ready. Your unsaved work stays."
        data-testid="update"
        @click="takeUpdate"
        >Update</ElButton
      >
      <RouterLink v-if="outbox.refused.length" class="not-taken" to="/practice" role="alert" data-testid="refused"
        >{{ outbox.refused.length }} not accepted – show</RouterLink
      >
      <span v-else-if="outbox.trouble && outbox.toSend.length" class="not-sent" role="status" data-testid="not-sent"
        >{{ outbox.toSend.length }} not sent</span
      >
    </div>
    <ElDropdown class="in-hand" trigger="click" max-height="70vh" @command="choose" @visible-change="look">
      <ElButton data-testid="in-hand" :title="inHandTitle" :aria-label="`${initials}, in hand: ${inHand}`">
        <span class="who">{{ club.player?.name }}</span><span class="initials" aria-hidden="true">{{ initials }}</span
        ><span class="wide what">&nbsp;· {{ club.table?.name }} · {{ club.cue?.name }}</span>
      </ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <template v-for="kind in kinds" :key="kind">
            <ElDropdownItem
              v-for="(t, i) in club.known[kind]"
              :key="t.id"
              :divided="i === 0 && kind !== 'players'"
              :command="{ kind, id: t.id }"
              :data-testid="`take-${kind}`"
            >
              <span class="tick">{{ t.id === club.ids[kind] ? '✓' : '' }}</span>{{ t.name }}
            </ElDropdownItem>
          </template>
          <ElDropdownItem divided :command="{ go: '/players' }">Players, tables and cues …</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <ElDropdown class="wide" trigger="click" @command="help">
      <ElButton data-testid="help">Help</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="handbook"><span data-testid="to-handbook">Handbook</span></ElDropdownItem>
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
  gap: var(--space-2) var(--space-4);
  align-items: center;
  padding: 0 var(--space-4);
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
  gap: var(--space-1);
  min-width: 0;
}
nav a,
.settings {
  display: inline-flex;
  align-items: center;
  min-height: 44px;
  padding: 0 var(--space-4);
  color: var(--text);
  text-decoration: none;
}
a[aria-current] {
  box-shadow: inset 0 -3px 0 var(--accent);
  font-weight: 650;
}
.state {
  display: flex;
  gap: var(--space-3);
  align-items: center;
}
.not-taken {
  color: var(--danger);
  font-weight: 600;
  white-space: nowrap;
}
.not-sent {
  color: var(--accent);
  font-size: var(--type-2);
  white-space: nowrap;
}
.in-hand {
  min-width: 0;
  max-width: 330px;
}
.in-hand :deep(.el-button > span) {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
}
.in-hand .el-button {
  max-width: 100%;
}
.what {
  overflow: hidden;
  text-overflow: ellipsis;
}
.initials {
  display: none;
}
.tick {
  display: inline-block;
  width: 1.2em;
}
@media (max-width: 1100px) {
  .what {
    display: none;
  }
}
@media (max-width: 860px) {
  .top {
    padding: 0 var(--space-2);
    gap: 0;
  }
  nav {
    justify-content: space-around;
    gap: 0;
  }
  nav a,
  .settings {
    padding: 0 var(--space-2);
    font-size: var(--type-2);
  }
  .wordmark {
    display: none;
  }
  /* Beneath the places: beside them there is no room. */
  .top {
    flex-wrap: wrap;
  }
  .state {
    order: 1;
    flex-basis: 100%;
    justify-content: center;
    padding: var(--space-1) 0 var(--space-2);
  }
}
@media (max-width: 620px) {
  .wide,
  .who {
    display: none;
  }
  .initials {
    display: inline;
  }
  .in-hand .el-button {
    padding: 0 var(--space-3);
  }
}
</style>
