<script setup lang="ts">
import { liveEntries, type CaseFold, type CompiledPack, type Entry } from '@veglia/core';
import { computed, nextTick, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useEntryWords } from './entryWords.ts';

const props = defineProps<{
  entries: readonly Entry[];
  fold: CaseFold;
  compiled: CompiledPack;
  waiting: ReadonlySet<string>;
  people: readonly { id: string; name: string }[];
}>();
const emit = defineEmits<{ takeBack: [entry: Entry, reason: string] }>();
const { t } = useI18n();
const words = useEntryWords(() => props.compiled);

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
const unused = computed(() => new Map(props.fold.unused.map((one) => [one.entry, one])));
/** Newest first; what the tool itself showed is kept in the ledger and not listed here. */
const lines = computed(() =>
  props.entries
    .filter((entry) => entry.body.kind !== 'advice.shown')
    .map((entry) => ({ entry, line: words(entry, props.entries) }))
    .reverse(),
);
const mayTakeBack = (entry: Entry): boolean =>
  live.value.has(entry.id) &&
  !props.fold.closed &&
  !['job.opened', 'entry.retracted', 'job.closed', 'caution.read'].includes(entry.body.kind);

const asking = ref<Entry>();
const reason = ref('');
const wrong = ref(false);
const field = ref<HTMLInputElement>();
async function ask(entry: Entry): Promise<void> {
  asking.value = entry;
  reason.value = '';
  wrong.value = false;
  await nextTick();
  field.value?.focus();
}
function confirm(): void {
  if (!asking.value) return;
  if (reason.value.trim() === '') {
    wrong.value = true;
    return;
  }
  emit('takeBack', asking.value, reason.value.trim());
  asking.value = undefined;
}
const time = (at: string): string =>
  new Date(at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' });
const who = (id: string): string => props.people.find((person) => person.id === id)?.name ?? '';
</script>

<template>
  <section class="ledger" :aria-label="t('bench.ledger')">
    <h2>{{ t('bench.ledger') }}</h2>
    <p v-if="lines.length === 0" class="soft">{{ t('bench.ledgerEmpty') }}</p>
    <ol data-test="ledger">
      <li
        v-for="{ entry, line } in lines"
        :key="entry.id"
        :class="{ gone: retractions.has(entry.id) }"
        :data-kind="entry.body.kind"
        :data-seq="entry.seq"
      >
        <div class="text">
          <p class="title">
            {{ line.title }}<span v-if="line.thinkSo" class="soft"> ({{ t('bench.thinkSoMark') }})</span>
          </p>
          <p v-if="line.detail" class="soft detail">{{ line.detail }}</p>
          <a v-if="entry.body.kind === 'photo.added'" :href="`/api/photos/${entry.body.photo}`" target="_blank">
            <img class="photo" :src="`/api/photos/${entry.body.photo}`" :alt="line.title" loading="lazy" />
          </a>
          <p v-if="unused.get(entry.id) && unused.get(entry.id)?.code !== 'said-nothing'" class="alarm detail">
            {{ t(`core.unused.${unused.get(entry.id)?.code}`, { id: unused.get(entry.id)?.id ?? '' }) }}
          </p>
          <p v-if="retractions.has(entry.id)" class="detail back">{{ t('bench.takenBack', { reason: retractions.get(entry.id) }) }}</p>
          <p class="soft small">
            <span class="figure">{{ entry.seq }}</span> {{ time(entry.at) }} {{ who(entry.by) }}
            <span v-if="waiting.has(entry.id)" class="alarm">…</span>
          </p>
        </div>
        <button
          v-if="mayTakeBack(entry)"
          type="button"
          class="plain"
          :aria-label="`${t('bench.takeBack')}: ${line.title}`"
          @click="ask(entry)"
        >
          {{ t('bench.takeBack') }}
        </button>
        <form v-if="asking?.id === entry.id" class="ask" @submit.prevent="confirm" @keydown.esc.stop="asking = undefined">
          <label :for="`why-${entry.id}`">{{ t('bench.takeBackWhy') }}</label>
          <input :id="`why-${entry.id}`" ref="field" v-model="reason" :aria-invalid="wrong" />
          <p v-if="wrong" class="alarm">{{ t('bench.takeBackNeeds') }}</p>
          <button type="submit" class="push full">{{ t('bench.takeBack') }}</button>
          <button type="button" class="plain" @click="asking = undefined">{{ t('common.cancel') }}</button>
        </form>
      </li>
    </ol>
  </section>
</template>

<style scoped>
.photo {
  max-width: 100%;
  max-height: 120px;
  border-radius: var(--radius);
}
ol {
  margin-top: 4px;
}
li {
  display: flex;
  flex-wrap: wrap;
  gap: 0 8px;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
.text {
  flex: 1;
  min-width: 0;
  overflow-wrap: anywhere;
}
.title {
  font-weight: 600;
  line-height: 1.25;
}
.detail {
  font-size: 15px;
}
.small {
  font-size: 14px;
}
.gone .title {
  text-decoration: line-through;
  font-weight: 400;
}
.plain {
  font-size: 14px;
  align-self: start;
}
.ask {
  flex-basis: 100%;
  padding: 8px 0;
}
.ask input {
  width: 100%;
  min-height: 42px;
  padding: 4px 10px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
  margin: 4px 0 8px;
}
</style>
