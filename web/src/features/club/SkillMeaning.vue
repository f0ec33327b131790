<script setup lang="ts">
import { useDraft } from '../../position/draft'
import type { ClubPlayer } from '../../position/club'
import HandbookLink from '../../ui/HandbookLink.vue'
import SkillChart from './SkillChart.vue'
import SkillPicture from './SkillPicture.vue'
import { useSkill } from './skills'

/** What a player's skill means at the table. */
const props = defineProps<{ player: ClubPlayer }>()
const position = useDraft()
const { pictures, curves, pictureRefusal, curveRefusal, isBusy } = useSkill(() => props.player)
</script>

<template>
  <div class="meaning" data-testid="skill-meaning" :aria-busy="isBusy">
    <h2>What this means at the table <HandbookLink of="skill" what="a skill" /></h2>
    <p v-if="pictureRefusal || curveRefusal" class="field-error" role="alert">Not drawn: {{ pictureRefusal || curveRefusal }}</p>
    <div class="pictures">
      <SkillPicture v-for="p in pictures" :key="p.kind" :shot="p" :reference="position.reference!" />
    </div>
    <p v-if="!curves.length && !curveRefusal" class="soft" role="status">Simulating about 50,000 strokes …</p>
    <div class="charts">
      <SkillChart v-for="c in curves" :key="c.kind" :curve="c" />
    </div>
  </div>
</template>

<style scoped>
.meaning {
  display: flex;
  flex-direction: column;
  gap: var(--space-4);
}
.pictures,
.charts {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(min(230px, 100%), 1fr));
  gap: var(--space-4);
}
h2,
p {
  margin: 0;
}
</style>
