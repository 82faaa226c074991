<script setup lang="ts">
/** ECharts with only the parts that are used; loaded when the first chart is looked at. */
import { BarChart, HeatmapChart, LineChart } from 'echarts/charts';
import {
  AriaComponent,
  DataZoomInsideComponent,
  DataZoomSliderComponent,
  GridComponent,
  LegendComponent,
  MarkAreaComponent,
  MarkLineComponent,
  TooltipComponent,
  VisualMapContinuousComponent,
} from 'echarts/components';
import { use } from 'echarts/core';
import { SVGRenderer } from 'echarts/renderers';
import { ref } from 'vue';
import VChart from 'vue-echarts';
import type { ChartOption } from './option.ts';

use([
  AriaComponent,
  BarChart,
  HeatmapChart,
  VisualMapContinuousComponent,
  DataZoomInsideComponent,
  DataZoomSliderComponent,
  GridComponent,
  LegendComponent,
  LineChart,
  MarkAreaComponent,
  MarkLineComponent,
  SVGRenderer,
  TooltipComponent,
]);

defineProps<{ option: ChartOption }>();
const chart = ref<InstanceType<typeof VChart>>();

/** The chart as it stands, as an SVG document with its size in pixels. */
function svg(): { text: string; width: number; height: number } {
  const one = chart.value;
  const text = one?.chart?.renderToSVGString() ?? '';
  return { text, width: one?.chart?.getWidth() ?? 0, height: one?.chart?.getHeight() ?? 0 };
}
defineExpose({ svg });
</script>

<template>
  <VChart ref="chart" :option="option" :update-options="{ notMerge: true }" autoresize />
</template>
