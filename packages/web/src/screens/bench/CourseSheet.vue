<script setup lang="ts">
/** The probabilities after each entry, over the bench; Esc closes it. */
import type { CompiledPack, Effect, Entry } from '@veglia/core';
import { computed, onMounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import ChartFrame from '../../charts/ChartFrame.vue';
import { courseOption, linesOf } from '../../charts/course.ts';
import { readingLines, readingsOption, type ReadingLine } from '../../charts/readings.ts';
import { percent, useNames } from '../../names.ts';
import { useEntryWords } from './entryWords.ts';

const props = defineProps<{ number: number; entries: readonly Entry[]; effects: readonly Effect[]; compiled: CompiledPack }>();
const emit = defineEmits<{ close: [] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const words = useEntryWords(() => props.compiled);
const dialog = ref<HTMLDialogElement>();
onMounted(() => dialog.value?.showModal());

const entryOf = computed(() => new Map(props.entries.map((entry) => [entry.id, entry])));
const seq = (id: string): string => String(entryOf.value.get(id)?.seq ?? '');
const readings = computed(() => readingLines(props.entries));
const readOf = computed(() =>
  (['volts', 'ohms'] as const)
    .map((quantity) => ({ quantity, lines: readings.value.filter((one) => one.quantity === quantity) }))
    .filter(({ lines: own }) => own.length > 0),
);
const pointName = ({ at, pin }: ReadingLine): string => pin ?? names.place(at);
const title = computed(() => t('chart.course.title', { n: props.number }));
const lines = computed(() => linesOf(props.effects));
const head = computed(() => [t('chart.course.entry'), t('chart.course.what'), ...lines.value.map(({ id }) => names.assembly(id))]);
const rows = computed(() =>
  props.effects.map(({ entry }, index) => {
    const found = entryOf.value.get(entry);
    return [seq(entry), found ? words(found, props.entries).title : '', ...lines.value.map(({ points }) => percent(points[index] ?? 0))];
  }),
);
</script>

<template>
  <dialog ref="dialog" class="sheet course" data-test="course-sheet" :aria-label="title" @close="emit('close')" @keydown.stop>
    <ChartFrame
      v-if="effects.length > 0"
      :title="title"
      :file="`job-${number}-probabilities`"
      :head="head"
      :rows="rows"
      :option="
        (colours) =>
          courseOption(colours, effects, {
            title,
            entry: t('chart.course.entry'),
            probability: t('chart.probability'),
            seq,
            name: names.assembly,
          })
      "
    />
    <p v-else class="soft">{{ t('chart.course.none') }}</p>
    <ChartFrame
      v-for="{ quantity, lines: own } in readOf"
      :key="quantity"
      :title="t(`chart.readings.${quantity}`, { n: number })"
      :file="`job-${number}-${quantity}`"
      :head="[t('chart.course.entry'), t('chart.readings.point'), t('chart.readings.state'), t('chart.readings.value')]"
      :rows="
        own.flatMap((line) =>
          line.points.map(({ seq: at, value, state }) => [
            String(at),
            pointName(line),
            t(`sheet.when.${state}`),
            `${value} ${quantity === 'volts' ? 'V' : 'Ω'}`,
          ]),
        )
      "
      :option="
        (colours) =>
          readingsOption(colours, own, {
            title: t(`chart.readings.${quantity}`, { n: number }),
            entry: t('chart.course.entry'),
            axis: t(`chart.readings.axis.${quantity}`),
            unit: quantity === 'volts' ? 'V' : 'Ω',
            name: pointName,
          })
      "
    />
    <form method="dialog">
      <button class="push" data-test="close-course">{{ t('chart.course.close') }} <kbd>Esc</kbd></button>
    </form>
  </dialog>
</template>

<style scoped>
.course {
  width: min(1000px, 94vw);
  max-height: 92vh;
  color: inherit;
  --chart-height: min(420px, 55vh);
}
.course::backdrop {
  background: rgb(0 0 0 / 45%);
}
</style>
