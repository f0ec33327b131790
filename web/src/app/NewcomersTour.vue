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
    text: 'Drag a ball to where it lies on your table: every path follows.',
  },
  {
    target: '[data-testid=what-is-on]',
    title: 'Read: what is on?',
    text: 'Every pot, with your chance of it.',
  },
  {
    target: '[data-testid=what-happens]',
    title: 'Shot: how do I play it?',
    text: 'Pocket, tip, pace and butt, where the white stops, and what if.',
  },
  {
    target: '[data-testid=plan-break]',
    title: 'Break: what next?',
    text: 'Plans several shots ahead, with reasons.',
  },
  {
    target: '[data-testid=decide]',
    title: 'Safety: or leave it?',
    text: 'Pots, safeties and escapes on one scale.',
  },
  {
    target: '[data-testid=settings]',
    title: 'Your own figures',
    text: 'Your skill, table and cue make the figures yours.',
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
