<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { useDraft } from '../../position/draft'
import LineButton from '../../ui/LineButton.vue'
import { useRally } from './rally'
import { rallyWords } from './words'

/** Play the rally on: the stroke that is set up is played, and the table is looked at anew, by the other player. */
const position = useDraft()
const rally = useRally()
const pot = computed(() => position.stroke.pot)
</script>

<template>
  <div class="rally" data-testid="rally">
    <div class="row">
      <span class="soft">Play it on:</span>
      <ElButton size="small" type="primary" :disabled="rally.isPlaying" data-testid="as-played" @click="rally.playOn('as played')"
        >As played</ElButton
      >
      <template v-if="pot">
        <ElButton
          v-if="position.stroke.free"
          size="small"
          :disabled="rally.isPlaying"
          data-testid="rally-potted"
          @click="rally.playOn('potted')"
          >Potted</ElButton
        >
        <ElButton size="small" :disabled="rally.isPlaying" data-testid="rally-thick" @click="rally.playOn('thick')">Missed thick</ElButton>
        <ElButton size="small" :disabled="rally.isPlaying" data-testid="rally-thin" @click="rally.playOn('thin')">Missed thin</ElButton>
      </template>
    </div>
    <template v-if="rally.strokes.length">
      <p class="row soft">
        <span data-testid="rally-turn">{{
          rally.isTheirTurn ? 'The other player is at the table; the advice is for them.' : 'You are at the table.'
        }}</span>
        <ElButton size="small" data-testid="end-rally" @click="rally.clear()">End the rally</ElButton>
      </p>
      <ol aria-label="The rally so far">
        <li v-for="(s, i) in rally.strokes" :key="i" data-testid="rally-stroke">
          <LineButton :title="`Back to the table before stroke ${i + 1}`" @click="rally.backTo(i)"
            ><span class="figure soft">{{ i + 1 }}</span> {{ rallyWords(s, rally.asker) }}</LineButton
          >
        </li>
      </ol>
    </template>
  </div>
</template>

<style scoped>
.rally {
  border-top: 1px solid var(--edge);
  padding-top: var(--space-3);
}
.rally ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.rally p {
  margin: var(--space-2) 0;
}
</style>
