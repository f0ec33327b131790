<script setup lang="ts">
import { ElButton } from 'element-plus'
import { useNotices } from '../lib/notices'

/** Short messages at the foot of the page, some with one thing to do about it. */
const notices = useNotices()
</script>

<template>
  <div class="notices" aria-live="polite">
    <div
      v-for="n in notices.notices"
      :key="n.id"
      class="notice"
      :class="n.kind"
      :role="n.kind === 'error' ? 'alert' : 'status'"
      data-testid="notice"
    >
      <span
        ><strong>{{ n.text }}</strong> <span v-if="n.detail" class="detail">{{ n.detail }}</span></span
      >
      <ElButton v-if="n.action" size="small" type="primary" @click="(n.action.run(), notices.dismiss(n.id))">{{ n.action.label }}</ElButton>
      <ElButton size="small" @click="notices.dismiss(n.id)">Close</ElButton>
    </div>
  </div>
</template>

<style scoped>
.notices {
  position: fixed;
  left: 16px;
  bottom: 16px;
  z-index: 3000;
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  max-width: min(640px, calc(100vw - 32px));
}
.notice {
  display: flex;
  gap: var(--space-3);
  align-items: center;
  padding: var(--space-3) var(--space-4);
  border: 1px solid var(--edge);
  border-left: 4px solid var(--accent);
  border-radius: 8px;
  background: var(--panel-2);
  box-shadow: 0 4px 18px rgb(0 0 0 / 0.35);
}
.notice .el-button + .el-button {
  margin-left: 0;
}
.notice.error {
  border-left-color: var(--danger);
}
.notice > span {
  flex: 1;
}
.notice strong {
  font-weight: 600;
}
.detail {
  font-size: var(--type-2);
  overflow-wrap: anywhere;
}
</style>
