<script setup lang="ts">
import { ElTable, ElTableColumn } from 'element-plus'
import { nameOf } from '../../domain/balls'
import { potWords } from '../../domain/words'
import { amountWords, shareWords } from '../../lib/estimates'
import { percentWords, sentence } from '../../lib/formats'
import { usePlans } from './plans'
import { lacksWords, planStrokeWords, worthLabels, worthWords, type Alternative } from './words'

/** The first shots beside one another, and what each lacks. */
const plans = usePlans()
</script>

<template>
  <ElTable :data="plans.answer!.alternatives" size="small" data-testid="alternatives">
    <ElTableColumn label="First shot" min-width="126">
      <template #default="{ row }">{{ sentence(potWords(row.choice)) }}: {{ planStrokeWords((row as Alternative).choice, null) }}</template>
    </ElTableColumn>
    <ElTableColumn label="Goes in" width="60" align="right"
      ><template #default="{ row }">{{ shareWords(row.choice.chance) }}</template></ElTableColumn
    >
    <ElTableColumn :label="worthLabels[plans.unit]" width="72" align="right"
      ><template #default="{ row }"
        >{{ worthWords((row as Alternative).value, plans.unit)
        }}<span v-if="plans.unit !== 'points'" class="soft beside-points"
          >{{ amountWords((row as Alternative).points, 0) }} pts</span
        ></template
      ></ElTableColumn
    >
    <ElTableColumn label="Leaves" width="76"
      ><template #default="{ row }">{{
        row.choice.next.ball ? `${nameOf(row.choice.next.ball)}, ${percentWords(row.choice.next.chance)}` : 'nothing'
      }}</template></ElTableColumn
    >
    <ElTableColumn label="Why it ranks so" min-width="116"
      ><template #default="{ row }">{{
        lacksWords(row as Alternative, plans.answer!.alternatives[0], plans.unit)
      }}</template></ElTableColumn
    >
  </ElTable>
</template>

<style scoped>
.beside-points {
  display: block;
}
</style>
