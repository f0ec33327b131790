<script setup lang="ts">
import { ElButton, ElProgress } from 'element-plus'
import { computed } from 'vue'
import type { Schemas } from '../api/client'
import { percentWords } from '../lib/formats'

/** How far a search is: its stages, and about how long it takes; with a way to stop it and to go on. */
const props = defineProps<{
  isSearching: boolean
  wasStopped: boolean
  /** 0 to 1. */
  share: number
  label: string
  status?: Schemas['SearchStatus'] | null
  /** When it began, ms. */
  since?: number
  /** Of the strokes that are tried on an ordinary table, the share that is on this one; less than 1 is said. */
  looked?: number
  /** Others are before it. */
  wait?: Schemas['SearchWait'] | null
  stopTestId?: string
}>()
const emit = defineEmits<{ stop: []; goOn: [] }>()

/** Said anew with each word of the search, which speaks each second. */
const seconds = computed(() => {
  if (!props.status || !props.since) return null
  const left = props.status.seconds - (Date.now() - props.since) / 1000
  return Math.max(1, Math.ceil(left))
})
</script>

<template>
  <span v-if="isSearching" class="search-status" role="status">
    <template v-if="wait">waiting: {{ wait.ahead }} ahead, about {{ wait.seconds.toFixed(0) }} s</template>
    <template v-else>
      <ElProgress :percentage="Math.round(share * 100)" :show-text="false" :stroke-width="8" :aria-label="label" />
      <span v-if="status" class="stages soft" data-testid="stages"
        ><template v-for="(s, i) in status.stages" :key="s"
          ><template v-if="i"> · </template><strong v-if="i === status.stage">{{ s }}</strong
          ><template v-else>{{ s }}</template></template
        >, <span class="figure">about {{ seconds }} s</span></span
      >
    </template>
    <ElButton size="small" :data-testid="stopTestId" @click="emit('stop')">Stop</ElButton>
  </span>
  <span v-else-if="status?.isCut" class="search-status" data-testid="was-cut"
    ><span class="soft">stopped by the time limit; the best so far</span
    ><ElButton size="small" @click="emit('goOn')">Search again</ElButton></span
  >
  <span
    v-else-if="looked !== undefined && looked < 0.995"
    class="soft"
    title="Balls run so far on this table that trying all strokes would take too long"
    >only {{ percentWords(looked) }} of the usual strokes tried</span
  >
  <span v-else-if="wasStopped" class="search-status"
    ><span class="soft">stopped{{ share > 0 ? ': the best so far' : '' }}</span
    ><ElButton size="small" @click="emit('goOn')">Go on</ElButton></span
  >
</template>

<style scoped>
.search-status {
  display: inline-flex;
  flex-wrap: wrap;
  gap: var(--space-2) var(--space-3);
  align-items: center;
}
.search-status :deep(.el-progress) {
  width: 80px;
}
.stages {
  font-size: var(--type-2);
}
.stages strong {
  color: var(--text);
  font-weight: 600;
}
</style>
