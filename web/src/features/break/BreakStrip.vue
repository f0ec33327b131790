<script setup lang="ts">
import { ElButton } from 'element-plus'
import { potWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import BallDot from '../../ui/BallDot.vue'
import { usePlans } from './plans'

/** Below the plan: the shots of the break in order, with the running score. */
const plans = usePlans()
</script>

<template>
  <ol v-if="plans.chosen" class="strip" aria-label="The break, shot by shot">
    <li v-for="(s, i) in plans.chosen.shots" :key="i">
      <ElButton
        :type="plans.shot === i ? 'primary' : undefined"
        plain
        :aria-pressed="plans.shot === i"
        :title="`${potWords(s.choice)}, goes in ${shareWords(s.choice.chance)}`"
        @click="plans.look(i)"
        ><BallDot :ball="s.choice.stroke.pot!.ball" />&nbsp;<span class="figure">{{ s.points }}</span></ElButton
      >
    </li>
  </ol>
</template>

<style scoped>
.strip {
  list-style: none;
  margin: 0;
  padding: 0 var(--space-1) var(--space-1);
  display: flex;
  gap: var(--space-2);
  overflow-x: auto;
  scrollbar-width: thin;
  flex: none;
}
</style>
