<script setup lang="ts">
import { computed } from 'vue'
import { nameOf } from '../../domain/balls'
import { useDraft } from '../../position/draft'
import { useMap } from './map'
import { qualityWords } from '../break/planWords'

/** For which ball the map is, and what the place under the pointer is worth. */
const position = useDraft()
const map = useMap()
const balls = computed(() => position.content.balls.map((b) => b.id).filter((id) => id !== 'white' && id !== position.stroke.pot?.ball))
</script>

<template>
  <div class="map-bar" data-testid="map-bar">
    <label
      >Where to be for
      <select v-model="map.target" class="choice" aria-label="Where to be for" data-testid="map-target">
        <option value="after">what is on after this pot</option>
        <option value="on">what is on now</option>
        <option value="red">any red</option>
        <option value="colour">any colour</option>
        <option v-for="id in balls" :key="id" :value="id">the {{ nameOf(id) }}</option>
      </select></label
    >
    <span v-if="map.problem" class="field-error" role="alert">{{ map.problem.message }} {{ map.problem.errors[0] ? `Allowed: ${map.problem.errors[0].allowed}.` : '' }}</span>
    <span v-else-if="map.map && !map.map.best" class="soft">Nothing can be potted from anywhere: play safe, or open the balls first.</span>
    <span v-else-if="map.quality" data-testid="map-reasons">{{ qualityWords(map.quality) }}</span>
    <span v-else class="soft">Steps of a tenth of the best place’s worth, from a half up. Point at a place to see why.</span>
  </div>
</template>

<style scoped>
.map-bar {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 10px;
  align-items: center;
  font-size: 0.92rem;
  min-height: 31px;
}
</style>
