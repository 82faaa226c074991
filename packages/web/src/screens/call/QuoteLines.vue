<script setup lang="ts">
/** What a quote is made of: labour by the quarter of an hour and the parts, from the ledger; the sum is its lower end. */
import { printMoney } from '@veglia/contract';
import type { BodyOf } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import type { Names } from '../../names.ts';

type Lines = NonNullable<BodyOf<'quote.sent'>['lines']>;
const props = defineProps<{ lines: Lines; names: Names; spent: number; coming: number; currency: string }>();
const { t } = useI18n();
const words = (line: Lines[number]): string =>
  line.what === 'labour'
    ? t('quoteForm.labour', { n: line.minutes ?? 0 })
    : line.what === 'part'
      ? t('quoteForm.part', { what: props.names.assembly(line.assembly ?? ''), number: line.number ?? t('quoteForm.guessPart') })
      : t('quoteForm.fee');
const sum = computed(() => props.lines.reduce((all, { amount }) => all + amount.amountMinor, 0));
</script>

<template>
  <table data-test="quote-lines">
    <tbody>
      <tr v-for="(line, index) in lines" :key="index">
        <td>
          {{ words(line) }}
          <span v-if="line.what === 'labour'" class="soft">{{
            t('quoteForm.spent', { spent: Math.round(spent), coming: Math.round(coming) })
          }}</span>
        </td>
        <td class="reading">{{ printMoney(line.amount) }}</td>
      </tr>
    </tbody>
    <tfoot>
      <tr>
        <th>{{ t('quoteForm.sum') }}</th>
        <td class="reading">{{ printMoney({ amountMinor: sum, currency }) }}</td>
      </tr>
    </tfoot>
  </table>
</template>

<style scoped>
table {
  width: 100%;
  border-collapse: collapse;
}
td,
th {
  padding: 4px 0;
  border-top: 1px solid var(--line);
  text-align: left;
}
td .soft {
  display: block;
  font-size: 14px;
}
td.reading {
  text-align: right;
}
</style>
