<script setup lang="ts">
import { ElButton, ElInput } from 'element-plus'
import { ref } from 'vue'
import { useRouter } from 'vue-router'
import FilePick from '../../ui/FilePick.vue'
import LineButton from '../../ui/LineButton.vue'
import MoreButton from '../../ui/MoreButton.vue'
import { momentWords } from '../../lib/formats'
import { useRecords } from './records'

/** The frames that are written down, and a new one. */
const records = useRecords()
const router = useRouter()
const title = ref('')
const first = ref('')
const second = ref('')
function begin() {
  void records.start(title.value.trim() || 'Frame', first.value, second.value)
  title.value = ''
}
const pick = async (file: File) => records.bringIn(await file.text())
</script>

<template>
  <div class="frames-list">
    <form @submit.prevent="begin">
      <ElInput
        v-model="title"
        maxlength="120"
        placeholder="Frame, such as “League, frame 3”"
        aria-label="Title of the frame"
        data-testid="frame-title"
      />
      <div class="two">
        <ElInput v-model="first" maxlength="60" placeholder="First player" aria-label="First player" data-testid="frame-first" />
        <ElInput v-model="second" maxlength="60" placeholder="Second player" aria-label="Second player" data-testid="frame-second" />
      </div>
      <div class="row">
        <ElButton type="primary" native-type="submit" :disabled="records.busy" data-testid="begin-frame">Start a frame</ElButton>
        <FilePick accept=".json,application/json" test-id="import-frame" @picked="pick">Import a file</FilePick>
      </div>
    </form>
    <ElInput
      v-if="records.search || (records.items?.length ?? 0) > 5"
      v-model="records.search"
      type="search"
      class="search"
      placeholder="Search titles and players"
      aria-label="Search the frames"
      clearable
      data-testid="frame-search"
    />
    <ul v-if="records.items?.length" class="list" data-testid="frame-list">
      <li v-for="f in records.items" :key="f.id">
        <LineButton @click="router.push({ name: 'frame', params: { id: f.id } })">
          <strong>{{ f.title }}</strong><br />
          {{ f.first }} {{ f.firstScore }}–{{ f.secondScore }} {{ f.second }}<br />
          <span class="soft"
            >{{ f.isOver ? 'over' : 'under way' }}, highest break {{ f.highestBreak }}, {{ momentWords(f.updatedAt) }}</span
          >
        </LineButton>
        <ElButton :aria-label="`Delete ${f.title}`" @click="records.remove(f)">Delete</ElButton>
      </li>
    </ul>
    <p v-else-if="records.items && records.search" class="soft">No matches.</p>
    <p v-else-if="records.items" class="soft">
      No frames yet. Start one: tap once for each shot, and breaks, kinds of stroke and reasons for misses are counted for you.
    </p>
    <MoreButton :shown="records.items?.length ?? 0" :total="records.total" @more="records.more" />
  </div>
</template>

<style scoped>
.frames-list {
  max-width: 640px;
}
form {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  margin-bottom: var(--space-4);
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: var(--space-3);
}
.search {
  margin-bottom: var(--space-3);
}
.list {
  list-style: none;
  margin: 0;
  padding: 0;
}
.list li {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: var(--space-3);
  border-top: 1px solid var(--edge);
  padding: var(--space-3) var(--space-2);
}
</style>
