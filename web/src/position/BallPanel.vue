<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed, ref } from 'vue'
import { Problem } from '../api/client'
import { isRed, lookOf, nameOf } from '../domain/balls'
import { useNotices } from '../lib/notices'
import { detailOf, titleOf } from '../lib/problemWords'
import LengthInput from '../ui/LengthInput.vue'
import PickOne from '../ui/PickOne.vue'
import { useDraft } from './draft'
import { useLaying } from './laying'

/** The ball in hand: where it is, where it goes; and which balls are on the table at all. */
const position = useDraft()
const notices = useNotices()
const laying = useLaying()
const ball = computed(() => position.ball(position.selected))
const spot = computed(() => position.reference!.spots.find((s) => s.ball === position.selected))
const reds = computed(() => position.content.balls.filter((b) => isRed(b.id)).length)
const missing = computed(() => position.reference!.ballIds.filter((id) => !isRed(id) && !position.ball(id)))
const r = computed(() => position.reference!.ballRadius)
/** How far beyond the bed a place may be typed: a ball may stand in a pocket's mouth. */
const beyond = 0.02

/** Runs an edit that the core may refuse, or may do a little differently. */
async function tell(edit: Promise<boolean | void>, name = '') {
  try {
    if (await edit) notices.show({ kind: 'info', text: `The spot is taken: the ${name} is at the nearest free place.` })
  } catch (e) {
    if (e instanceof Problem) notices.show({ kind: 'error', text: titleOf(e), detail: detailOf(e) })
    else throw e
  }
}

const put = (id: string, x: number, y: number) => tell(position.put(id, x, y), nameOf(id))
const spots = computed(() => [
  { value: '', label: 'On a spot …' },
  ...position.reference!.spots.map((s) => ({ value: s.ball, label: `the ${s.ball}’s spot` })),
])
/** The list offers again once a ball has been put. */
const spotPicked = ref('')
function toSpot(of: string) {
  spotPicked.value = ''
  const at = position.reference!.spots.find((s) => s.ball === of)
  if (at) void put(position.selected, at.x, at.y)
}
const onSpot = (id: string) => {
  const spot = position.reference!.spots.find((s) => s.ball === id)!
  void put(id, spot.x, spot.y)
}
</script>

<template>
  <section class="panel" aria-labelledby="ball-title">
    <h2 id="ball-title">
      Ball in hand
      <span v-if="ball" class="chip" :style="{ background: lookOf(ball.id).fill, color: lookOf(ball.id).ink }" data-testid="selected">{{
        nameOf(ball.id)
      }}</span>
    </h2>
    <div v-if="ball" class="row">
      <label class="row"
        >up
        <LengthInput
          :model-value="ball.x"
          :min="-beyond"
          :max="position.reference!.length + beyond"
          :digits="1"
          label="Distance up the table"
          :allowed-from="r"
          :allowed-to="position.reference!.length - r"
          width="78px"
          @update:model-value="put(ball.id, $event, ball.y)"
      /></label>
      <label class="row"
        >across
        <LengthInput
          :model-value="ball.y"
          :min="-beyond"
          :max="position.reference!.width + beyond"
          :digits="1"
          label="Distance across from the yellow's side"
          :allowed-from="r"
          :allowed-to="position.reference!.width - r"
          width="78px"
          @update:model-value="put(ball.id, ball.x, $event)"
      /></label>
    </div>
    <div class="row">
      <ElButton v-if="position.selected === 'white'" @click="tell(position.put('white', 0.707, 0.749, true).then(() => {}))"
        >Place in the D</ElButton
      >
      <ElButton v-if="spot" data-testid="spot" @click="onSpot(position.selected)">On its spot</ElButton>
      <ElButton data-testid="on-cushion" @click="laying.arrangeOne(position.selected, 'cushion')">On the cushion</ElButton>
      <ElButton :disabled="position.content.balls.length < 2" data-testid="touching" @click="laying.arrangeOne(position.selected, 'touch')"
        >Touching</ElButton
      >
      <PickOne v-model="spotPicked" :options="spots" label="On a spot" test-id="on-a-spot" width="128px" @picked="toSpot" />
      <ElButton v-if="position.selected !== 'white'" @click="position.remove(position.selected)">Remove</ElButton>
      <ElButton :disabled="reds >= 15" data-testid="add-red" @click="tell(position.addRed())"
        >Add a red <span class="soft">&nbsp;({{ reds }} of 15)</span></ElButton
      >
      <ElButton
        v-for="id in missing"
        :key="id"
        circle
        :style="{ background: lookOf(id).fill, color: lookOf(id).ink }"
        :title="`Put the ${id} on its spot`"
        :aria-label="`+${lookOf(id).mark}: put the ${id} on its spot`"
        @click="onSpot(id)"
        >+{{ lookOf(id).mark }}</ElButton
      >
    </div>
  </section>
</template>

<style scoped>
.chip {
  padding: var(--space-1) var(--space-3);
  border-radius: 999px;
  font-weight: 650;
  border: 1px solid var(--edge);
  margin-left: var(--space-2);
}
</style>
