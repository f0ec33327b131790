<script setup lang="ts">
import { ElTable, ElTableColumn } from 'element-plus'
import { computed } from 'vue'
import { nameOf, pocketName } from '../../domain/balls'
import { whereWords } from '../../domain/words'
import { shareWords } from '../../lib/estimates'
import { ownPace, paceWords, sentence } from '../../lib/formats'
import { useDraft } from '../../position/draft'
import LineButton from '../../ui/LineButton.vue'
import { lineWhiteWords } from './fanWords'
import { useWhatIf } from './whatIf'

/** The stroke at each pace: how likely the pot is, where the white stops and the ball that it meets. */
const whatIf = useWhatIf()
const position = useDraft()
const rows = computed(() =>
  (whatIf.paces?.rows ?? []).map(({ line, chance }) => ({
    pace: line.pace,
    key: line.key,
    chance: chance ? shareWords(chance) : '',
    white: lineWhiteWords(line.end),
    ball: line.end.ballPocket
      ? `${pocketName(line.end.ballPocket)} pocket`
      : line.end.ballRests
        ? whereWords(line.end.ballRests)
        : line.end.first
          ? 'off the table'
          : '–',
    first: line.end.first,
    isBack: line.end.comesBack,
  })),
)
const ball = computed(() => {
  const met = [...new Set(rows.value.map((r) => r.first))]
  return met.length === 1 && met[0] ? sentence(nameOf(met[0])) : 'Ball met'
})
</script>

<template>
  <p v-if="!whatIf.paces && !whatIf.refusal" class="soft" role="status">Simulating …</p>
  <template v-else-if="whatIf.paces">
    <p v-if="whatIf.paces.backFrom !== null" data-testid="back-from">
      It comes back from <strong>{{ paceWords(whatIf.paces.backFrom) }}</strong> on; softer it does not.
    </p>
    <p v-else-if="rows.length" class="soft">
      {{ rows[0].isBack ? 'It comes back at every pace here.' : 'It comes back at no pace here.' }}
    </p>
    <ElTable :data="rows" row-key="key" size="small" :class="{ stale: whatIf.arePacesStale }" data-testid="pace-table">
      <ElTableColumn label="Pace" width="64">
        <template #default="{ row }"
          ><LineButton title="Set it up so" @click="whatIf.turn('pace', row.pace)">{{ ownPace(row.pace) }}</LineButton></template
        >
      </ElTableColumn>
      <ElTableColumn v-if="position.stroke.pot" prop="chance" label="Pot" width="66" class-name="figure" />
      <ElTableColumn label="The white" min-width="150"
        ><template #default="{ row }">{{ sentence(row.white) }}</template></ElTableColumn
      >
      <ElTableColumn :label="ball" min-width="110"
        ><template #default="{ row }">{{ sentence(row.ball) }}</template></ElTableColumn
      >
    </ElTable>
  </template>
</template>
