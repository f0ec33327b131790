<script setup lang="ts">
import { useDark } from '@vueuse/core'
import { ElConfigProvider, ElDialog } from 'element-plus'
import { onMounted, ref } from 'vue'
import { Problem } from '../api/client'
import { router, unsavedAddress } from './router'
import { useTableAddress } from './tableAddress'
import TopBar from './TopBar.vue'
import { useShortcuts } from './keys/shortcuts'
import ShortcutsDialog from './keys/ShortcutsDialog.vue'
import { useKeeping } from '../position/keeping'
import NoticeBar from './NoticeBar.vue'
import { useAnswer } from '../position/answer'
import { useSaving } from '../position/saving'

/** What every place stands in: the bar above, the place itself, what lies over it. */
const answer = useAnswer()
const saving = useSaving()
const keeping = useKeeping()
const keys = ref(false)
const trouble = ref('')
const isReady = ref(false)
useDark({ initialValue: 'dark' })

useShortcuts(() => (keys.value = true))

async function start() {
  trouble.value = ''
  try {
    await router.isReady()
    const { name, params } = router.currentRoute.value
    const id = name === 'table' && params.position !== unsavedAddress ? (params.position as string) || undefined : undefined
    await saving.start(id)
    useTableAddress()
    isReady.value = true
  } catch (e) {
    if (!(e instanceof Problem)) throw e
    trouble.value = `${e.message} ${e.detail}`
  }
}
onMounted(start)
</script>

<template>
  <ElConfigProvider>
    <div v-if="isReady && answer.table" class="app" :class="{ 'at-table': $route.name === 'table' }">
      <TopBar />
      <RouterView v-slot="{ Component }">
        <KeepAlive include="TablePlace"><component :is="Component" /></KeepAlive>
      </RouterView>
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
  min-height: 100dvh;
}
/* Plan and desk are seen whole: what is longer scrolls inside. */
.at-table {
  height: 100dvh;
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
  .at-table {
    height: auto;
  }
}
</style>
