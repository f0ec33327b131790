<script setup lang="ts">
import { BarChart, LineChart, ScatterChart } from 'echarts/charts'
import { GridComponent, MarkLineComponent, TooltipComponent } from 'echarts/components'
import { use } from 'echarts/core'
import { SVGRenderer } from 'echarts/renderers'
import type { ComposeOption } from 'echarts/core'
import type { BarSeriesOption, LineSeriesOption, ScatterSeriesOption } from 'echarts/charts'
import type { GridComponentOption, TooltipComponentOption } from 'echarts/components'
import { computed } from 'vue'
import VChart from 'vue-echarts'
import { useChartInk } from './chartInk'

use([BarChart, LineChart, ScatterChart, GridComponent, MarkLineComponent, TooltipComponent, SVGRenderer])

/** A chart in our dress: its series and axes are given, the rest is the same for all. The table beside it says the same in figures. */
type Option = ComposeOption<BarSeriesOption | LineSeriesOption | ScatterSeriesOption | GridComponentOption | TooltipComponentOption>
const props = defineProps<{ option: Option; label: string; height?: string }>()
const emit = defineEmits<{ picked: [index: number] }>()
const ink = useChartInk()
const withDress = (axis: object | undefined) => ({
  axisLine: { lineStyle: { color: ink.value.edge } },
  splitLine: { lineStyle: { color: ink.value.edge } },
  ...(axis ?? {}),
  axisLabel: { color: ink.value.text, ...((axis as { axisLabel?: object })?.axisLabel ?? {}) },
  nameTextStyle: { color: ink.value.text },
})
const dressed = computed(() => ({
  animation: false,
  textStyle: { fontFamily: "'Source Sans 3 Variable', 'Source Sans 3', sans-serif" },
  grid: { left: 48, right: 14, top: 24, bottom: 34 },
  ...props.option,
  tooltip: {
    trigger: 'item',
    // Styles of its own would be kept out; what is pointed at is said in the line beneath.
    show: false,
  },
  xAxis: withDress(props.option.xAxis as object),
  yAxis: withDress(props.option.yAxis as object),
}))
</script>

<template>
  <VChart
    class="chart"
    :style="{ height: height ?? '220px' }"
    :option="dressed"
    :init-options="{ renderer: 'svg' }"
    autoresize
    role="img"
    :aria-label="label"
    @mouseover="(e: { dataIndex: number }) => emit('picked', e.dataIndex)"
    @click="(e: { dataIndex: number }) => emit('picked', e.dataIndex)"
  />
</template>

<style scoped>
.chart {
  width: 100%;
}
</style>
