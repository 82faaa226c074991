<script setup lang="ts">
import { liveEntries, type CaseFold, type CompiledPack, type Effect, type Entry } from '@veglia/core';
import { computed, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../../names.ts';
import { useEntryWords, type EntryLine } from './entryWords.ts';
import LedgerLine from './LedgerLine.vue';

const props = defineProps<{
  entries: readonly Entry[];
  fold: CaseFold;
  compiled: CompiledPack;
  waiting: ReadonlySet<string>;
  people: readonly { id: string; name: string }[];
  /** What each entry did to the probabilities, as far as it is worked out. */
  effects: readonly Effect[];
  /** Shown as it stood after this entry; undefined: as it is. */
  asOf: number | undefined;
}>();
defineEmits<{ takeBack: [entry: Entry, reason: string]; asOf: [seq: number]; course: [] }>();
const { t } = useI18n();
const names = useNames(() => props.compiled);
const words = useEntryWords(() => props.compiled);
/** Less than half a percent isn't worth a line. */
const leastMove = 0.005;
const effectOf = computed(
  () =>
    new Map(
      props.effects
        .filter((one) => Math.abs(one.after - one.before) >= leastMove)
        .map((one) => [
          one.entry,
          t('bench.effect', { what: names.assembly(one.id), before: percent(one.before), after: percent(one.after) }),
        ]),
    ),
);
const disagree = computed(
  () => new Set(props.fold.doubts.flatMap((doubt) => (doubt.code === 'answers-disagree' ? (doubt.entries ?? []) : []))),
);
/** Every line then offers to show all as it stood after it. */
const lookingBack = ref(false);
const groups = ['all', 'seen', 'read', 'done', 'told'] as const;
const group = ref<(typeof groups)[number]>('all');
const groupOf = ({ body }: Entry): (typeof groups)[number] => {
  if (body.kind === 'reading.taken' || (body.kind === 'test.answered' && body.raw !== undefined)) return 'read';
  if (body.kind === 'set.changed' && body.volts !== undefined) return 'read';
  if (
    ['test.answered', 'blink.read', 'stimulus.tried', 'heat.round', 'symptom.reported', 'layout.found', 'fault.confirmed'].includes(
      body.kind,
    )
  )
    return 'seen';
  if (
    [
      'set.changed',
      'repair.done',
      'part.fitted',
      'flash.done',
      'flash.step',
      'wait.started',
      'wait.ended',
      'teardown.taken',
      'teardown.refitted',
      'caution.read',
      'set.shelved',
    ].includes(body.kind)
  )
    return 'done';
  return 'told';
};

const live = computed(() => new Set(liveEntries(props.entries).map((entry) => entry.id)));
const retractions = computed(() => {
  const reasons = new Map<string, string>();
  for (const entry of liveEntries(props.entries)) {
    const { body } = entry;
    if (body.kind !== 'entry.retracted') continue;
    const target = props.entries.find((other) => other.id === body.entry || other.seq === body.entry);
    if (target) reasons.set(target.id, body.reason);
  }
  return reasons;
});
const unused = computed(
  () =>
    new Map(
      props.fold.unused
        .filter(({ code }) => code !== 'said-nothing')
        .map((one) => [one.entry, t(`core.unused.${one.code}`, { id: one.id ?? '' })]),
    ),
);
/** An entry never changes, and so its words don't: put together once. One whose text was erased is another object. */
const wordsOf = computed(() => {
  void props.compiled;
  return new WeakMap<Entry, EntryLine>();
});
function lineOf(entry: Entry): EntryLine {
  const line = wordsOf.value.get(entry) ?? words(entry, props.entries);
  wordsOf.value.set(entry, line);
  return line;
}
/** Newest first; what the tool itself showed is kept in the ledger and not listed here. */
const lines = computed(() =>
  props.entries
    .filter((entry) => entry.body.kind !== 'advice.shown' && (group.value === 'all' || groupOf(entry) === group.value))
    .map((entry) => ({ entry, line: lineOf(entry) }))
    .reverse(),
);
const mayTakeBack = (entry: Entry): boolean =>
  live.value.has(entry.id) &&
  !props.fold.closed &&
  !['job.opened', 'entry.retracted', 'job.closed', 'caution.read'].includes(entry.body.kind);

const nameOf = computed(() => new Map(props.people.map(({ id, name }) => [id, name])));
</script>

<template>
  <section class="ledger" :aria-label="t('bench.ledger')">
    <div class="head">
      <h2>{{ t('bench.ledger') }}</h2>
      <select v-model="group" :aria-label="t('bench.filter.title')" data-test="ledger-filter">
        <option v-for="one in groups" :key="one" :value="one">{{ t(`bench.filter.${one}`) }}</option>
      </select>
      <button type="button" class="plain" data-test="course" @click="$emit('course')">{{ t('chart.course.open') }}</button>
      <button type="button" class="plain" :aria-pressed="lookingBack" data-test="look-back" @click="lookingBack = !lookingBack">
        {{ t('bench.asOf.mode') }}
      </button>
    </div>
    <p v-if="lines.length === 0" class="soft">{{ t('bench.ledgerEmpty') }}</p>
    <ol data-test="ledger">
      <LedgerLine
        v-for="{ entry, line } in lines"
        :id="`e${entry.seq}`"
        :key="entry.id"
        :class="{ later: asOf !== undefined && entry.seq > asOf, then: asOf === entry.seq }"
        :data-kind="entry.body.kind"
        :data-seq="entry.seq"
        :entry="entry"
        :line="line"
        :who="nameOf.get(entry.by) ?? ''"
        :effect="effectOf.get(entry.id) ?? ''"
        :taken-back="retractions.get(entry.id)"
        :unused="unused.get(entry.id) ?? ''"
        :disagrees="disagree.has(entry.id)"
        :unsent="waiting.has(entry.id)"
        :may-take-back="mayTakeBack(entry)"
        :looking-back="lookingBack"
        @take-back="(taken, reason) => $emit('takeBack', taken, reason)"
        @as-of="(seq) => $emit('asOf', seq)"
      />
    </ol>
  </section>
</template>

<style scoped>
.head {
  display: flex;
  align-items: center;
  gap: 0 8px;
}
.head h2 {
  flex: 1;
  min-width: 0;
}
.head .plain {
  padding: 0 4px;
  white-space: nowrap;
}
.head select {
  flex: 0 1 130px;
  min-width: 0;
  min-height: 40px;
  padding: 0 6px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--surface);
}
.head [aria-pressed='true'] {
  text-decoration: underline;
  text-underline-offset: 5px;
}
li.later {
  opacity: 0.45;
}
li.then,
li:target {
  border-left: 6px solid var(--accent);
  padding-left: 6px;
}
ol {
  margin-top: 4px;
}
</style>
