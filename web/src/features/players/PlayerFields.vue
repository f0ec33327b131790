<script setup lang="ts">
import FigureInput from '../../ui/FigureInput.vue'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'

/** Who plays: for the reach, the chances and the advice on side. */
const players = usePlayer()
const position = useDraft()
const hands = [
  { hand: 'right', label: 'right-handed' },
  { hand: 'left', label: 'left-handed' },
]
const habits = [
  { habit: 'plain', label: 'plain unless needed' },
  { habit: 'helping', label: 'a touch of helping side on cuts' },
]
</script>

<template>
  <section class="player" aria-label="Player">
    <h3>Player</h3>
    <div class="row">
      <span class="joined" role="group" aria-label="Hand">
        <button v-for="h in hands" :key="h.hand" class="key" :aria-pressed="players.player.hand === h.hand" :data-testid="`hand-${h.hand}`" @click="players.set({ hand: h.hand })">{{ h.label }}</button>
      </span>
      <label>tall <FigureInput :model-value="players.player.height" :min="1.2" :max="2.2" :digits="2" :step="0.01" label="How tall" unit="m" @update:model-value="players.set({ height: $event })" /></label>
    </div>
    <label class="row">strikes like
      <select class="choice" aria-label="Skill" :value="players.player.skill" @change="players.set({ skill: ($event.target as HTMLSelectElement).value })">
        <option v-for="s in position.reference!.skills" :key="s.name" :value="s.name">a {{ s.name }} player</option>
      </select>
    </label>
    <div class="row">
      <span class="joined" role="group" aria-label="Habit with side">
        <button v-for="h in habits" :key="h.habit" class="key" :aria-pressed="players.player.sideHabit === h.habit" :data-testid="`habit-${h.habit}`" @click="players.set({ sideHabit: h.habit })">{{ h.label }}</button>
      </span>
    </div>
    <p class="soft">The hand and the height decide the reach; the skill, every chance; the habit, what a pot chosen from the list is set up with.</p>
  </section>
</template>

<style scoped>
.player {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin-bottom: 18px;
}
h3 {
  margin: 0;
  font-size: 1rem;
}
.row,
label {
  display: flex;
  flex-wrap: wrap;
  gap: 6px 10px;
  align-items: center;
}
p {
  margin: 0;
}
</style>
