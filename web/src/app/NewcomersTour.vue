<script setup lang="ts">
import { ElTour, ElTourStep } from 'element-plus'
import { ref } from 'vue'

/** Six steps for who is new; it can be skipped, and called again under Help. */
const emit = defineEmits<{ done: [] }>()
const open = ref(true)
/** A finger has no Esc; the cross skips the rest. */
const hasKeys = !window.matchMedia('(pointer: coarse)').matches
const at = ref(0)
const steps = [
  {
    target: '.plan-frame',
    title: 'The plan',
    text: 'A full-size table, to scale. Drag a ball to where it lies on yours; the cue ball’s path and every contact follow at once.',
  },
  {
    target: '[data-testid=what-is-on]',
    title: 'Read: what is on?',
    text: 'Every pot with your chance of it, what blocks the others, and where to be for the next ball.',
  },
  {
    target: '[data-testid=what-happens]',
    title: 'Shot: how do I play it?',
    text: 'Ball and pocket, tip, pace and butt. See where the white may stop, or choose where it should stop and see the ways to get it there.',
  },
  {
    target: '[data-testid=plan-break]',
    title: 'Break: what next?',
    text: 'Plans several shots ahead, with reasons, what is on if you run long or short, and the alternatives.',
  },
  {
    target: '[data-testid=decide]',
    title: 'Safety: or leave it?',
    text: 'Pots, safeties and escapes on one scale, with what they leave to the other player.',
  },
  {
    target: '[data-testid=settings]',
    title: 'Your own figures',
    text: 'Choose player, table, cue and units. Keys and this tour are under Help.',
  },
]
</script>

<template>
  <ElTour v-model="open" v-model:current="at" :mask="{ color: 'rgb(0 0 0 / 45%)' }" @close="emit('done')" @finish="emit('done')">
    <ElTourStep
      v-for="(s, i) in steps"
      :key="s.title"
      :target="s.target"
      :title="s.title"
      :next-button-props="{ children: i === steps.length - 1 ? 'Done' : 'Next' }"
      :prev-button-props="{ children: 'Back' }"
    >
      {{ s.text }}
    </ElTourStep>
    <template #indicators="{ current, total }"
      ><span class="soft" data-testid="tour">{{ current + 1 }} of {{ total }}{{ hasKeys ? '; Esc skips the rest' : '' }}</span></template
    >
  </ElTour>
</template>
