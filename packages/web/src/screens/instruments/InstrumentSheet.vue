<script setup lang="ts">
/** One instrument: its fields as a bench writes numbers, and what they amount to while they are typed. */
import { fieldProblemSentence, findingSentence, instrumentWords } from '@veglia/contract';
import { formatQuantity, runInstrument, type Field, type Instrument, type PlotAlong, type Report } from '@veglia/core';
import { computed, defineAsyncComponent, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { alongOption } from '../../charts/along.ts';
import type { ChartOption, Colours } from '../../charts/option.ts';

const props = defineProps<{
  instrument: Instrument;
  /** As typed; written to. */
  typed: Record<string, string>;
  /** The boards of a job, whose pictures parts may be pressed on; left out: all that the shop knows. */
  boards?: readonly string[];
}>();
defineSlots<{ done(got: { report: Report; read: Readonly<Record<string, string>> }): unknown }>();
const { t } = useI18n();
const words = computed(() => instrumentWords.en);
const outcome = computed(() => runInstrument(props.instrument, props.typed));
const report = computed(() => (outcome.value.ok ? outcome.value.report : undefined));
const read = computed((): Readonly<Record<string, string>> => (outcome.value.ok ? outcome.value.read : {}));
const problems = computed(() => (outcome.value.ok ? [] : outcome.value.problems));
const problemOf = (field: Field): string => {
  const found = problems.value.find((one) => one.field === field.id);
  return found ? fieldProblemSentence(found) : '';
};
/** As it was understood, where that isn't what was typed anyway. */
function echo(field: Field): string {
  const understood = read.value[field.id] ?? '';
  const same = understood === (props.typed[field.id] ?? field.usual ?? '').trim();
  return field.kind === 'choice' || field.kind === 'text' || same ? '' : understood;
}
/** About no single field. */
const general = computed(() =>
  problems.value.filter(({ field }) => !props.instrument.fields.some(({ id }) => id === field)).map((one) => fieldProblemSentence(one)),
);
const put = (field: Field, value: string): void => {
  props.typed[field.id] = value;
};
const textOfEvent = (event: Event): string => (event.target as HTMLInputElement | HTMLSelectElement).value;
function example(): void {
  Object.assign(props.typed, words.value.instrument[props.instrument.id]?.example ?? {});
}
function clear(): void {
  for (const field of props.instrument.fields) put(field, '');
}
const WalkOnPicture = defineAsyncComponent(() => import('./WalkOnPicture.vue'));
const onPicture = ref(false);
const ContactRow = defineAsyncComponent(() => import('./ContactRow.vue'));
const ChartFrame = defineAsyncComponent(() => import('../../charts/ChartFrame.vue'));
const alongOf =
  (plot: PlotAlong) =>
  (colours: Colours): ChartOption =>
    alongOption(colours, plot, {
      title: t('chart.along.title'),
      part: t('chart.along.part'),
      ohms: t('chart.along.ohms'),
      sure: t('chart.along.sure'),
      read: t('chart.along.read'),
      fitted: t('chart.along.fitted'),
      range: t('chart.along.range'),
    });
const alongRows = ({ points }: PlotAlong): string[][] =>
  points.map(({ read, middle, low, high, probability, name }, at) => [
    name === undefined ? String(at + 1) : `${at + 1} ${name}`,
    read === undefined ? '' : formatQuantity(read, 'Ω'),
    formatQuantity(middle, 'Ω'),
    `${formatQuantity(low, 'Ω')} – ${formatQuantity(high, 'Ω')}`,
    `${Math.round(probability * 100)} %`,
  ]);
</script>

<template>
  <div class="sheetpair">
    <form data-test="instrument" @submit.prevent>
      <h2>{{ words.instrument[instrument.id]?.name }}</h2>
      <p class="soft help">{{ words.instrument[instrument.id]?.help }}</p>
      <template v-if="instrument.id === 'short'">
        <button type="button" class="push" :aria-expanded="onPicture" data-test="on-picture" @click="onPicture = !onPicture">
          {{ t(onPicture ? 'walk.close' : 'walk.open') }}
        </button>
        <WalkOnPicture v-if="onPicture" :typed="typed" :report="report" v-bind="boards ? { boards } : {}" />
      </template>
      <div class="grid">
        <label v-for="field in instrument.fields" :key="field.id" :class="{ wide: field.kind === 'list' || field.kind === 'text' }">
          <span class="soft">{{ words.field[field.id] ?? field.id }} {{ field.optional ? t('instruments.optional') : '' }}</span>
          <select
            v-if="field.kind === 'choice'"
            :value="typed[field.id] || field.usual"
            :data-test="`field-${field.id}`"
            @change="put(field, textOfEvent($event))"
          >
            <option v-for="one in field.choices" :key="one" :value="one">{{ words.choice[one] ?? one }}</option>
          </select>
          <input
            v-else
            :value="typed[field.id] ?? ''"
            type="text"
            autocomplete="off"
            :placeholder="field.usual"
            :aria-invalid="problemOf(field) !== ''"
            :data-test="`field-${field.id}`"
            @input="put(field, textOfEvent($event))"
          />
          <span v-if="problemOf(field)" class="alarm small" role="alert">{{ problemOf(field) }}</span>
          <span v-else-if="echo(field) !== ''" class="soft small">{{ read[field.id] }}</span>
        </label>
      </div>
      <p class="row">
        <button type="button" class="plain" data-test="example" @click="example">{{ t('instruments.example') }}</button>
        <button type="button" class="plain" @click="clear">{{ t('instruments.clear') }}</button>
      </p>
    </form>
    <section class="result" role="status" data-test="result">
      <h2>{{ t('instruments.result') }}</h2>
      <p v-for="one in general" :key="one" class="alarm">{{ one }}</p>
      <template v-if="report">
        <p v-if="report.needs.length > 0" class="soft">
          {{ t('instruments.needs', { fields: report.needs.map((id) => words.field[id] ?? id).join('; ') }) }}
        </p>
        <dl>
          <template v-for="figure in report.figures" :key="figure.id">
            <dt>{{ words.figure[figure.id] ?? figure.id }}</dt>
            <dd class="figure" :data-figure="figure.id">{{ formatQuantity(figure.value, figure.unit) }}</dd>
          </template>
        </dl>
        <p v-for="finding in report.findings" :key="finding.code" :class="['finding', finding.tone]" :data-finding="finding.code">
          <span class="mark" aria-hidden="true">{{ finding.tone === 'good' ? '✓' : finding.tone === 'bad' ? '!' : '?' }}</span>
          {{ findingSentence(finding) }}
        </p>
        <ContactRow v-if="report.plot?.kind === 'contacts'" :contacts="report.plot.contacts" />
        <slot name="done" :report="report" :read="read" />
        <ChartFrame
          v-if="report.plot?.kind === 'along'"
          class="plot"
          :title="t('chart.along.title')"
          :option="alongOf(report.plot)"
          :head="[t('chart.along.part'), t('chart.along.read'), t('chart.along.fitted'), t('chart.along.range'), t('chart.along.sure')]"
          :rows="alongRows(report.plot)"
          file="rail"
        />
      </template>
    </section>
  </div>
</template>

<style scoped>
.sheetpair {
  display: grid;
  grid-template-columns: minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 14px;
  align-items: start;
}
.help {
  margin: 4px 0 8px;
}
.grid {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 8px 14px;
}
.grid .wide {
  grid-column: 1 / -1;
}
label > span {
  display: block;
  font-size: 15px;
}
input,
select {
  width: 100%;
  min-height: 42px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: transparent;
}
input[aria-invalid='true'] {
  border-color: var(--alarm);
}
.small {
  font-size: 14px;
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
  font-size: 18px;
  text-align: right;
}
.finding {
  display: flex;
  gap: 8px;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.finding.bad {
  color: var(--alarm);
  font-weight: 600;
}
.mark {
  flex: none;
  width: 24px;
  height: 24px;
  border: 2px solid currentcolor;
  border-radius: 4px;
  text-align: center;
  line-height: 20px;
  font-weight: 700;
}
/* Lower than a chart that has the page to itself. */
.plot :deep(.drawn) {
  height: 300px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
@media (max-width: 1000px) {
  .sheetpair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
