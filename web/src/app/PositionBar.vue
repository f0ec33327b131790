<script setup lang="ts">
import { ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { ref } from 'vue'
import ConditionsDrawer from '../features/settings/ConditionsDrawer.vue'
import { useKeeping } from '../position/keeping'
import { useDraft } from '../position/draft'

const position = useDraft()
const keeping = useKeeping()
const conditions = ref(false)
/** The line about it while it is written; null while it is not. */
const about = ref<string | null>(null)

/** Leaving it keeps what was written; Esc has let go of it before. */
function endAbout() {
  if (about.value !== null && about.value !== position.draft.about) {
    position.draft.about = about.value
    position.commit()
  }
  about.value = null
}

const deeds: Record<string, () => unknown> = {
  saveAs: () => keeping.saveAs(),
  rename: () => position.origin && keeping.rename({ id: position.origin.id, name: position.draft.name, version: position.origin.version }, () => {}),
  remove: () => position.origin && keeping.remove({ id: position.origin.id, name: position.draft.name }, () => {}),
  json: () => keeping.exportJson(),
  svg: () => keeping.exportSvg(),
}
</script>

<template>
  <div class="position-bar" role="group" aria-label="The position">
    <div class="title">
      <strong data-testid="position-name">{{ position.draft.name }}</strong>
      <span v-if="position.isDirty" class="unsaved" data-testid="unsaved">not saved</span>
      <button class="about soft" :title="position.draft.about || 'Write a line about it'" data-testid="about" @click="about = position.draft.about">{{ position.draft.about || 'Write a line about it' }}</button>
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
    <button class="key" :disabled="!position.canUndo" aria-label="Undo" data-testid="undo" @click="position.undo()">Undo</button>
    <button class="key" :disabled="!position.canRedo" aria-label="Redo" data-testid="redo" @click="position.redo()">Redo</button>
    <button class="key chosen" :disabled="keeping.busy || !position.isDirty" data-testid="save" @click="keeping.save()">Save</button>
    <ElDropdown trigger="click" @command="(c: string) => deeds[c]?.()">
      <button class="key" aria-label="More with this position" data-testid="more">More</button>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="saveAs">Save as …</ElDropdownItem>
          <ElDropdownItem command="rename" :disabled="!position.origin">Rename …</ElDropdownItem>
          <ElDropdownItem command="remove" :disabled="!position.origin">Delete</ElDropdownItem>
          <ElDropdownItem command="json" divided>Export as JSON</ElDropdownItem>
          <ElDropdownItem command="svg">Export as SVG</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <button class="key" data-testid="conditions" title="Cloth, balls, cushions, pockets and cue; the plan follows at once" @click="conditions = !conditions">Conditions</button>
    <ConditionsDrawer v-model="conditions" />
  </div>
</template>

<style scoped>
.position-bar {
  display: flex;
  gap: 8px;
  align-items: center;
  padding: 5px 14px;
  border-bottom: 1px solid var(--edge);
  min-width: 0;
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
  .position-bar {
    flex-wrap: wrap;
  }
  .title {
    order: 1;
    flex-basis: 100%;
  }
}
</style>
