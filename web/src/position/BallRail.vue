<script setup lang="ts">
import { useEventListener } from '@vueuse/core'
import { ElButton, ElDropdown, ElDropdownItem, ElDropdownMenu } from 'element-plus'
import { computed } from 'vue'
import { countWords, sentence } from '../lib/formats'
import { planControl } from '../table/camera'
import BallButton from '../table/BallButton.vue'
import { useLaying } from './laying'

/** Beneath the plan: the balls that are off, tables to begin from, several balls together, and how closely the plan is looked at. */
const laying = useLaying()
const hint = computed(() => {
  if (laying.group.length) return `${countWords(laying.group.length, 'ball')} selected`
  if (laying.isLassoing) return 'draw a ring around balls'
  return laying.armed ? `tap where the ${laying.armed} goes` : ''
})
const group = (what: string) => {
  if (what === 'off') laying.takeAway([...laying.group])
  else if (what === 'done') laying.letGo()
  else void laying.arrange(what as 'row')
}
const camera = computed(() => planControl.value?.camera)
const canArc = computed(() => laying.group.length > 2)

useEventListener(document, 'keydown', (e: KeyboardEvent) => {
  if (e.key !== 'Escape' || e.defaultPrevented || document.querySelector('.el-overlay:not([style*="display: none"])')) return
  laying.letGo()
})
</script>

<template>
  <div class="ball-rail" role="group" aria-label="Balls off the table" data-testid="ball-rail">
    <div class="off">
      <BallButton
        v-for="b in laying.off"
        :key="b.kind"
        :kind="b.kind"
        :count="b.count"
        :is-chosen="laying.armed === b.kind"
        @chosen="laying.arm(b.kind)"
        @carried="(x, y) => laying.carry(b.kind, x, y)"
      />
      <span v-if="!laying.off.length" class="soft">All balls are on the table</span>
      <span v-if="hint" class="hint" role="status" data-testid="laying-hint">{{ hint }}</span>
    </div>
    <ElDropdown v-if="laying.group.length" trigger="click" @command="group">
      <ElButton size="small" type="primary" data-testid="together">Lay them</ElButton>
      <template #dropdown>
        <ElDropdownMenu>
          <ElDropdownItem command="row" :disabled="laying.group.length < 2">In a row</ElDropdownItem>
          <ElDropdownItem command="arc" :disabled="!canArc">In an arc</ElDropdownItem>
          <ElDropdownItem command="cushion">On the cushion</ElDropdownItem>
          <ElDropdownItem command="touch">Touching</ElDropdownItem>
          <ElDropdownItem command="off" divided>Take off the table</ElDropdownItem>
          <ElDropdownItem command="done">Deselect</ElDropdownItem>
        </ElDropdownMenu>
      </template>
    </ElDropdown>
    <ElButton
      size="small"
      :type="laying.isLassoing ? 'primary' : undefined"
      :aria-pressed="laying.isLassoing"
      title="Draw a ring around balls to select several (or Shift and drag)"
      data-testid="lasso-mode"
      @click="((laying.isLassoing = !laying.isLassoing), (laying.armed = null))"
      >Several</ElButton
    >
    <span v-if="camera" class="zoom">
      <ElButton size="small" aria-label="Zoom in" title="Zoom in (Z, wheel, pinch)" data-testid="closer" @click="camera.zoomBy(1.7)"
        >+</ElButton
      >
      <ElButton
        size="small"
        aria-label="Zoom out"
        title="Zoom out (U)"
        :disabled="camera.isWhole.value"
        data-testid="farther"
        @click="camera.zoomBy(1 / 1.7)"
        >−</ElButton
      >
      <ElButton
        size="small"
        :title="camera.isWhole.value ? 'Show what matters in this step (9)' : 'Show the whole table (0)'"
        data-testid="matters"
        @click="camera.isWhole.value ? planControl?.showWhatMatters() : camera.showWhole()"
        >{{ camera.isWhole.value ? 'Closer' : sentence('whole') }}</ElButton
      >
    </span>
    <Teleport to="body">
      <BallButton
        v-if="laying.carried"
        :kind="laying.carried.kind"
        :count="1"
        class="carried-ball"
        :style="{ left: `${laying.carried.x}px`, top: `${laying.carried.y}px` }"
        aria-hidden="true"
        tabindex="-1"
      />
    </Teleport>
  </div>
</template>

<style scoped>
.ball-rail {
  display: flex;
  gap: var(--space-2);
  align-items: center;
  min-height: 40px;
  padding: var(--space-1) var(--space-3);
  border-radius: 8px;
  background: linear-gradient(#2b1c13, #22150e);
  border: 1px solid #4b3122;
  flex: none;
  min-width: 0;
}
.off {
  display: flex;
  align-items: center;
  gap: var(--space-2);
  flex: 1;
  min-width: 0;
  overflow-x: auto;
  scrollbar-width: none;
  color: #d8c9a8;
}
.off .soft {
  color: #b9a988;
  white-space: nowrap;
}
.hint {
  margin-left: var(--space-3);
  white-space: nowrap;
  color: var(--brass);
}
.zoom {
  display: flex;
  gap: var(--space-1);
}
.ball-rail .el-button + .el-button {
  margin-left: 0;
}
/* Two fingers do the same. */
@media (max-width: 599px) {
  .zoom {
    display: none;
  }
}
.carried-ball {
  position: fixed;
  transform: translate(-50%, -50%);
  pointer-events: none;
  z-index: 3000;
}
</style>
