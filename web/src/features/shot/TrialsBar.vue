<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { useShot } from '../../position/shot'
import { useView } from '../../position/view'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useTrials } from './trials'

/** What a stroke leaves: its line, and where it was really seen to stop. */
const trials = useTrials()
const answer = useShot()
const view = useView()
const isDirect = computed(() => {
  const pot = trials.mine?.stroke.pot
  return !!pot && !pot.through && !pot.off
})
/** Of a straight pot there is no thick and no thin. */
const sides = computed(() => (trials.isStraight ? (['left', 'right'] as const) : (['thick', 'thin'] as const)))
</script>

<template>
  <div class="row bar">
    <ElButton size="small" :disabled="!answer.shot || view.isCovered" data-testid="keep-line" @click="trials.leave(true)"
      >Keep the line</ElButton
    >
    <ElButton
      size="small"
      :type="trials.asks === 'white' ? 'primary' : undefined"
      :aria-pressed="trials.asks === 'white'"
      :disabled="!answer.shot || view.isCovered"
      title="Touch the plan where the white really stopped, or drag its ring there"
      data-testid="it-stopped"
      @click="trials.asks = trials.asks === 'white' ? null : 'white'"
      >It stopped here</ElButton
    >
    <HandbookLink of="lines" what="a line" />
    <ElButton
      v-if="trials.mine?.seenWhite && trials.mine.stroke.pot"
      size="small"
      :type="trials.asks === 'ball' ? 'primary' : undefined"
      :aria-pressed="trials.asks === 'ball'"
      data-testid="ball-stopped"
      @click="trials.asks = trials.asks === 'ball' ? null : 'ball'"
      >Missed: ball here</ElButton
    >
    <template v-if="trials.mine?.seenWhite">
      <template v-if="isDirect">
        <ElButton
          v-for="side in sides"
          :key="side"
          size="small"
          :type="trials.mine.missed === side ? 'primary' : undefined"
          :aria-pressed="trials.mine.missed === side"
          :data-testid="`missed-${side}`"
          @click="trials.saw({ missed: side })"
          >Missed {{ side }}</ElButton
        >
      </template>
      <ElButton
        v-else-if="!trials.mine.stroke.pot"
        size="small"
        :type="trials.mine.hit === false ? 'primary' : undefined"
        :aria-pressed="trials.mine.hit === false"
        data-testid="hit-nothing"
        @click="trials.saw({ hit: false })"
        >Hit nothing</ElButton
      >
      <ElButton
        size="small"
        title="The same stroke once more: what attempts have in common is told"
        data-testid="played-again"
        @click="trials.playedAgain()"
        >Played again</ElButton
      >
    </template>
    <ElButton v-if="trials.trials.length" size="small" text data-testid="clear-lines" @click="trials.clear()">Clear</ElButton>
    <span v-if="trials.asks" class="asks" role="status">Touch the plan where the {{ trials.asks }} stopped.</span>
  </div>
</template>

<style scoped>
.asks {
  color: var(--accent);
}
</style>
