<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed, ref } from 'vue'
import type { Schemas } from '../../api/client'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import type { RecordedShot } from './records'

/** What there is to a foul: how it was one, what follows, and the points away. */
defineProps<{ state: Schemas['FrameRecordResult']['story']['state']; names: readonly string[]; busy: boolean }>()
const emit = defineEmits<{ enter: [shot: Partial<RecordedShot> & Pick<RecordedShot, 'kind'>] }>()
type Then = 'next' | 'again' | 'replaced'
const foul = ref({ inOff: false, freeBall: false, missCalled: false, fullBall: true, redsLost: 0 })
const then = ref<Then>('next')
/** What follows a foul: the other player's choice; the balls come back only after a miss. */
const thens = computed(() =>
  (
    [
      { value: 'next', label: 'the other plays' },
      { value: 'again', label: 'plays again from here' },
      { value: 'replaced', label: 'balls put back' },
    ] as const
  )
    .filter((t) => t.value !== 'replaced' || foul.value.missCalled)
    .map((t) => ({ ...t, testId: `then-${t.value}` })),
)
const enter = (penalty: number) =>
  emit('enter', {
    kind: 'foul',
    penalty,
    ...foul.value,
    playAgain: then.value === 'again',
    replaced: then.value === 'replaced' && foul.value.missCalled,
  })
</script>

<template>
  <div class="foul">
    <div class="row">
      <ElCheckbox v-model="foul.inOff">in-off</ElCheckbox>
      <ElCheckbox v-model="foul.freeBall">free ball</ElCheckbox>
      <ElCheckbox v-if="state.missMayBeCalled || state.misses" v-model="foul.missCalled" data-testid="miss-called">miss called</ElCheckbox>
      <ElCheckbox v-if="foul.missCalled" v-model="foul.fullBall">with a ball open full</ElCheckbox>
      <label class="row"
        >reds gone <FigureInput v-model="foul.redsLost" :min="0" :max="state.reds" :digits="0" label="Reds gone" width="48px"
      /></label>
    </div>
    <OneOf v-model="then" :options="thens" label="What follows" />
    <div class="row">
      <ElButton v-for="p in state.penalties" :key="p" class="tall" :disabled="busy" :data-testid="`penalty-${p}`" @click="enter(p)"
        >{{ p }} away</ElButton
      >
    </div>
    <div class="row">
      <ElButton class="tall" :disabled="busy" @click="emit('enter', { kind: 'concede' })">Concede</ElButton>
      <ElButton v-for="(n, i) in names" :key="i" class="tall" :disabled="busy" @click="emit('enter', { kind: 'award', player: i })"
        >Award to {{ n }}</ElButton
      >
    </div>
  </div>
</template>

<style scoped>
.foul {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  border: 1px solid var(--edge);
  border-radius: 8px;
  padding: var(--space-2) var(--space-3) var(--space-3);
}
.tall {
  min-height: 44px;
  flex: 1;
}
</style>
