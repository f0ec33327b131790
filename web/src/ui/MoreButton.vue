<script setup lang="ts">
import { ElButton } from 'element-plus'

/** Below a list of which only a part is shown. */
defineProps<{ shown: number; total: number }>()
defineEmits<{ more: [] }>()
</script>

<template>
  <p v-if="shown > 0 && shown < total" class="row more">
    <span class="soft" role="status">{{ shown }} of {{ total }}</span>
    <ElButton data-testid="more" @click="$emit('more')">Show more</ElButton>
  </p>
</template>

<style scoped>
.more {
  align-items: center;
}
</style>
