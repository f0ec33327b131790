<script setup lang="ts">
import { useEventListener, useWakeLock } from '@vueuse/core'
import { ElButton, ElCheckbox, ElInput } from 'element-plus'
import { computed, onMounted, ref, watch } from 'vue'
import { ask, client, type Schemas } from '../../api/client'
import { nameOf, pocketName } from '../../domain/balls'
import { fullnessWords, tipWords } from '../../domain/words'
import BallFace from '../../ui/BallFace.vue'
import { figureWords, lengthWords, paceWords, sentence } from '../../lib/formats'
import { useAnswer } from '../../lib/useAnswer'
import { useDraft } from '../../position/draft'
import { useGlance } from '../../position/glance'
import { usePlayer } from '../../position/player'
import PlanPicture from '../../table/PlanPicture.vue'
import CutPicture from '../../ui/CutPicture.vue'
import ProblemText from '../../ui/ProblemText.vue'
import { kindsOf, useReminders } from './reminders'

/** A stroke as one glance at the table: where to aim, where to strike, how hard, and one line. It stays awake; next and back by a thumb. */
const glance = useGlance()
const position = useDraft()
const players = usePlayer()
const reminders = useReminders()
const item = computed(() => glance.item)
const stroke = computed(() => item.value?.content.stroke ?? null)
const shot = useAnswer<Schemas['ShotRequest'], Schemas['ShotResult']>({
  question: () => (item.value ? { content: item.value.content, player: players.player } : null),
  ask: (body, signal) => ask(client.POST('/api/shot', { body, signal })),
  keepAs: 'glance',
})
const played = computed<Schemas['ShotResult'] | null>(() => shot.present.value)
const cut = computed(() => played.value?.cut ?? null)
const white = computed(() => (played.value?.simulation.paths.find((p) => p.id === 'white')?.points ?? []).map(({ x, y }) => ({ x, y })))
const legs = computed(() => {
  const all = cut.value?.legs ?? []
  return all.length ? [{ x: all[0].fromX, y: all[0].fromY }, ...all.map((l) => ({ x: l.toX, y: l.toY }))] : []
})
const aim = computed(() => {
  if (!cut.value) return `aim ${figureWords(stroke.value?.aim ?? 0, 1)}°`
  const net = played.value?.allowance?.net ?? 0
  const off = Math.abs(net) < 0.0005 ? '' : `, ${lengthWords(Math.abs(net), 1)} ${net > 0 ? 'thinner' : 'thicker'}`
  return `${fullnessWords[cut.value.fullnessWord]}${off}`
})

const isEditing = ref(false)
const ticked = ref(new Set<string>())
watch(
  () => glance.at,
  () => (ticked.value = new Set()),
)
const shown = computed(() => {
  const kinds = stroke.value ? kindsOf(stroke.value, played.value?.reach ?? null) : []
  return reminders.list.value.filter((r) => r.isOn && kinds.includes(r.of))
})
const tick = (id: string) => {
  const next = new Set(ticked.value)
  if (!next.delete(id)) next.add(id)
  ticked.value = next
}

// A phone that lies by the table stays awake, where the browser lets it.
const lock = useWakeLock()
onMounted(() => void lock.request('screen').catch(() => {}))
useEventListener(window, 'keydown', (e: KeyboardEvent) => {
  if (e.target instanceof HTMLInputElement) return
  if (e.key === 'ArrowRight') glance.go(1)
  if (e.key === 'ArrowLeft') glance.go(-1)
})
</script>

