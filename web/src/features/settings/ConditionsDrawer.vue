<script setup lang="ts">
import { ElDrawer } from 'element-plus'
import { useMediaQuery } from '@vueuse/core'
import ConditionsFields from './ConditionsFields.vue'

/** The conditions beside the plan, which follows at once: over the desk, or on a phone from below. */
const open = defineModel<boolean>({ required: true })
const isPhone = useMediaQuery('(max-width: 860px) and (orientation: portrait), (max-width: 520px)')
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
    <ConditionsFields is-titled />
  </ElDrawer>
</template>
