<script setup lang="ts">
/** The blink table of a family: looked at, changed, checked in from a file and handed out, with who changed it when. */
import { problemSentence, words, type BlinkTables } from '@veglia/contract';
import { blinkTableOf, blinkTableProblems, type CompiledPack, type Problem } from '@veglia/core';
import { computed, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import { saveBlob } from '../../saveBlob.ts';
import { useSession } from '../../stores/session.ts';
import { tableOf, typedRow, type TypedRow } from './tables.ts';

const props = defineProps<{ compiled: CompiledPack; family: string; changes: BlinkTables['changes'] }>();
const emit = defineEmits<{ stored: [] }>();
const { t, d } = useI18n();
const session = useSession();
const names = useNames(() => props.compiled);
const rows = ref<TypedRow[]>([]);
const editing = ref(false);
const problems = ref<readonly Problem[]>([]);
const said = ref('');
const refusal = ref('');
const columns = ['groups', 'colour', 'after', 'meaning', 'suspects', 'firstCheck', 'source', 'date', 'by'] as const;
const labels: Record<(typeof columns)[number], string> = {
  groups: 'code',
  colour: 'colour',
  after: 'after',
  meaning: 'meaning',
  suspects: 'suspects',
  firstCheck: 'firstCheck',
  source: 'source',
  date: 'date',
  by: 'by',
};

function show(): void {
  rows.value = (props.compiled.families.get(props.family)?.blink ?? []).map(typedRow);
  editing.value = false;
  problems.value = [];
}
watch(
  () => [props.family, props.compiled.hash],
  () => {
    show();
    said.value = '';
    refusal.value = '';
  },
  { immediate: true },
);

function add(): void {
  const today = new Date().toISOString().slice(0, 10);
  rows.value = [
    ...rows.value,
    {
      id: '',
      groups: '',
      colour: '',
      after: '',
      meaning: '',
      suspects: '',
      firstCheck: '',
      notices: '',
      source: '',
      date: today,
      by: session.person?.name ?? '',
    },
  ];
}
const sentences = computed(() => problems.value.map((problem) => problemSentence(problem, words.en)));

async function store(): Promise<void> {
  said.value = '';
  refusal.value = '';
  const table = tableOf(props.family, rows.value);
  problems.value = blinkTableProblems(table, props.compiled.pack).problems;
  const by = session.person?.id;
  if (problems.value.length > 0 || by === undefined) return;
  try {
    const reply = await api.changeBlinkTable({ by, basedOn: props.compiled.hash, table });
    if (!reply.ok) {
      refusal.value = [reply.problem.title, ...(reply.problem.problems ?? []).map((one) => one.sentence)].join(' ');
      return;
    }
    editing.value = false;
    emit('stored');
    said.value = t('blink.tables.stored');
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refusal.value = t('common.notReached');
  }
}

/** A dry run: what is in the file is shown, with all that is wrong; it is stored by the same button as any change. */
async function takeIn(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const [file] = field.files ?? [];
  if (!file) return;
  said.value = '';
  refusal.value = '';
  const text = file.size > 2_000_000 ? '' : await file.text();
  const { readBlinkTableCsv } = await import('@veglia/contract/blink');
  let document: unknown;
  let first: readonly Problem[] = [];
  if (/^\s*[{[]/.test(text)) {
    try {
      document = JSON.parse(text);
    } catch (error) {
      first = [{ code: 'not-json', where: file.name, expected: (error as Error).message }];
    }
  } else ({ document, problems: first } = readBlinkTableCsv(text, props.family));
  const checked = first.length > 0 ? { problems: [...first] } : blinkTableProblems(document, props.compiled.pack);
  problems.value = checked.problems;
  if ('table' in checked && checked.table && checked.table.family !== props.family) {
    problems.value = [{ code: 'unknown-id', where: 'table.family', value: checked.table.family, expected: props.family }];
  } else if ('table' in checked && checked.table) {
    rows.value = checked.table.codes.map(typedRow);
    editing.value = true;
    said.value = t('blink.tables.fine', { n: rows.value.length });
  }
  field.value = '';
}
async function handOut(kind: 'csv' | 'json'): Promise<void> {
  const document_ = blinkTableOf(props.compiled, props.family);
  const { writeBlinkTableCsv } = await import('@veglia/contract/blink');
  const text = kind === 'csv' ? writeBlinkTableCsv(document_) : `${JSON.stringify(document_, null, 2)}\n`;
  saveBlob(new Blob([text], { type: kind === 'csv' ? 'text/csv' : 'application/json' }), `blink-${props.family}.${kind}`);
}
/** As people call things; the ids are for changing and for files. */
function shown(row: TypedRow, column: (typeof columns)[number]): string {
  if (column === 'suspects') {
    return Object.entries(props.compiled.families.get(props.family)?.blink.find(({ id }) => id === row.id)?.suspects ?? {})
      .map(([id, word]) => `${props.compiled.faults.has(id) ? names.fault(id) : names.assembly(id)} (${word})`)
      .join(', ');
  }
  if (column === 'firstCheck') return row.firstCheck === '' ? '' : names.test(row.firstCheck);
  return row[column] || (column === 'colour' || column === 'after' ? t('blink.tables.any') : '');
}
const history = computed(() => props.changes.filter(({ family }) => family === props.family));
const nameOf = (id: string): string => session.people.find((one) => one.id === id)?.name ?? '?';
</script>

<template>
  <section class="sheet table" data-test="blink-table">
    <h2>{{ t('blink.tables.title') }}</h2>
    <p v-if="rows.length === 0 && !editing" class="soft">{{ t('blink.tables.none') }}</p>
    <div v-else class="scroll" tabindex="0" role="group" :aria-label="t('blink.tables.title')">
      <table>
        <thead>
          <tr>
            <th v-for="one in columns" :key="one" scope="col">{{ t(`blink.tables.${labels[one]}`) }}</th>
            <th v-if="editing" />
          </tr>
        </thead>
        <tbody>
          <tr v-for="(row, index) in rows" :key="index" :data-row="row.id">
            <td v-for="one in columns" :key="one" :class="one">
              <input
                v-if="editing"
                v-model="row[one]"
                :type="one === 'date' ? 'date' : 'text'"
                :aria-label="`${t(`blink.tables.${labels[one]}`)} ${index + 1}`"
                :placeholder="one === 'groups' ? t('blink.tables.codeHint') : one === 'suspects' ? t('blink.tables.suspectsHint') : ''"
              />
              <template v-else-if="one === 'groups'">{{ row.groups || words.en.lightState['no-light'] }}</template>
              <template v-else>{{ shown(row, one) }}</template>
            </td>
            <td v-if="editing">
              <button type="button" class="plain" @click="rows.splice(index, 1)">{{ t('blink.tables.remove') }}</button>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
    <div v-if="problems.length > 0" class="alarm" role="alert" data-test="table-problems">
      <p>{{ t('blink.tables.problems', problems.length) }}</p>
      <ul>
        <li v-for="(one, index) in sentences" :key="index">{{ one }}</li>
      </ul>
    </div>
    <p v-if="refusal" class="alarm" role="alert">{{ t('counter.notStored') }}: {{ refusal }}</p>
    <p v-if="said" role="status" data-test="table-said">{{ said }}</p>
    <p class="inline">
      <template v-if="editing">
        <button type="button" class="push full" data-test="table-store" @click="store">{{ t('blink.tables.store') }}</button>
        <button type="button" class="push" @click="add">{{ t('blink.tables.add') }}</button>
        <button type="button" class="plain" @click="show">{{ t('blink.tables.cancel') }}</button>
      </template>
      <button v-else type="button" class="push" data-test="table-edit" @click="editing = true">{{ t('blink.tables.edit') }}</button>
      <label class="push">
        {{ t('blink.tables.import') }}
        <input type="file" accept=".csv,.json" class="visually-hidden" data-test="table-file" @change="takeIn" />
      </label>
      <button type="button" class="plain" data-test="table-csv" @click="handOut('csv')">{{ t('blink.tables.exportCsv') }}</button>
      <button type="button" class="plain" data-test="table-json" @click="handOut('json')">{{ t('blink.tables.exportJson') }}</button>
    </p>
    <p class="soft small">{{ editing ? t('blink.tables.help') : t('blink.tables.importHelp') }}</p>
    <template v-if="history.length > 0">
      <h2>{{ t('blink.tables.history') }}</h2>
      <ul data-test="table-history">
        <li v-for="one in history" :key="one.number">
          {{ t('blink.tables.change', { rows: one.rows, name: nameOf(one.by), when: d(one.at, 'minute') }) }}
        </li>
      </ul>
    </template>
  </section>
</template>

<style scoped>
.table {
  display: grid;
  gap: 10px;
  min-width: 0;
}
.scroll {
  overflow-x: auto;
}
table {
  border-collapse: collapse;
  width: 100%;
  font-size: 15px;
}
th {
  text-align: left;
  font-weight: 600;
  color: var(--ink-soft);
}
th,
td {
  padding: 6px 8px;
  border-bottom: 1px solid var(--line);
  vertical-align: top;
}
td.groups {
  font-weight: 700;
  white-space: nowrap;
}
td.date {
  white-space: nowrap;
}
input:not([type='file']) {
  width: 100%;
  min-width: 90px;
  min-height: 40px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
  padding: 2px 6px;
}
td.meaning input,
td.suspects input {
  min-width: 200px;
}
.small {
  font-size: 14px;
}
</style>
