<script setup lang="ts">
import { ElButton, ElDialog } from 'element-plus'
import { useKeeping } from '../position/keeping'

/** Somebody else has saved the position since it was opened here. */
const keeping = useKeeping()
</script>

<template>
  <ElDialog
    :model-value="!!keeping.conflict"
    title="Changed elsewhere since you opened it"
    width="min(520px, 94vw)"
    @close="keeping.dropConflict()"
  >
    <p>“{{ keeping.conflict?.name }}” was saved from another page. Your version is still here.</p>
    <div class="row">
      <ElButton type="primary" @click="keeping.keepBoth()">Keep both</ElButton>
      <ElButton @click="keeping.takeNewer()">Open the newer one</ElButton>
      <ElButton @click="keeping.saveOver()">Replace it with mine</ElButton>
    </div>
  </ElDialog>
</template>
