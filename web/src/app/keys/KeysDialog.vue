<script setup lang="ts">
import { ElDialog } from 'element-plus'
import KeyList from './KeyList.vue'

const open = defineModel<boolean>({ required: true })
</script>

<template>
  <ElDialog v-model="open" title="Keys" width="min(640px, 94vw)" :append-to-body="true" destroy-on-close><KeyList /></ElDialog>
</template>
