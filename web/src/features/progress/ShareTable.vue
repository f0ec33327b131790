<script setup lang="ts">
import { ElTable, ElTableColumn } from 'element-plus'
import type { Schemas } from '../../api/client'
import { shareWords } from './words'

/** Shares beside one another, each with its doubt. */
defineProps<{ rows: readonly { label: string; share: Schemas['SuccessRate'] }[]; label?: string }>()
</script>

<template>
  <ElTable :data="[...rows]" size="small">
    <ElTableColumn prop="label" :label="label" width="170" />
    <ElTableColumn label="Done"
      ><template #default="{ row }">{{ shareWords(row.share) }}</template></ElTableColumn
    >
  </ElTable>
</template>
