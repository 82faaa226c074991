<script setup lang="ts">
/** Temperature pictures around power-on: what warms, how fast, and where. Pictures stay in this browser. */
import { findingSentence, instrumentWords, problemSentence, words as contractWords } from '@veglia/contract';
import { formatQuantity, InputRefused, parseFrame, parseQuantity, thermalReport, type Frame, type Report, type Warmth } from '@veglia/core';
import { wrap, type Remote } from 'comlink';
import { computed, defineAsyncComponent, markRaw, onUnmounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import type { ChartOption, Colours } from '../../charts/option.ts';
import { warmthOption } from '../../charts/warmth.ts';
import type { Thermal } from '../../workers/thermal.worker.ts';

defineSlots<{ done(got: { report: Report; read: Readonly<Record<string, string>> }): unknown }>();
const { t } = useI18n();
const words = instrumentWords.en;
const ChartFrame = defineAsyncComponent(() => import('../../charts/ChartFrame.vue'));

interface Picture {
  readonly name: string;
  readonly frame: Frame;
  seconds: string;
}
const pictures = ref<Picture[]>([]);
const refusal = ref('');
const warmth = shallowRef<Warmth>();
const report = computed(() => warmth.value && thermalReport(warmth.value));
const read = computed(() =>
  Object.fromEntries(pictures.value.map(({ name, seconds }, index) => [`picture${index + 1}`, `${seconds} s: ${name}`])),
);

let worker: Worker | undefined;
let remote: Remote<Thermal> | undefined;
function comparer(): Remote<Thermal> {
  worker ??= new Worker(new URL('../../workers/thermal.worker.ts', import.meta.url), { type: 'module' });
  return (remote ??= wrap<Thermal>(worker));
}
onUnmounted(() => worker?.terminate());

async function add(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  refusal.value = '';
  for (const file of field.files ?? []) {
    try {
      // Raw: a picture is passed to the worker as it is.
      const frame = markRaw(parseFrame(await file.text(), file.name));
      // The first is from before power-on, each other a second later until somebody says when.
      pictures.value.push({ name: file.name, frame, seconds: String(pictures.value.length) });
    } catch (error) {
      if (!(error instanceof InputRefused)) throw error;
      refusal.value = error.problems.map((one) => problemSentence(one, contractWords.en)).join(' ');
    }
  }
  field.value = '';
}
let asked = 0;
watch(
  pictures,
  async (all) => {
    warmth.value = undefined;
    const mine = (asked += 1);
    const frames = all.map(({ frame, seconds }) => ({ ...frame, seconds: parseQuantity(seconds, 's') ?? Number.NaN }));
    if (frames.length < 2) return;
    if (frames.some(({ seconds }) => Number.isNaN(seconds))) {
      refusal.value = t('warmth.seconds');
      return;
    }
    const found = await comparer().compare(frames);
    if (mine !== asked) return;
    if ('refused' in found) refusal.value = t('warmth.refused', { why: found.refused });
    else {
      refusal.value = '';
      warmth.value = found;
    }
  },
  { deep: true },
);
const option = (colours: Colours): ChartOption =>
  warmthOption(colours, warmth.value!, { title: t('warmth.chart'), rise: t('warmth.rise') });
const rows = computed(() =>
  (warmth.value?.spots ?? []).map(({ x, y, rise, rate, by, cells }, index) => [
    String(index + 1),
    `${Math.round(x * 100)} %`,
    `${Math.round(y * 100)} %`,
    `${rise.toFixed(1)} °C`,
    `${rate.toPrecision(2)} °C/s`,
    `${by} s`,
    String(cells),
  ]),
);
const head = computed(() => ['n', 'x', 'y', 'rise', 'rate', 'by', 'cells'].map((one) => t(`warmth.column.${one}`)));
</script>

<template>
  <div class="sheetpair" data-test="warmth">
    <section>
      <h2>{{ words.instrument.thermal?.name }}</h2>
      <p class="soft">{{ words.instrument.thermal?.help }}</p>
      <p v-for="(one, index) in pictures" :key="index" class="row" data-test="picture">
        <label>
          <span class="visually-hidden">{{ t('warmth.at', { name: one.name }) }}</span>
          <input v-model="one.seconds" type="text" inputmode="decimal" /> s
        </label>
        <span>{{ one.name }}</span>
        <span class="soft">{{ t('warmth.size', { width: one.frame.width, height: one.frame.height }) }}</span>
        <button type="button" class="plain" @click="pictures.splice(index, 1)">{{ t('warmth.remove') }}</button>
      </p>
      <p v-if="pictures.length < 2" class="soft">{{ t('warmth.needs', 2 - pictures.length) }}</p>
      <p v-if="refusal" class="alarm" role="alert">{{ refusal }}</p>
      <label class="push">
        {{ t('warmth.add') }}
        <input type="file" accept=".csv,.txt,text/csv" multiple class="visually-hidden" data-test="add-pictures" @change="add" />
      </label>
    </section>
    <section role="status" data-test="result">
      <h2>{{ t('instruments.result') }}</h2>
      <template v-if="report && warmth">
        <dl>
          <template v-for="figure in report.figures" :key="figure.id">
            <dt>{{ words.figure[figure.id] ?? figure.id }}</dt>
            <dd class="figure" :data-figure="figure.id">{{ formatQuantity(figure.value, figure.unit) }}</dd>
          </template>
        </dl>
        <p v-for="(finding, index) in report.findings" :key="finding.code" class="finding" :data-finding="finding.code">
          <strong v-if="warmth.spots.length > 0" class="figure">{{ index + 1 }}</strong> {{ findingSentence(finding) }}
        </p>
        <slot name="done" :report="report" :read="read" />
        <ChartFrame class="plot" :title="t('warmth.chart')" :option="option" :head="head" :rows="rows" file="warmth" />
      </template>
    </section>
  </div>
</template>

<style scoped>
.sheetpair {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1.25fr);
  gap: 14px;
  align-items: start;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.row input {
  width: 70px;
  min-height: 40px;
  padding: 2px 8px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
  text-align: right;
}
dl {
  display: grid;
  grid-template-columns: 1fr auto;
  gap: 4px 14px;
  margin: 6px 0;
}
dt,
dd {
  margin: 0;
}
dd {
  text-align: right;
}
.finding {
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.plot :deep(.drawn) {
  height: 340px;
}
@media (max-width: 1000px) {
  .sheetpair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
