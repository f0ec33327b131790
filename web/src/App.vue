<script setup lang="ts">
import { ElConfigProvider, ElDialog } from 'element-plus'
import { onMounted, ref } from 'vue'
import { Problem } from './api/client'
import ConditionsDrawer from './conditions/ConditionsDrawer.vue'
import FramesDrawer from './frames/FramesDrawer.vue'
import { useShortcuts } from './help/shortcuts'
import ShortcutsDialog from './help/ShortcutsDialog.vue'
import PicturePanel from './picture/PicturePanel.vue'
import { useKeeping } from './positions/keeping'
import LibraryDrawer from './positions/LibraryDrawer.vue'
import ChoosePanel from './shots/ChoosePanel.vue'
import ReadPanel from './shots/ReadPanel.vue'
import StrikePanel from './shots/StrikePanel.vue'
import TableBed from './table/TableBed.vue'
import TablePlan from './table/TablePlan.vue'
import HeaderBar from './workspace/HeaderBar.vue'
import NoticeBar from './workspace/NoticeBar.vue'
import { useWorkspace } from './workspace/workspace'

const workspace = useWorkspace()
const keeping = useKeeping()
const conditions = ref(false)
const keys = ref(false)
const trouble = ref('')

useShortcuts(() => (keys.value = true))

async function start() {
  trouble.value = ''
  try {
    await workspace.start()
  } catch (e) {
    if (!(e instanceof Problem)) throw e
    trouble.value = `${e.message} ${e.detail}`
  }
}
onMounted(start)
</script>

<template>
  <ElConfigProvider>
    <div v-if="workspace.reference && workspace.table" class="app">
      <HeaderBar @conditions="conditions = !conditions" @keys="keys = true" />
      <main>
        <div class="left">
          <div class="plan-frame"><TableBed /><TablePlan /></div>
          <PicturePanel />
        </div>
        <div class="desk" aria-label="Desk">
          <ReadPanel />
          <ChoosePanel />
          <StrikePanel />
        </div>
      </main>
      <LibraryDrawer />
      <FramesDrawer />
      <ConditionsDrawer v-model="conditions" />
      <ShortcutsDialog v-model="keys" />
      <ElDialog :model-value="!!keeping.conflict" title="Saved elsewhere since you opened it" width="min(520px, 94vw)" @close="keeping.conflict = null">
        <p>“{{ keeping.conflict?.name }}” has been saved from another page. Yours is still here and not lost.</p>
        <div class="choices">
          <button class="key chosen" @click="keeping.keepBoth()">Keep both</button>
          <button class="key" @click="keeping.takeNewer()">Take the newer one</button>
          <button class="key" @click="keeping.saveOver()">Save mine over it</button>
        </div>
      </ElDialog>
    </div>
    <div v-else class="waiting" role="status">
      <template v-if="trouble">
        <p>{{ trouble }}</p>
        <button class="key chosen" @click="start">Try again</button>
      </template>
      <p v-else class="soft">Setting up the table …</p>
    </div>
    <NoticeBar />
  </ElConfigProvider>
</template>

<style scoped>
.app {
  display: flex;
  flex-direction: column;
  height: 100dvh;
  min-height: 0;
}
main {
  flex: 1;
  min-height: 0;
  display: grid;
  grid-template-columns: minmax(0, 1fr) var(--desk);
}
.left {
  display: flex;
  flex-direction: column;
  gap: 8px;
  padding: 10px 12px;
  min-height: 0;
  min-width: 0;
}
.plan-frame {
  position: relative;
  contain: strict;
  aspect-ratio: 3881 / 2120;
  width: 100%;
  max-height: 72%;
  flex: none;
}
.desk {
  border-left: 1px solid var(--edge);
  background: var(--panel);
  overflow: auto;
  display: flex;
  flex-direction: column;
}
.desk :deep(.panel) {
  padding: 7px 14px;
  border-bottom: 1px solid var(--edge);
  display: flex;
  flex-direction: column;
  gap: 5px;
}
.desk :deep(.row) {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 8px;
  align-items: center;
}
.desk :deep(p) {
  margin: 0;
}
.choices {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
.waiting {
  display: grid;
  place-content: center;
  justify-items: center;
  height: 100dvh;
  padding: 20px;
  text-align: center;
}
@media (max-width: 860px) {
  .app {
    height: auto;
  }
  main {
    grid-template-columns: minmax(0, 1fr);
  }
  .plan-frame {
  position: relative;
  contain: strict;
    max-height: none;
  }
}
</style>
