<script setup lang="ts">
import { ElButton } from 'element-plus'
import { computed } from 'vue'
import { useClub } from '../../position/club'
import { useDraft } from '../../position/draft'
import { sortedFigures } from '../../position/following'
import ConditionsFields from './ConditionsFields.vue'

/** The conditions of the position that is open, and how they are made the table's and the cue's own. */
const position = useDraft()
const club = useClub()
const errors = computed(() => position.problem?.errors.filter((e) => e.field.startsWith('conditions')) ?? [])
const differs = computed(() => sortedFigures(position.content.conditions) !== sortedFigures(club.conditions))

function takeTheirs() {
  position.content.conditions = { ...club.conditions }
  position.commit()
}
function keepAsTheirs() {
  const isCue = (name: string) => position.reference!.conditions.find((c) => c.name === name)?.group === 'cue'
  const figures = Object.entries(position.content.conditions)
  void club.change('tables', club.ids.tables, { conditions: Object.fromEntries(figures.filter(([name]) => !isCue(name))) })
  void club.change('cues', club.ids.cues, { conditions: Object.fromEntries(figures.filter(([name]) => isCue(name))) })
}
</script>

<template>
  <div>
    <p class="soft">How table, balls and cue behave in this position. The plan updates as you change them.</p>
    <p v-if="differs" class="row">
      They differ from those of {{ club.table?.name }} and {{ club.cue?.name }}.
      <ElButton size="small" data-testid="conditions-theirs" @click="takeTheirs">Use theirs</ElButton>
      <ElButton size="small" data-testid="conditions-keep" @click="keepAsTheirs">Save as theirs</ElButton>
    </p>
    <ConditionsFields v-model="position.content.conditions" :errors="errors" @commit="position.commit()" />
  </div>
</template>
