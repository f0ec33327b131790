<script setup lang="ts">
import { useDebounceFn } from '@vueuse/core'
import { ElDrawer } from 'element-plus'
import { ref, watch } from 'vue'
import { ask, client, Problem, type SavedPosition } from '../api/client'
import { useLatest } from '../workspace/useLatest'
import { useWorkspace } from '../workspace/workspace'
import { useKeeping } from './keeping'
import MiniPlan from './MiniPlan.vue'

const keeping = useKeeping()
const workspace = useWorkspace()
const search = ref('')
const bin = ref(false)
const positions = ref<SavedPosition[] | null>(null)
const trouble = ref('')
const file = ref<HTMLInputElement>()

/** In the order they were asked: the answer to an older word never replaces that to a newer. */
const load = useLatest(async () => {
  try {
    positions.value = await ask(client.GET('/api/positions', { params: { query: { search: search.value, deleted: bin.value } } }))
    trouble.value = ''
  } catch (e) {
    if (!(e instanceof Problem)) throw e
    trouble.value = `${e.message} ${e.detail}`
  }
})
const loadSoon = useDebounceFn(load, 150)
watch(search, loadSoon)
watch([() => keeping.libraryOpen, bin], () => keeping.libraryOpen && load())

const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

function pick(e: Event) {
  const input = e.target as HTMLInputElement
  if (input.files?.[0]) void keeping.importFile(input.files[0], load)
  input.value = ''
}
</script>

<template>
  <ElDrawer v-model="keeping.libraryOpen" direction="ltr" size="min(460px, 94vw)" title="Positions" :append-to-body="true">
    <div class="tools">
      <input v-model="search" type="search" class="search" placeholder="Search names and notes" aria-label="Search positions" data-testid="search" />
      <button class="key" :aria-pressed="bin" @click="bin = !bin">Bin</button>
    </div>
    <div class="tools">
      <button class="key" @click="keeping.startNew()">New, from the opening</button>
      <button class="key" @click="file?.click()">Import a file</button>
      <input ref="file" type="file" accept=".json,application/json" hidden data-testid="import-file" @change="pick" />
    </div>
    <p v-if="trouble" class="field-error" role="alert">{{ trouble }} <button class="key" @click="load()">Try again</button></p>
    <ul v-else-if="positions?.length" class="list" data-testid="library">
      <li v-for="p in positions" :key="p.id" :class="{ current: workspace.origin?.id === p.id }">
        <button class="open" :disabled="bin" @click="keeping.open(p)">
          <MiniPlan :balls="p.content.balls" />
          <span class="text">
            <strong>{{ p.name }}</strong>
            <span class="about">{{ p.about }}</span>
            <span class="soft when">{{ bin ? 'deleted' : 'saved' }} {{ when.format(new Date(p.deletedAt ?? p.updatedAt)) }}</span>
          </span>
        </button>
        <div class="deeds">
          <button v-if="bin" class="key" @click="keeping.restore(p.id, load)">Restore</button>
          <template v-else>
            <button class="key" :aria-label="`Rename ${p.name}`" @click="keeping.rename(p, load)">Rename</button>
            <button class="key" :aria-label="`Delete ${p.name}`" @click="keeping.remove(p, load)">Delete</button>
          </template>
        </div>
      </li>
    </ul>
    <p v-else-if="positions" class="soft">{{ search ? 'No position has all of these words.' : bin ? 'The bin is empty. Deleted positions wait here until you restore them.' : 'No positions yet. Set one up on the table and save it.' }}</p>
  </ElDrawer>
</template>

<style scoped>
.tools {
  display: flex;
  gap: 8px;
  margin-bottom: 8px;
}
.search {
  flex: 1;
  min-height: 36px;
  padding: 0 10px;
  border: 1px solid var(--edge);
  border-radius: 7px;
  background: var(--page);
  color: var(--text);
  font: inherit;
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  border-top: 1px solid var(--edge);
  padding: 8px 0;
}
.list li.current {
  box-shadow: inset 3px 0 0 var(--accent);
  padding-left: 8px;
}
.open {
  all: unset;
  display: flex;
  gap: 12px;
  width: 100%;
  cursor: pointer;
}
.open:disabled {
  cursor: default;
}
.open:focus-visible {
  outline: 2px solid var(--accent);
}
.text {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.about {
  font-size: 0.9rem;
}
.when {
  font-size: 0.82rem;
}
.deeds {
  display: flex;
  gap: 6px;
  justify-content: flex-end;
  margin-top: -14px;
}
</style>
