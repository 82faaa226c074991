<script setup lang="ts">
/** The bench's arithmetic by itself: fields as a bench writes them, and what they amount to while they are typed. Nothing is stored unless asked. */
import { fieldProblemSentence, findingSentence, instrumentWords } from '@veglia/contract';
import { formatQuantity, instruments, runInstrument, type Body, type Field } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute, useRouter } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import { useSession } from '../../stores/session.ts';

const { t } = useI18n();
const route = useRoute();
const router = useRouter();
const session = useSession();
const words = computed(() => instrumentWords.en);
const chosen = computed(() => instruments.find(({ id }) => id === route.params.instrument) ?? instruments[0]);
/** As typed, by instrument: going to another and back loses nothing. */
const typed = reactive<Record<string, Record<string, string>>>(Object.fromEntries(instruments.map(({ id }) => [id, {}])));
const own = computed(() => typed[chosen.value?.id ?? ''] ?? {});
const outcome = computed(() => (chosen.value ? runInstrument(chosen.value, own.value) : undefined));
const report = computed(() => (outcome.value?.ok ? outcome.value.report : undefined));
const read = computed((): Readonly<Record<string, string>> => (outcome.value?.ok ? outcome.value.read : {}));
const problems = computed(() => (outcome.value && !outcome.value.ok ? outcome.value.problems : []));
const problemOf = (field: Field): string => {
  const found = problems.value.find((one) => one.field === field.id);
  return found ? fieldProblemSentence(found) : '';
};
/** As it was understood, where that isn't what was typed anyway. */
function echo(field: Field): string {
  const understood = read.value[field.id] ?? '';
  return field.kind === 'choice' || field.kind === 'text' || understood === (own.value[field.id] ?? field.usual ?? '').trim()
    ? ''
    : understood;
}
/** About no single field. */
const general = computed(() =>
  problems.value.filter(({ field }) => !chosen.value?.fields.some(({ id }) => id === field)).map((one) => fieldProblemSentence(one)),
);
function choose(id: string): void {
  saved.value = '';
  void router.replace({ params: { instrument: id }, query: route.query });
}
function example(): void {
  Object.assign(own.value, words.value.instrument[chosen.value?.id ?? '']?.example ?? {});
}
function clear(): void {
  for (const key of Object.keys(own.value)) delete own.value[key];
}

/** A job it was opened from: what came out may go into its ledger. */
const job = computed(() => (typeof route.query.job === 'string' ? route.query.job : ''));
const saved = ref('');
async function keep(): Promise<void> {
  const instrument = chosen.value;
  if (session.people.length === 0) await session.load();
  const by = session.person?.id;
  if (!instrument || !report.value || by === undefined) return;
  const text = [
    words.value.instrument[instrument.id]?.name ?? instrument.id,
    Object.entries(read.value)
      .map(([id, value]) => `${words.value.field[id] ?? id}: ${value}`)
      .join(', '),
    report.value.figures.map(({ id, value, unit }) => `${words.value.figure[id] ?? id}: ${formatQuantity(value, unit)}`).join(', '),
    report.value.findings.map((one) => findingSentence(one)).join(' '),
  ]
    .filter(Boolean)
    .join('. ');
  const body: Body = { kind: 'note.added', v: 1, text: text.slice(0, 4000) };
  try {
    const reply = await api.append(job.value, by, [{ id: uuidv7(), at: new Date().toISOString(), basedOn: 0, body }]);
    saved.value = reply.ok ? t('instruments.kept') : reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    saved.value = t('common.notReached');
  }
}
</script>

<template>
  <h1>{{ t('instruments.title') }}</h1>
  <div v-if="chosen" class="pair">
    <nav class="sheet list" :aria-label="t('instruments.title')">
      <button
        v-for="one in instruments"
        :key="one.id"
        type="button"
        class="plain"
        :aria-current="one.id === chosen.id"
        :data-test="`instrument-${one.id}`"
        @click="choose(one.id)"
      >
        {{ words.instrument[one.id]?.name ?? one.id }}
      </button>
    </nav>
    <form class="sheet" data-test="instrument" @submit.prevent>
      <h2>{{ words.instrument[chosen.id]?.name }}</h2>
      <p class="soft help">{{ words.instrument[chosen.id]?.help }}</p>
      <div class="grid">
        <label v-for="field in chosen.fields" :key="field.id" :class="{ wide: field.kind === 'list' || field.kind === 'text' }">
          <span class="soft">{{ words.field[field.id] ?? field.id }}{{ field.optional ? t('instruments.optional') : '' }}</span>
          <select v-if="field.kind === 'choice'" v-model="own[field.id]" :data-test="`field-${field.id}`">
            <option v-for="one in field.choices" :key="one" :value="one === field.usual ? undefined : one">
              {{ words.choice[one] ?? one }}
            </option>
          </select>
          <input
            v-else
            v-model="own[field.id]"
            type="text"
            autocomplete="off"
            :placeholder="field.usual"
            :aria-invalid="problemOf(field) !== ''"
            :data-test="`field-${field.id}`"
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
    <section class="sheet result" role="status" data-test="result">
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
        <p v-if="job && report.needs.length === 0" class="row">
          <button type="button" class="push full" data-test="keep" @click="keep">{{ t('instruments.keep') }}</button>
          <RouterLink :to="`/jobs/${job}`">{{ t('instruments.back') }}</RouterLink>
        </p>
        <p v-if="saved" role="status">{{ saved }}</p>
      </template>
    </section>
  </div>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: 200px minmax(0, 1.25fr) minmax(0, 1fr);
  gap: 14px;
  margin-top: 10px;
  align-items: start;
}
.list {
  display: grid;
  padding: 6px;
}
.list button {
  text-align: left;
}
.list [aria-current='true'] {
  background: var(--accent-wash);
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
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 14px;
}
@media (max-width: 1000px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
@media print {
  .list {
    display: none;
  }
}
</style>
