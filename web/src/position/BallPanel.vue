<script setup lang="ts">
import { computed } from 'vue'
import { Problem } from '../api/client'
import { isRed, lookOf, nameOf } from '../domain/balls'
import { useNotices } from '../lib/notices'
import { useDraft } from './draft'
import FigureInput from '../ui/FigureInput.vue'

/** The ball in hand: where it is, where it goes; and which balls are on the table at all. */
const position = useDraft()
const notices = useNotices()
const ball = computed(() => position.ball(position.selected))
const spot = computed(() => position.reference!.spots.find((s) => s.ball === position.selected))
const reds = computed(() => position.content.balls.filter((b) => isRed(b.id)).length)
const missing = computed(() => position.reference!.ballIds.filter((id) => !isRed(id) && !position.ball(id)))
const r = computed(() => position.reference!.ballRadius * 1000)

/** Runs an edit that the core may refuse, or may do a little differently. */
async function tell(edit: Promise<boolean | void>, name = '') {
  try {
    if (await edit) notices.show({ kind: 'info', text: `Something is in the way: the ${name} is at the nearest free place.` })
  } catch (e) {
    if (e instanceof Problem) notices.show({ kind: 'error', text: e.message, detail: e.detail })
    else throw e
  }
}

const put = (id: string, x: number, y: number) => tell(position.put(id, x, y), nameOf(id))
const onSpot = (id: string) => {
  const spot = position.reference!.spots.find((s) => s.ball === id)!
  void put(id, spot.x, spot.y)
}
</script>

<template>
  <section class="panel" aria-labelledby="read-title">
    <h2 id="read-title">Read</h2>
    <div v-if="ball" class="row">
      <span class="chip" :style="{ background: lookOf(ball.id).fill, color: lookOf(ball.id).ink }" data-testid="selected">{{ nameOf(ball.id) }}</span>
      <label>up <FigureInput :model-value="ball.x * 1000" :min="-20" :max="3600" :digits="1" label="Distance up the table, mm" :allowed="`${r} to ${(position.reference!.length * 1000 - r).toFixed(1)} mm`" @update:model-value="put(ball.id, $event / 1000, ball.y)" /></label>
      <label>across <FigureInput :model-value="ball.y * 1000" :min="-20" :max="1800" :digits="1" label="Distance across from the yellow's side" unit="mm" :allowed="`${r} to ${(position.reference!.width * 1000 - r).toFixed(1)} mm`" @update:model-value="put(ball.id, ball.x, $event / 1000)" /></label>
    </div>
    <div class="row">
      <button v-if="position.selected === 'white'" class="key" @click="tell(position.put('white', 0.707, 0.749, true).then(() => {}))">Place in the D</button>
      <button v-if="spot" class="key" data-testid="spot" @click="onSpot(position.selected)">On its spot</button>
      <button v-if="position.selected !== 'white'" class="key" @click="position.remove(position.selected)">Remove</button>
      <button class="key" :disabled="reds >= 15" data-testid="add-red" @click="tell(position.addRed())">Add a red <span class="soft">({{ reds }} of 15)</span></button>
      <button v-for="id in missing" :key="id" class="key small" :style="{ background: lookOf(id).fill, color: lookOf(id).ink }" :title="`Put the ${id} on its spot`" :aria-label="`Put the ${id} on its spot`" @click="onSpot(id)">+{{ lookOf(id).mark }}</button>
    </div>
  </section>
</template>

<style scoped>
.chip {
  padding: 4px 10px;
  border-radius: 999px;
  font-weight: 650;
  min-width: 58px;
  text-align: center;
  border: 1px solid var(--edge);
}
label {
  display: inline-flex;
  gap: 5px;
  align-items: center;
  font-size: 0.92rem;
}
.small {
  padding: 0 7px;
}
.row :deep(.figure-input) {
  width: 70px;
}
</style>
