<script setup lang="ts">
/** A CSV file looked at row by row before anything of it is kept. */
import { parseStockCsv, type StockRow, type StockState } from '@veglia/contract';
import { canonicalJson, stockItemSchema } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useSession } from '../../stores/session.ts';

const props = defineProps<{
  file: { readonly name: string; readonly text: string };
  known: readonly StockState[];
  currency: string;
}>();
const emit = defineEmits<{ close: []; saved: [] }>();
const { t } = useI18n();
const session = useSession();
const read = parseStockCsv(props.file.text, props.currency, uuidv7);
const there = new Map(props.known.map((one) => [one.item.id, one]));
/** As it would be kept: what the file has no column for stays. */
const itemOf = ({ item }: StockRow) => {
  const { donor, photo, retired } = there.get(item.id)?.item ?? {};
  return stockItemSchema.parse(JSON.parse(JSON.stringify({ ...item, donor, photo, retired })));
};
const rows = computed(() =>
  read.rows.map((row) => {
    const before = there.get(row.item.id);
    const item = itemOf(row);
    const change = row.count === undefined ? 0 : row.count - (before?.count ?? 0);
    const same = before !== undefined && change === 0 && canonicalJson(before.item) === canonicalJson(item);
    return { row: row.row, item, before, change, what: same ? 'same' : before ? 'changed' : 'new' } as const;
  }),
);
const toSave = computed(() => rows.value.filter(({ what }) => what !== 'same'));
const wrongRows = computed(() => new Set(read.problems.map(({ row }) => row)).size);
const done = ref(0);
const failed = ref<readonly string[]>([]);
const busy = ref(false);
async function save(): Promise<void> {
  const by = session.person?.id;
  if (by === undefined) return;
  busy.value = true;
  failed.value = [];
  done.value = 0;
  const bad: string[] = [];
  for (const { row, item, before, change } of toSave.value) {
    try {
      const reply = await api.changeStock(item.id, { by, version: before?.version ?? 0, item });
      const moved =
        reply.ok && change !== 0
          ? await api.moveStock(item.id, { id: uuidv7(), by, change, reason: before ? 'counted' : 'bought' })
          : reply;
      if (moved.ok) done.value += 1;
      else bad.push(t('stockParts.csv.failed', { n: row, why: moved.problem.title }));
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
      bad.push(t('stockParts.csv.failed', { n: row, why: t('common.notReached') }));
    }
  }
  failed.value = bad;
  busy.value = false;
  emit('saved');
}
</script>

<template>
  <section class="sheet csv" data-test="csv-sheet">
    <h2>{{ t('stockParts.csv.title', { file: file.name }) }}</h2>
    <p>{{ t('stockParts.csv.fine', toSave.length) }}</p>
    <p v-if="wrongRows > 0" class="alarm" data-test="csv-wrong">{{ t('stockParts.csv.wrong', wrongRows) }}</p>
    <ul v-if="read.problems.length > 0" data-test="csv-problems">
      <li v-for="(one, index) in read.problems.slice(0, 40)" :key="index" class="alarm">
        {{ t('stockParts.csv.row', { n: one.row }) }}, {{ one.where }}: {{ one.value }} → {{ one.expected }}
      </li>
    </ul>
    <ul v-if="done === 0">
      <li v-for="one in rows.slice(0, 40)" :key="one.row">
        {{ t('stockParts.csv.row', { n: one.row }) }}: <strong>{{ one.item.number }}</strong>
        {{ t(`stockParts.csv.${one.what}`, { number: one.before?.item.number ?? '' }) }}
      </li>
    </ul>
    <p v-if="done > 0" role="status" data-test="csv-saved">{{ t('stockParts.csv.saved', done) }}</p>
    <p v-for="one in failed" :key="one" class="alarm" role="alert">{{ one }}</p>
    <div class="inline">
      <button v-if="done === 0" type="button" class="push full" :disabled="busy || toSave.length === 0" data-test="csv-save" @click="save">
        {{ t('stockParts.csv.save') }}
      </button>
      <button type="button" class="push" @click="emit('close')">{{ t('stockParts.csv.close') }}</button>
    </div>
  </section>
</template>

<style scoped>
.csv {
  display: grid;
  gap: 6px;
  margin-bottom: 10px;
}
</style>
