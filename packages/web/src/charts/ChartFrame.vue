<script setup lang="ts">
/** A chart with what belongs to every one: its heading, the same figures as a table, and the picture to take along. */
import { useEventListener } from '@vueuse/core';
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { saveBlob } from '../saveBlob.ts';
import { useSession } from '../stores/session.ts';
import { coloursOf, type ChartOption, type Colours } from './option.ts';
import { pictureOf } from './picture.ts';

const props = defineProps<{
  /** What the chart shows, in words: its heading, and what a screen reader says. */
  title: string;
  /** In the theme's colours, which change with light, dark and print. */
  option: (colours: Colours) => ChartOption;
  head: readonly string[];
  rows: readonly (readonly string[])[];
  /** Name of the files it is saved as, without an ending. */
  file: string;
}>();
const EChart = defineAsyncComponent(() => import('./EChart.vue'));
const { t } = useI18n();
const session = useSession();
const frame = ref<HTMLElement>();
const drawn = ref<{ svg: () => { text: string; width: number; height: number } }>();
const colours = shallowRef<Colours>();
const look = (): void => {
  if (frame.value) colours.value = coloursOf(frame.value);
};
onMounted(look);
watch(() => session.dark, look, { flush: 'post' });
// On paper it is drawn as in light.
useEventListener(window, 'beforeprint', () => {
  document.documentElement.classList.remove('dark');
  look();
});
useEventListener(window, 'afterprint', () => {
  document.documentElement.classList.toggle('dark', session.dark === 'yes');
  look();
});
const drawing = computed(() => colours.value && props.option(colours.value));

function saveSvg(): void {
  const svg = drawn.value?.svg();
  if (svg) saveBlob(new Blob([svg.text], { type: 'image/svg+xml' }), `${props.file}.svg`);
}
async function savePng(): Promise<void> {
  const svg = drawn.value?.svg();
  if (svg && colours.value) saveBlob(await pictureOf(svg, colours.value.surface), `${props.file}.png`);
}
</script>

<template>
  <figure ref="frame" class="chart" data-test="chart">
    <figcaption>{{ title }}</figcaption>
    <div class="drawn"><EChart v-if="drawing" ref="drawn" :option="drawing" /></div>
    <div class="inline tools">
      <details>
        <summary>{{ t('chart.table') }}</summary>
        <table>
          <thead>
            <tr>
              <th v-for="name in head" :key="name" scope="col">{{ name }}</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(row, index) in rows" :key="index">
              <td v-for="(cell, place) in row" :key="place">{{ cell }}</td>
            </tr>
          </tbody>
        </table>
      </details>
      <button type="button" class="plain" data-test="save-svg" @click="saveSvg">{{ t('chart.saveSvg') }}</button>
      <button type="button" class="plain" data-test="save-png" @click="savePng">{{ t('chart.savePng') }}</button>
    </div>
  </figure>
</template>

<style scoped>
.chart {
  margin: 0;
  min-width: 0;
}
figcaption {
  font-size: 15px;
  font-weight: 700;
  color: var(--ink-soft);
}
.drawn {
  height: var(--chart-height, 260px);
  /* As wide as there is room, never as wide as it was drawn before. */
  contain: inline-size;
  overflow: hidden;
}
.tools {
  align-items: start;
}
details {
  flex: 1;
  min-width: 200px;
}
summary {
  cursor: pointer;
  min-height: 40px;
  display: list-item;
  align-content: center;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 14px;
}
th,
td {
  text-align: start;
  padding: 3px 10px 3px 0;
  border-top: 1px solid var(--line);
}
@media print {
  .tools button {
    display: none;
  }
}
</style>
