<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { computed } from 'vue'
import { momentWords } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import { useKeeping } from '../../position/keeping'
import PlanPicture from '../../table/PlanPicture.vue'
import FilePick from '../../ui/FilePick.vue'
import LoadingCards from '../../ui/LoadingCards.vue'
import LineButton from '../../ui/LineButton.vue'
import MoreButton from '../../ui/MoreButton.vue'
import OneOf from '../../ui/OneOf.vue'
import { shelves, useLibrary } from './library'

/** What is kept: to be found again, opened, renamed, thrown away and brought back. */
const keeping = useKeeping()
const position = useDraft()
const library = useLibrary()
void library.load()
const isBin = computed(() => library.shelf === 'bin')
const isKept = computed(() => library.shelf === 'shots' || library.shelf === 'plans')
/** With how many each has, while something is searched for. */
const labelled = computed(() => shelves.map((s) => ({ ...s, label: library.counts ? `${s.label} (${library.counts[s.value]})` : s.label })))
const empty = computed(() =>
  library.search
    ? 'No matches.'
    : {
        positions: 'No positions yet. Set one up on the table and save it.',
        shots: 'No kept shots yet. Set one up at the table and keep it in the step Shot, under Kept.',
        plans: 'No kept plans yet. Plan a break at the table and keep the plan.',
        bin: 'The bin is empty. Deleted positions wait here until you restore them.',
      }[library.shelf],
)
/** Where a kept shot or plan is opened again. */
const placeOf = (positionId: string) =>
  library.shelf === 'shots'
    ? { name: 'table', params: { position: positionId, step: 'shot' }, query: { view: 'kept' } }
    : { name: 'table', params: { position: positionId, step: 'break' } }
</script>

<template>
  <main class="place wide-place" data-testid="library-place">
    <h1>Library</h1>
    <div class="row tools">
      <ElInput
        v-model="library.search"
        type="search"
        class="search"
        placeholder="Search names and notes"
        aria-label="Search the library"
        clearable
        data-testid="search"
      />
      <OneOf v-model="library.shelf" :options="labelled" label="Kind" />
    </div>
    <div class="row tools">
      <ElButton @click="keeping.startNew()">New, from the opening</ElButton>
      <FilePick accept=".json,application/json" test-id="import-file" @picked="keeping.importFile($event, library.load)"
        >Import a file</FilePick
      >
    </div>
    <p v-if="library.trouble" class="field-error" role="alert">
      {{ library.trouble }} <ElButton size="small" @click="library.load()">Try again</ElButton>
    </p>
    <ul v-else-if="isKept && library.kept?.length" class="list" data-testid="library-kept">
      <li v-for="k in library.kept" :key="k.id">
        <RouterLink class="kept" :to="placeOf(k.positionId)">
          <strong>{{ k.name }}</strong>
          <span v-if="k.note">{{ k.note }}</span>
          <span class="soft when">with “{{ k.positionName }}”, kept {{ momentWords(k.createdAt) }}</span>
        </RouterLink>
      </li>
    </ul>
    <ul v-else-if="!isKept && library.positions?.length" class="gallery" data-testid="library">
      <li v-for="p in library.positions" :key="p.id" :class="{ current: position.origin?.id === p.id }">
        <LineButton class="open" :disabled="isBin" @click="keeping.openById(p.id)">
          <span class="item">
            <PlanPicture :balls="p.balls" :reference="position.reference!" :white="p.picture.white" :pot="p.picture.pot" />
            <span class="text">
              <strong>{{ p.name }}</strong>
              <span class="about soft">{{ p.about }}</span>
              <span class="soft when">{{ isBin ? 'deleted' : 'saved' }} {{ momentWords(p.deletedAt ?? p.updatedAt) }}</span>
            </span>
          </span>
        </LineButton>
        <div class="deeds">
          <ElButton v-if="isBin" size="small" @click="keeping.restore(p.id, library.load)">Restore</ElButton>
          <template v-else>
            <ElButton size="small" :aria-label="`Rename ${p.name}`" @click="keeping.rename(p, library.load)">Rename</ElButton>
            <ElButton size="small" :aria-label="`Delete ${p.name}`" @click="keeping.remove(p, library.load)">Delete</ElButton>
          </template>
        </div>
      </li>
    </ul>
    <p v-else-if="isKept ? library.kept : library.positions" class="soft">{{ empty }}</p>
    <p v-else-if="isKept" class="soft" role="status">Loading …</p>
    <LoadingCards v-else :count="8" />
    <MoreButton :shown="(isKept ? library.kept : library.positions)?.length ?? 0" :total="library.total" @more="library.more" />
  </main>
</template>

<style scoped>
.tools {
  margin-bottom: var(--space-3);
}
.search {
  flex: 1;
  min-width: min(260px, 100%);
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(360px, 100%), 1fr));
  gap: 0 var(--space-6);
}
.list li {
  border-top: 1px solid var(--edge);
  padding: var(--space-3) 0;
}
.list li.current {
  box-shadow: inset 3px 0 0 var(--accent);
  padding-left: var(--space-3);
}
.gallery li.current {
  border-color: var(--accent);
}
.gallery .open.el-button {
  width: 100%;
  margin: 0;
  padding: 0;
  border-radius: 9px 9px 0 0;
  flex: 1;
  align-items: flex-start;
}
.gallery .open :deep(> span),
.item {
  width: 100%;
}
.item .text {
  padding: var(--space-3) var(--space-4) var(--space-2);
}
.item .about {
  display: -webkit-box;
  -webkit-line-clamp: 2;
  -webkit-box-orient: vertical;
  overflow: hidden;
}
.text,
.place .kept {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.place .kept {
  color: var(--text);
  text-decoration: none;
  margin: 0;
}
.place .kept:hover strong {
  color: var(--accent);
}
.about {
  font-size: var(--type-3);
}
.when {
  font-size: var(--type-2);
}
.deeds {
  display: flex;
  justify-content: flex-end;
  padding: 0 var(--space-3) var(--space-3);
  opacity: 0.55;
}
li:hover .deeds,
li:focus-within .deeds {
  opacity: 1;
}
@media (hover: none) {
  .deeds {
    opacity: 1;
  }
}
</style>
