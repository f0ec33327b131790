<script setup lang="ts">
import { ElButton, ElCheckbox } from 'element-plus'
import { computed } from 'vue'
import { nameOf } from '../../domain/balls'
import { problemWords } from '../../lib/problemWords'
import { useDraft } from '../../position/draft'
import PickOne from '../../ui/PickOne.vue'
import HandbookLink from '../../ui/HandbookLink.vue'
import { useMap } from './map'
import { qualityWords } from './words'

/** Where to be for the next ball: for which one the map is, and what the place under the pointer is worth. */
const position = useDraft()
const map = useMap()
const targets = computed(() => [
  { value: 'after', label: 'what is on after this pot' },
  { value: 'on', label: 'what is on now' },
  { value: 'red', label: 'any red' },
  { value: 'colour', label: 'any colour' },
  ...position.content.balls
    .filter((b) => b.id !== 'white' && b.id !== position.stroke.pot?.ball)
    .map((b) => ({ value: b.id, label: `the ${nameOf(b.id)}` })),
])
</script>

<template>
  <div class="panel" data-testid="map-bar">
    <div class="row">
      <ElCheckbox v-model="map.isOpen" data-testid="where-to-be">Map: where to be for</ElCheckbox>
      <PickOne
        v-model="map.target"
        :options="targets"
        label="Where to be for"
        test-id="map-target"
        width="210px"
        @picked="map.isOpen = true"
      /><HandbookLink of="map" what="the map" />
    </div>
    <template v-if="map.isOpen">
      <p v-if="map.problem" class="field-error" role="alert">{{ problemWords(map.problem) }}</p>
      <p v-else-if="map.map && !map.map.best" class="soft">Nothing can be potted from anywhere. Play safe, or open the balls first.</p>
      <p v-else-if="map.quality" data-testid="map-reasons" role="status">{{ qualityWords(map.quality) }}</p>
      <p v-else class="soft">Contours are tenths of the best place’s value, down to half. Point at a place on the plan to see why.</p>
      <div v-if="map.map?.best && position.stroke.pot && map.target !== 'on'" class="row">
        <ElButton v-if="map.place" size="small" type="primary" data-testid="ways-there" @click="map.waysTo(map.place)"
          >Ways to be there</ElButton
        >
        <ElButton size="small" data-testid="ways-best" @click="map.waysTo(map.map.best)">Ways to the best place</ElButton>
      </div>
    </template>
  </div>
</template>
