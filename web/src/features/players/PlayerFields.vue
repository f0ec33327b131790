<script setup lang="ts">
import { computed } from 'vue'
import { skillWords } from '../../domain/words'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import FigureInput from '../../ui/FigureInput.vue'
import OneOf from '../../ui/OneOf.vue'
import PickOne from '../../ui/PickOne.vue'
import OwnSkill from './OwnSkill.vue'

/** Who plays: for the reach, the chances and the advice on side. */
const players = usePlayer()
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
  const before = position.reference!.skills.find((s) => s.name === players.player.skill) ?? position.reference!.skills[0]
  return players.set({ skill, own: players.player.own ?? (skill === 'own' ? before.parts : null) })
}
</script>

<template>
  <div class="player">
    <h2>Player</h2>
    <div class="row">
      <OneOf
        :model-value="players.player.hand"
        :options="hands"
        label="Hand"
        @update:model-value="players.set({ hand: $event as string })"
      />
      <label class="row"
        >tall
        <FigureInput
          :model-value="players.player.height"
          :min="1.2"
          :max="2.2"
          :digits="2"
          label="How tall"
          unit="m"
          width="62px"
          @update:model-value="players.set({ height: $event })"
      /></label>
      <label class="row" title="Of the butt above level where nothing asks for more: no cue lies level"
        >butt at
        <FigureInput
          :model-value="players.player.naturalElevation"
          :min="0"
          :max="15"
          :digits="1"
          label="Natural elevation of the butt"
          unit="°"
          width="58px"
          test-id="natural-elevation"
          @update:model-value="players.set({ naturalElevation: $event })"
      /></label>
    </div>
    <label class="row"
      >strikes like
      <PickOne :model-value="players.player.skill" :options="skills" label="Skill" width="180px" test-id="skill" @picked="choose"
    /></label>
    <OwnSkill v-if="players.player.skill === 'own'" />
    <OneOf
      :model-value="players.player.sideHabit"
      :options="habits"
      label="Habit with side"
      @update:model-value="players.set({ sideHabit: $event as string })"
    />
    <p class="soft">
      The hand and the height decide the reach; the butt, how the cue lies where nothing asks for more; the skill, every chance; the habit,
      what a pot chosen from the list is set up with.
    </p>
  </div>
</template>

<style scoped>
.player {
  display: flex;
  flex-direction: column;
  gap: 10px;
  align-items: flex-start;
}
p {
  margin: 0;
}
</style>
