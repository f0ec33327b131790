<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { useKeeping } from '../position/keeping'

/** Somebody else has saved the position since it was opened here. */
const keeping = useKeeping()
</script>

<template>
  <ElDialog
    :model-value="!!keeping.conflict"
    title="Saved elsewhere since you opened it"
    width="min(520px, 94vw)"
    @close="keeping.dropConflict()"
  >
    <p>“{{ keeping.conflict?.name }}” has been saved from another page. Yours is still here and not lost.</p>
    <div class="row">
      <ElButton type="primary" @click="keeping.keepBoth()">Keep both</ElButton>
      <ElButton @click="keeping.takeNewer()">Take the newer one</ElButton>
      <ElButton @click="keeping.saveOver()">Save mine over it</ElButton>
    </div>
  </ElDialog>
</template>
