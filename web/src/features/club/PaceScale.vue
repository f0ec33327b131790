<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'
import { useRouter } from 'vue-router'
import { ask, client, type Schemas } from '../../api/client'
import { countWords, figureWords } from '../../lib/formats'
import { useNotices } from '../../lib/notices'
import { useAttempt } from '../../lib/useAttempt'
import { useClub, type ClubPlayer } from '../../position/club'
import FigureInput from '../../ui/FigureInput.vue'

/** A player's own scale of paces: what his numbers are on the standard scale, typed or taken from his attempts. */
const props = defineProps<{ player: ClubPlayer }>()
const club = useClub()
const notices = useNotices()
const router = useRouter()
const { attempt, busy } = useAttempt()
type Point = { own: number; standard: number }

/** Between neighbours, so that both numbers rise. */
const least = 0.1
const most = { own: 100, standard: 20 }
const maxPoints = 10
const scale = computed(() => props.player.paceScale)
const set = (paceScale: Point[]) => club.change('players', props.player.id, { paceScale })
const round = (v: number) => Math.round(v * 100) / 100
const change = (i: number, to: Partial<Point>) => set(scale.value.map((p, k) => (k === i ? { ...p, ...to } : p)))
const bounds = (i: number, key: keyof Point) => ({
  min: i ? scale.value[i - 1][key] + least : key === 'own' ? least : 0.5,
  max: i + 1 < scale.value.length ? scale.value[i + 1][key] - least : most[key],
})
/** The first is a five; another goes on as the last two do. */
function add() {
  const [before, last] = [scale.value.at(-2) ?? { own: 0, standard: 0 }, scale.value.at(-1)]
  if (!last) return set([{ own: 5, standard: 5 }])
  const own = last.own + 1
  const standard = round(last.standard + (last.standard - before.standard) / (last.own - before.own))
  return set([...scale.value, { own, standard: Math.min(most.standard, standard) }])
}

const learnt = ref<Schemas['PaceScaleResult']>()
const learn = () =>
  attempt(async () => {
    learnt.value = await ask(client.GET('/api/learn/paces'))
    if (!learnt.value.scale.length)
      notices.show({
        kind: 'info',
        text: 'There are no attempts at the routine Pace scale yet.',
        action: { label: 'Open it', run: () => void router.push('/practice/routines/pace-scale') },
      })
  }, 'Could not read your attempts')
const learntWords = computed(() =>
  (learnt.value?.paces ?? [])
    .map(
      (p) =>
        `${figureWords(p.own, 1).replace('.0', '')} is ${figureWords(p.standard, 1)}${p.error ? ` ± ${figureWords(p.error, 1)}` : ''} (${countWords(p.attempts, 'attempt')})`,
    )
    .join(', '),
)
function takeOver() {
  const before = scale.value
  void set(learnt.value!.scale as Point[])
  learnt.value = undefined
  notices.show({
    kind: 'info',
    text: `${props.player.name} has a pace scale of ${countWords(scale.value.length, 'point')}.`,
    action: { label: 'Undo', run: () => void set(before) },
  })
}
</script>

<template>
  <section class="scale" aria-label="Own pace scale" data-testid="pace-scale">
    <span class="row">
      <strong>Own pace scale</strong>
      <span v-if="!scale.length" class="soft">the standard one</span>
    </span>
    <ol v-if="scale.length">
      <li v-for="(p, i) in scale" :key="i" class="row" data-testid="pace-point">
        own
        <FigureInput
          :model-value="p.own"
          v-bind="bounds(i, 'own')"
          :digits="1"
          :label="`Own number of point ${i + 1}`"
          width="58px"
          @update:model-value="change(i, { own: $event })"
        />
        is
        <FigureInput
          :model-value="p.standard"
          v-bind="bounds(i, 'standard')"
          :digits="2"
          :label="`Standard pace of point ${i + 1}`"
          width="58px"
          @update:model-value="change(i, { standard: $event })"
        />
        <span class="soft">standard</span>
        <ElButton text size="small" :aria-label="`Remove point ${i + 1}`" @click="set(scale.filter((_, k) => k !== i))">Remove</ElButton>
      </li>
    </ol>
    <span class="row">
      <ElButton size="small" :disabled="scale.length >= maxPoints" data-testid="add-pace" @click="add">Add a pace</ElButton>
      <ElButton
        v-if="player.id === club.ids.players"
        size="small"
        :disabled="busy"
        title="From your attempts at the routine Pace scale"
        data-testid="learn-paces"
        @click="learn"
        >From my attempts</ElButton
      >
    </span>
    <p v-if="learnt?.scale.length" role="status" data-testid="learnt-paces">
      Your {{ learntWords }}. <ElButton size="small" type="primary" data-testid="take-paces" @click="takeOver">Take over</ElButton>
    </p>
  </section>
</template>

<style scoped>
.scale {
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
  align-items: flex-start;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
}
p {
  margin: 0;
}
</style>
