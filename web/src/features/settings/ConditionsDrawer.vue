<script setup lang="ts">
import { ElDrawer } from 'element-plus'
import ConditionsFields from './ConditionsFields.vue'

/** The conditions beside the plan, which follows at once. */
const open = defineModel<boolean>({ required: true })
</script>

<template>
  <ElDrawer v-model="open" direction="rtl" size="min(var(--desk), 100vw)" title="Conditions" :modal="false" :append-to-body="true" :lock-scroll="false">
    <ConditionsFields />
  </ElDrawer>
</template>
