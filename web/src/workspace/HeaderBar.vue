<script setup lang="ts">
import { useDark } from '@vueuse/core'
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { ref } from 'vue'
import { useRecords } from '../frames/records'
import { useKeeping } from '../positions/keeping'
import { useWorkspace } from './workspace'

const emit = defineEmits<{ conditions: []; keys: [] }>()
const workspace = useWorkspace()
const keeping = useKeeping()
const records = useRecords()
const isDark = useDark({ initialValue: 'dark' })
/** The line about it while it is written; null while it is not. */
const about = ref<string | null>(null)

/** Leaving it keeps what was written; Esc has let go of it before. */
function endAbout() {
  if (about.value !== null && about.value !== workspace.draft.about) {
    workspace.draft.about = about.value
    workspace.commit()
  }
  about.value = null
}

const deeds: Record<string, () => unknown> = {
  saveAs: () => keeping.saveAs(),
  rename: () => workspace.origin && keeping.rename({ id: workspace.origin.id, name: workspace.draft.name, version: workspace.origin.version }, () => {}),
  remove: () => workspace.origin && keeping.remove({ id: workspace.origin.id, name: workspace.draft.name }, () => {}),
  json: () => keeping.exportJson(),
  svg: () => keeping.exportSvg(),
}
</script>

<template>
  <header>
    <span class="wordmark">Deep Baize</span>
    <button class="key" data-testid="positions" @click="keeping.libraryOpen = true">Positions</button>
    <button class="key" title="Frames written down shot by shot" data-testid="frames" @click="records.show()">Frames</button>
    <div class="title">
      <strong data-testid="position-name">{{ workspace.draft.name }}</strong>
      <span v-if="workspace.isDirty" class="unsaved" data-testid="unsaved">not saved</span>
      <button class="about soft" :title="workspace.draft.about || 'Write a line about it'" data-testid="about" @click="about = workspace.draft.about">{{ workspace.draft.about || 'Write a line about it' }}</button>
      <textarea
        v-if="about !== null"
        v-model="about"
        class="about-edit"
        rows="3"
        maxlength="2000"
        aria-label="What the position is about"
        data-testid="about-edit"
        @keydown.esc.stop="about = null"
        @vue:mounted="({ el }: any) => el.focus()"
        @blur="endAbout"
      />
    </div>
    <button class="key" :disabled="!workspace.canUndo" aria-label="Undo" data-testid="undo" @click="workspace.undo()">Undo</button>
    <button class="key" :disabled="!workspace.canRedo" aria-label="Redo" data-testid="redo" @click="workspace.redo()">Redo</button>
    <button class="key chosen" :disabled="keeping.busy || !workspace.isDirty" data-testid="save" @click="keeping.save()">Save</button>
    <ElDropdown trigger="click" @command="(c: string) => deeds[c]?.()">
      <button class="key" aria-label="More with this position" data-testid="more">More</button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="saveAs">Save as …</ElDropdownItem>
          <ElDropdownItem command="rename" :disabled="!workspace.origin">Rename …</ElDropdownItem>
          <ElDropdownItem command="remove" :disabled="!workspace.origin">Delete</ElDropdownItem>
          <ElDropdownItem command="json" divided>Export as JSON</ElDropdownItem>
          <ElDropdownItem command="svg">Export as SVG</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <button class="key" data-testid="conditions" title="Player and conditions" @click="emit('conditions')">Setup</button>
    <button class="key" @click="isDark = !isDark">{{ isDark ? 'Light' : 'Dark' }}</button>
    <button class="key" aria-label="Keys" @click="emit('keys')">?</button>
  </header>
</template>

<style scoped>
header {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 7px 14px;
  border-bottom: 1px solid var(--edge);
  background: var(--panel);
  min-width: 0;
}
.wordmark {
  font-weight: 700;
  letter-spacing: 0.01em;
  color: var(--accent);
  white-space: nowrap;
  margin-right: 4px;
}
.title {
  flex: 1;
  min-width: 0;
  display: flex;
  gap: 10px;
  align-items: baseline;
  position: relative;
  white-space: nowrap;
}
.unsaved {
  color: var(--accent);
  font-size: 0.85rem;
}
.about {
  all: unset;
  color: var(--text-soft);
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
  cursor: text;
  font-size: 0.93rem;
}
.about:focus-visible {
  outline: 2px solid var(--accent);
}
.about-edit {
  position: absolute;
  top: 26px;
  left: 0;
  right: 0;
  z-index: 20;
  font: inherit;
  padding: 8px;
  color: var(--text);
  background: var(--panel-2);
  border: 1px solid var(--accent);
  border-radius: 8px;
}
@media (max-width: 860px) {
  header {
    flex-wrap: wrap;
  }
  .title {
    order: 1;
    flex-basis: 100%;
  }
}
</style>
