<script setup lang="ts">
import { ElButton } from 'element-plus'

/** A better line has come in while one was looked at: it waits to be shown, and nothing is exchanged by itself. */
const emit = defineEmits<{ show: [] }>()
</script>

<template>
  <p class="better" role="status" data-testid="better">
    A better one was found. <ElButton size="small" type="primary" data-testid="show-better" @click="emit('show')">Show it</ElButton>
  </p>
</template>