<template>
  <main class="glance" data-testid="glance">
    <header class="row">
      <RouterLink class="back" :to="glance.from" data-testid="glance-back">‹ Back</RouterLink>
      <strong v-if="glance.items.length > 1" class="figure">{{ glance.at + 1 }} of {{ glance.items.length }}</strong>
    </header>
    <p v-if="!item" class="soft">
      No stroke yet. Set one up at the <RouterLink to="/table">table</RouterLink>, and press <em>At a glance</em> in its menu.
    </p>
    <template v-else-if="stroke && position.reference">
      <h1>{{ item.title }}</h1>
      <ProblemText v-if="shot.problem.value && !shot.present.value" :problem="shot.problem.value" @again="shot.again()" />
      <PlanPicture :balls="item.content.balls" :reference="position.reference" :white="white" :pot="legs" />
      <div class="three">
        <figure>
          <CutPicture
            v-if="cut"
            :offset="Math.sign(cut.cutDegrees) * cut.aimOffset"
            :radius="position.reference.ballRadius"
            :ball="cut.struck"
          />
          <figcaption data-testid="glance-aim">{{ sentence(aim) }}</figcaption>
          <span v-if="cut" class="soft">{{ nameOf(cut.ball) }}, {{ pocketName(cut.pocket) }}</span>
        </figure>
        <figure>
          <BallFace class="face" :side="stroke.side" :height="stroke.height" aria-hidden="true" />
          <figcaption data-testid="glance-tip">{{ sentence(tipWords(stroke.side, stroke.height)) }}</figcaption>
        </figure>
        <figure>
          <strong class="pace figure">{{ stroke.pace.toFixed(1).replace(/\.0$/, '') }}</strong>
          <figcaption>{{ sentence(paceWords(stroke.pace)) }}</figcaption>
        </figure>
      </div>
      <p v-if="item.note" class="note">{{ item.note }}</p>
      <ul v-if="reminders.isOn.value" class="reminders" aria-label="Before the stroke">
        <li v-for="r in shown" :key="r.id">
          <ElCheckbox :model-value="ticked.has(r.id)" @change="tick(r.id)">{{ r.text }}</ElCheckbox>
        </li>
      </ul>
      <div class="row">
        <ElCheckbox v-model="reminders.isOn.value" data-testid="reminders-on">Remind me before the stroke</ElCheckbox>
        <ElButton v-if="reminders.isOn.value" size="small" text @click="isEditing = !isEditing">{{
          isEditing ? 'Done' : 'Change them'
        }}</ElButton>
      </div>
      <ul v-if="reminders.isOn.value && isEditing" class="edit">
        <li v-for="r in reminders.list.value" :key="r.id" class="row">
          <ElCheckbox :model-value="r.isOn" :aria-label="`Use: ${r.text}`" @change="reminders.change(r.id, { isOn: !r.isOn })" />
          <ElInput
            :model-value="r.text"
            maxlength="80"
            :aria-label="`Reminder ${r.text}`"
            @change="(text: string) => text.trim() && reminders.change(r.id, { text: text.trim() })"
          />
        </li>
        <li><ElButton size="small" @click="reminders.reset()">Reset reminders</ElButton></li>
      </ul>
    </template>
    <nav v-if="glance.items.length > 1" class="thumbs" aria-label="Strokes">
      <ElButton size="large" :disabled="glance.at === 0" data-testid="glance-previous" @click="glance.go(-1)">Back</ElButton>
      <ElButton
        size="large"
        type="primary"
        :disabled="glance.at === glance.items.length - 1"
        data-testid="glance-next"
        @click="glance.go(1)"
        >Next</ElButton
      >
    </nav>
  </main>
</template>

<style scoped>
.glance {
  width: 100%;
  max-width: 560px;
  margin: 0 auto;
  padding: var(--space-3) var(--space-5) calc(3 * var(--space-6));
  display: flex;
  flex-direction: column;
  gap: var(--space-4);
}
header {
  justify-content: space-between;
}
.back {
  color: var(--accent);
  text-decoration: none;
  padding: var(--space-3) 0;
}
h1 {
  margin: 0;
  font-size: var(--type-5);
}
.three {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: var(--space-3);
  text-align: center;
}
figure {
  margin: 0;
  display: flex;
  flex-direction: column;
  align-items: center;
  justify-content: flex-end;
  gap: var(--space-2);
}
figcaption {
  font-weight: 650;
}
.face {
  width: 104px;
}
.pace {
  font-size: calc(2.2 * var(--type-5));
  line-height: 1;
  color: var(--accent);
}
.note {
  margin: 0;
  font-size: var(--type-4);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.edit .row {
  flex-wrap: nowrap;
}
.thumbs {
  position: fixed;
  inset: auto 0 0 0;
  display: flex;
  gap: var(--space-3);
  padding: var(--space-4) var(--space-5) calc(var(--space-4) + env(safe-area-inset-bottom));
  background: var(--page);
  border-top: 1px solid var(--edge);
  justify-content: center;
}
.thumbs .el-button {
  flex: 1;
  max-width: 260px;
  min-height: 52px;
  margin: 0;
}
</style>
