<script setup lang="ts">
import { computed } from 'vue'
import { skillWords } from '../../domain/words'
import { useDraft } from '../../position/draft'
import { useClub, type ClubPlayer } from '../../position/club'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import OwnSkill from './OwnSkill.vue'
import PaceScale from './PaceScale.vue'

/** Who plays: for the reach, the chances and the advice on side. */
const props = defineProps<{ player: ClubPlayer }>()
const club = useClub()
const set = (change: Partial<ClubPlayer>) => club.change('players', props.player.id, change)
const position = useDraft()
const hands = [
  { value: 'right', label: 'right-handed', testId: 'hand-right' },
  { value: 'left', label: 'left-handed', testId: 'hand-left' },
]
const habits = [
  { value: 'plain', label: 'plain unless needed', testId: 'habit-plain' },
  { value: 'helping', label: 'a touch of helping side on cuts', testId: 'habit-helping' },
]
const skills = computed(() => [...position.reference!.skills.map((s) => s.name), 'own'].map((s) => ({ value: s, label: skillWords(s) })))

/** Own figures start from those of the player that was chosen before. */
function choose(skill: string) {
  const before = position.reference!.skills.find((s) => s.name === props.player.skill) ?? position.reference!.skills[0]
  return set({ skill, own: props.player.own ?? (skill === 'own' ? before.parts : null) })
}
</script>

<template>
  <div class="player">
    <div class="row">
      <OneOf :model-value="player.hand" :options="hands" label="Hand" @update:model-value="set({ hand: $event as string })" />
      <label class="row"
        >tall
        <FigureInput
          :model-value="player.height"
          :min="1.2"
          :max="2.2"
          :digits="2"
          label="How tall"
          unit="m"
          width="62px"
          @update:model-value="set({ height: $event })"
      /></label>
      <label class="row" title="How far the butt is above level when nothing is in its way: no cue lies quite level"
        >butt at
        <FigureInput
          :model-value="player.naturalElevation"
          :min="0"
          :max="15"
          :digits="1"
          label="Natural elevation of the butt"
          unit="°"
          width="58px"
          test-id="natural-elevation"
          @update:model-value="set({ naturalElevation: $event })"
      /></label>
    </div>
    <label class="row"
      >Skill: <PickOne :model-value="player.skill" :options="skills" label="Skill" width="180px" test-id="skill" @picked="choose"
    /></label>
    <PaceScale :player="player" />
    <OwnSkill v-if="player.skill === 'own'" :player="player" />
    <OneOf
      :model-value="player.sideHabit"
      :options="habits"
      label="Habit with side"
      @update:model-value="set({ sideHabit: $event as string })"
    />
    <p class="soft">
      Hand and height decide the reach; the butt is how the cue lies when nothing is in its way; skill decides every chance; the habit is
      the side used when you choose a pot from the list.
    </p>
  </div>
</template>

<style scoped>
.player {
  display: flex;
  flex-direction: column;
  gap: var(--space-3);
  align-items: flex-start;
}
p {
  margin: 0;
}
</style>
