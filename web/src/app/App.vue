<script setup lang="ts">
import FirstSteps from './FirstSteps.vue'
import { useDark, useLocalStorage } from '@vueuse/core'
import { ElButton, ElConfigProvider } from 'element-plus'
import { defineAsyncComponent, ref } from 'vue'
import { Problem } from '../api/client'
import { problemWords } from '../lib/problemWords'
import { useShot } from '../position/shot'
import { useDraft } from '../position/draft'
import { useKeeping } from '../position/keeping'
import { usePractise } from '../position/practise'
import { useSaving } from '../position/saving'
import { useShortcuts } from './keys/shortcuts'
import NoticeBar from './NoticeBar.vue'
import { router, unsavedAddress } from './router'
import PlanDefs from '../table/PlanDefs.vue'
import { useTableAddress } from './tableAddress'
import TopBar from './TopBar.vue'

/** What every place stands in: the bar above, the place itself, what lies over it. */
const KeysDialog = defineAsyncComponent(() => import('./keys/KeysDialog.vue'))
const ConflictDialog = defineAsyncComponent(() => import('./ConflictDialog.vue'))
const PractiseDialog = defineAsyncComponent(() => import('../features/practice/PractiseDialog.vue'))
const NewcomersTour = defineAsyncComponent(() => import('./NewcomersTour.vue'))
const saving = useSaving()
const position = useDraft()
const keeping = useKeeping()
const practise = usePractise()
useShot()
const keys = ref(false)
const hadKeys = ref(false)
const trouble = ref('')
const isReady = ref(false)
/** Whether the tour has been seen or skipped. */
const wasShownRound = useLocalStorage('deep-baize-tour', false)
const tour = ref(false)
/** Whether the first steps of a new club have been put away on this device. */
const hasBegun = useLocalStorage('deep-baize-begun', false)
/** Somebody who has not been shown round is offered it in one line, over nothing. */
const isNew = ref(false)
// Without the style that it would set for a moment: the Content-Security-Policy keeps styles out that are not in a file.
useDark({ initialValue: 'dark', disableTransition: false })

function showKeys() {
  hadKeys.value = keys.value = true
}
useShortcuts(showKeys)

async function start() {
  trouble.value = ''
  try {
    // Side by side with the place's own code.
    const { name, params } = router.resolve(location.pathname)
    const id = name === 'table' && params.position !== unsavedAddress ? (params.position as string) || undefined : undefined
    await Promise.all([saving.start(id), router.isReady()])
    useTableAddress()
    isReady.value = true
    isNew.value = !wasShownRound.value
  } catch (e) {
    if (!(e instanceof Problem)) throw e
    trouble.value = problemWords(e)
  }
}
void start()

function leaveNew() {
  isNew.value = false
  wasShownRound.value = true
}
async function showRound() {
  leaveNew()
  if (router.currentRoute.value.name !== 'table') await router.push('/table')
  tour.value = true
}
</script>

<template>
  <ElConfigProvider>
    <PlanDefs />
    <div v-if="isReady && position.reference" class="app" :class="{ 'at-table': $route.name === 'table' }">
      <TopBar @tour="showRound" @keys="showKeys" />
      <p v-if="isNew" class="new-here" data-testid="new-here">
        New here? <ElButton size="small" type="primary" data-testid="show-round" @click="showRound">Show me round</ElButton>
        <ElButton size="small" data-testid="not-now" @click="leaveNew">Not now</ElButton>
      </p>
      <FirstSteps v-if="saving.isNewClub && !hasBegun" @done="hasBegun = true" />
      <RouterView v-slot="{ Component }">
        <KeepAlive include="TablePlace"><component :is="Component" @tour="showRound" /></KeepAlive>
      </RouterView>
      <KeysDialog v-if="hadKeys" v-model="keys" />
      <NewcomersTour v-if="tour" @done="tour = false" />
      <PractiseDialog v-if="practise.asked" />
      <ConflictDialog v-if="keeping.conflict" />
    </div>
    <div v-else class="waiting" role="status">
      <template v-if="trouble">
        <p>{{ trouble }}</p>
        <ElButton type="primary" @click="start">Try again</ElButton>
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
.new-here {
  margin: 0;
  padding: var(--space-1) var(--space-4);
  display: flex;
  gap: var(--space-3);
  align-items: center;
  background: var(--panel-2);
  border-bottom: 1px solid var(--edge);
}
.new-here .el-button + .el-button {
  margin-left: 0;
}
/* Plan and desk are seen whole: what is longer scrolls inside. */
.at-table {
  height: 100dvh;
}
.waiting {
  display: grid;
  place-content: center;
  justify-items: center;
  height: 100dvh;
  padding: var(--space-5);
  text-align: center;
}
</style>
