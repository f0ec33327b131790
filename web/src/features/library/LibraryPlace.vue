<script setup lang="ts">
import { ref } from 'vue'
import { useDraft } from '../../position/draft'
import { useKeeping } from '../../position/keeping'
import { useLibrary } from './library'
import MiniPlan from '../../table/MiniPlan.vue'

const keeping = useKeeping()
const position = useDraft()
const library = useLibrary()
const file = ref<HTMLInputElement>()
void library.load()

const when = new Intl.DateTimeFormat('en-GB', { dateStyle: 'medium', timeStyle: 'short' })

function pick(e: Event) {
  const input = e.target as HTMLInputElement
  if (input.files?.[0]) void keeping.importFile(input.files[0], library.load)
  input.value = ''
}
</script>

<template>
  <main class="place" data-testid="library-place">
    <h1>Library</h1>
    <div class="tools">
      <input v-model="library.search" type="search" class="search" placeholder="Search names and notes" aria-label="Search positions" data-testid="search" />
      <button class="key" :aria-pressed="library.bin" @click="library.bin = !library.bin">Bin</button>
    </div>
    <div class="tools">
      <button class="key" @click="keeping.startNew()">New, from the opening</button>
      <button class="key" @click="file?.click()">Import a file</button>
      <input ref="file" type="file" accept=".json,application/json" hidden data-testid="import-file" @change="pick" />
    </div>
    <p v-if="library.trouble" class="field-error" role="alert">{{ library.trouble }} <button class="key" @click="library.load()">Try again</button></p>
    <ul v-else-if="library.positions?.length" class="list" data-testid="library">
      <li v-for="p in library.positions" :key="p.id" :class="{ current: position.origin?.id === p.id }">
        <button class="open" :disabled="library.bin" @click="keeping.open(p)">
          <MiniPlan :balls="p.content.balls" :reference="position.reference!" />
          <span class="text">
            <strong>{{ p.name }}</strong>
            <span class="about">{{ p.about }}</span>
            <span class="soft when">{{ library.bin ? 'deleted' : 'saved' }} {{ when.format(new Date(p.deletedAt ?? p.updatedAt)) }}</span>
          </span>
        </button>
        <div class="deeds">
          <button v-if="library.bin" class="key" @click="keeping.restore(p.id, library.load)">Restore</button>
          <template v-else>
            <button class="key" :aria-label="`Rename ${p.name}`" @click="keeping.rename(p, library.load)">Rename</button>
            <button class="key" :aria-label="`Delete ${p.name}`" @click="keeping.remove(p, library.load)">Delete</button>
          </template>
        </div>
      </li>
    </ul>
    <p v-else-if="library.positions" class="soft">{{ library.search ? 'No position has all of these words.' : library.bin ? 'The bin is empty. Deleted positions wait here until you restore them.' : 'No positions yet. Set one up on the table and save it.' }}</p>
  </main>
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
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(360px, 100%), 1fr));
  gap: 0 28px;
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
