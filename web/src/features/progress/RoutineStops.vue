<script setup lang="ts">
import { computed, ref, shallowRef, watch } from 'vue'
import { ask, client, Problem, type Schemas } from '../../api/client'
import { onSide } from '../../domain/mirror'
import { lengthWords } from '../../lib/formats'
import { useClub } from '../../position/club'
import { useClubTable } from '../../position/clubTable'
import { useDraft } from '../../position/draft'
import { usePlayer } from '../../position/player'
import { provideDrawing } from '../../table/bed'
import CountPlan from '../../table/CountPlan.vue'
import PickOne from '../../ui/PickOne.vue'

/** Where the white stopped in a routine's attempts, beside what the player's skill would make of it. */
const props = defineProps<{ stops: Schemas['StopsResult'][]; labels: readonly string[]; routine: string }>()
const position = useDraft()
const players = usePlayer()
const club = useClub()
provideDrawing(computed(() => position.reference!))
const table = useClubTable()
const chosen = ref(0)
watch(
  () => props.routine,
  () => (chosen.value = 0),
)
const options = computed(() =>
  props.stops.map((s, i) => ({ value: i, label: `${props.labels[s.step] || `step ${s.step + 1}`}${s.mirrored ? ', other side' : ''}` })),
)
const stop = computed(() => props.stops[Math.min(chosen.value, props.stops.length - 1)])
const known = shallowRef<Schemas['Routine'] | null>(null)
const outlook = shallowRef<Schemas['StepOutlook'] | null>(null)
watch(
  [() => props.routine, chosen, () => JSON.stringify(players.player)],
  async ([id]) => {
    outlook.value = null
    try {
      known.value = (await ask(client.GET('/api/routines/{id}', { params: { path: { id } } }))).routine
      const step = known.value.steps[stop.value.step]
      // The same on either side: worked out as laid, and turned over for the drawing.
      const body = { steps: [step], player: players.player, conditions: club.conditions }
      const [answer] = await ask(client.POST('/api/routines/outlook', { body }))
      if (props.routine === id) outlook.value = answer
    } catch (e) {
      if (!(e instanceof Problem)) throw e
      known.value = null
    }
  },
  { immediate: true },
)
const turn = (p: { x: number; y: number }) => (stop.value.mirrored ? { ...p, y: position.reference!.width - p.y } : p)
const step = computed(() => {
  const as = known.value?.steps[stop.value.step]
  return as && onSide(as, stop.value.mirrored, position.reference)
})
const areas = computed(() =>
  (step.value?.demands ?? []).flatMap((d, i) => (d.kind === 'whiteIn' && d.area ? [{ ...d.area, key: String(i) }] : [])),
)
const trials = computed(() =>
  stop.value.places.map((p, i) => ({ ...p, key: String(i), number: i + 1, isDone: true, isStrong: false, group: '' })),
)
const outlines = computed(() => (outlook.value?.likely ?? []).map((o) => o.map(turn)))
</script>

<template>
  <div>
    <h2>Where the white stopped</h2>
    <PickOne v-if="options.length > 1" v-model="chosen" :options="options" label="Step" width="240px" />
    <CountPlan
      :balls="step?.balls ?? []"
      :table="table"
      :areas="areas"
      :trials="trials"
      :ellipse="stop.ellipse"
      :outlines="outlines"
      is-close
    />
    <p>
      {{ stop.of }} places<template v-if="stop.along !== null && stop.across !== null"
        >: ± {{ lengthWords(stop.along) }} along the table, ± {{ lengthWords(stop.across) }} across; the ring holds two in three</template
      ><template v-if="outlook?.along != null"
        >. By the skill alone it would be ± {{ lengthWords(outlook.along) }} and ± {{ lengthWords(outlook.across!) }}, the dotted
        outline</template
      >.
    </p>
  </div>
</template>

<style scoped>
p {
  margin: var(--space-2) 0;
}
</style>
