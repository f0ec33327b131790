<script setup lang="ts">
import { computed } from 'vue'
import type { Schemas } from '../../api/client'
import { useDraft } from '../../position/draft'
import { useClub, type ClubPlayer } from '../../position/club'
import FigureInput from '../../ui/FigureInput.vue'
import LineButton from '../../ui/LineButton.vue'
import { partNames } from './words'

/** The parts of the player's error, each set by hand. */
const props = defineProps<{ player: ClubPlayer }>()
const club = useClub()
const position = useDraft()
const own = computed(() => props.player.own)
const parts = computed(() =>
  position.reference!.skillParts.map((p) => ({
    ...p,
    ...partNames[p.name as keyof typeof partNames],
    key: p.name as keyof typeof partNames,
  })),
)
const set = (key: keyof Schemas['SkillEntry'], value: number) =>
  club.change('players', props.player.id, { own: { ...own.value!, [key]: value } })
</script>

<template>
  <div v-if="own" class="own" data-testid="own-skill">
    <label v-for="p in parts" :key="p.name">
      <span>{{ p.name }}</span>
      <FigureInput
        :model-value="own[p.key] ?? 0"
        :min="p.min"
        :max="p.max"
        :digits="p.digits"
        :label="p.name"
        :unit="p.unit"
        width="78px"
        :test-id="`own-${p.key}`"
        @update:model-value="set(p.key, $event)"
      />
      <span class="soft">{{ p.hint }}</span>
    </label>
    <p class="soft">
      Standard deviations of an ordinary stroke. Start again from
      <template v-for="(s, i) in position.reference!.skills" :key="s.name"
        >{{ i ? ', ' : ''
        }}<LineButton @click="club.change('players', props.player.id, { own: s.parts })">{{ s.name }}</LineButton></template
      >.
    </p>
  </div>
</template>

<style scoped>
.own {
  display: flex;
  flex-direction: column;
  gap: var(--space-2);
}
label {
  display: grid;
  grid-template-columns: 84px 112px 1fr;
  gap: var(--space-3);
  align-items: center;
}
p {
  margin: var(--space-2) 0 0;
}
</style>
