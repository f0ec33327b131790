<script setup lang="ts">
import { ElDrawer } from 'element-plus'
import { useShell } from '../../lib/useShell'
import TableConditions from './TableConditions.vue'

/** The conditions beside the plan, which follows at once: over the desk, or on a phone from below. */
const open = defineModel<boolean>({ required: true })
const { isPhone } = useShell()
</script>

<template>
  <ElDrawer
    v-model="open"
    :direction="isPhone ? 'btt' : 'rtl'"
    :size="isPhone ? '56%' : 'min(var(--desk), 100vw)'"
    title="Conditions"
    :modal="false"
    :append-to-body="true"
    :lock-scroll="false"
  >
    <TableConditions />
  </ElDrawer>
</template>
