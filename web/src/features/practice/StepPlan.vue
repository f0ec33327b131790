<script setup lang="ts">
import { computed } from 'vue'
import { useClubTable } from '../../position/clubTable'
import { useDraft } from '../../position/draft'
import { provideDrawing } from '../../table/bed'
import CountPlan, { type Trial } from '../../table/CountPlan.vue'
import type { Step } from './routines'

/** A step of a routine on the plan: layout, areas, the pot, where attempts ended. */
const props = defineProps<{
  step: Step
  way?: readonly { x: number; y: number }[]
  outlines?: readonly (readonly { x: number; y: number }[])[]
  ellipse?: { centre: { x: number; y: number }; longer: number; shorter: number; degrees: number } | null
  trials?: readonly Trial[]
  white?: { x: number; y: number } | null
  ball?: { x: number; y: number } | null
  isClose?: boolean
  canPoint?: boolean
  /** Places that are marked beside the areas. */
  rings?: readonly { key: string; x: number; y: number; radius: number }[]
}>()
defineEmits<{ point: [at: { x: number; y: number }, done: boolean] }>()
const position = useDraft()
provideDrawing(computed(() => position.reference!))
const table = useClubTable()

const areas = computed(() => [
  ...props.step.demands.flatMap((d, i) =>
    d.area ? [{ ...d.area, key: String(i), label: d.kind === 'ballIn' ? 'the ball' : 'the white' }] : [],
  ),
  ...(props.rings ?? []),
])
const potLine = computed(() => {
  const pot = props.step.stroke?.pot
  const from = pot && props.step.balls.find((b) => b.id === pot.ball)
  const to = pot && table.value?.pockets.find((p) => p.name === pot.pocket)?.drop
  return from && to && !pot.off && !pot.through ? [from, to] : null
})
</script>

<template>
  <CountPlan
    :balls="step.balls"
    :table="table"
    :areas="areas"
    :way="way"
    :pot-line="potLine"
    :outlines="outlines"
    :ellipse="ellipse"
    :trials="trials"
    :white="white"
    :ball="ball"
    :is-close="isClose"
    :can-point="canPoint"
    @point="(at, done) => $emit('point', at, done)"
  />
</template>
