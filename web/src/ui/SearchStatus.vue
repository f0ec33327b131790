<script setup lang="ts">
import { ElButton, ElProgress } from 'element-plus'
import { percentWords } from '../lib/formats'

/** How far a search is, with a way to stop it and to go on. */
defineProps<{
  isSearching: boolean
  wasStopped: boolean
  /** 0 to 1. */
  share: number
  label: string
  /** What has been looked at, such as "1,204 positions". */
  count?: string
  /** Of the strokes that are looked at on an ordinary table, the share that is on this one; less than 1 is said. */
  looked?: number
  /** Others are before it. */
  wait?: { ahead: number; seconds: number } | null
  stopTestId?: string
}>()
const emit = defineEmits<{ stop: []; goOn: [] }>()
</script>

<template>
  <span v-if="isSearching" class="search-status" role="status">
    <template v-if="wait">waiting: {{ wait.ahead }} ahead, about {{ wait.seconds.toFixed(0) }} s</template>
    <template v-else>
      <ElProgress :percentage="Math.round(share * 100)" :show-text="false" :stroke-width="8" :aria-label="label" />
      <span v-if="count" class="figure soft">{{ count }}</span>
    </template>
    <ElButton size="small" :data-testid="stopTestId" @click="emit('stop')">Stop</ElButton>
  </span>
  <span v-else-if="looked !== undefined && looked < 0.995" class="soft" title="Balls run so long on this table that all would take too long"
    >only {{ percentWords(looked) }} of the usual strokes tried</span
  >
  <span v-else-if="wasStopped" class="search-status"
    ><span class="soft">stopped</span><ElButton size="small" @click="emit('goOn')">Go on</ElButton></span
  >
</template>

<style scoped>
.search-status {
  display: inline-flex;
  gap: 8px;
  align-items: center;
}
.search-status :deep(.el-progress) {
  width: 80px;
}
</style>
