<script setup lang="ts">
/** Parts of a job: what is needed, where it is to be had, and where each part is. */
import { boardsFound, liveEntries, notInBook, notSold, numberKey, partsOf, type Body, type PartWanted } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, reactive, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import JobGate from '../../parts/JobGate.vue';
import TextField from '../../parts/TextField.vue';
import { useJob } from '../../stores/job.ts';
import { textOf } from '../../stores/packs.ts';
import RefusedEntries from '../bench/RefusedEntries.vue';
import JobPartLine from './JobPartLine.vue';
import PartByHand from './PartByHand.vue';
import PartOffers from './PartOffers.vue';
import PartsInStock from './PartsInStock.vue';
import StripFigures from './StripFigures.vue';

defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const names = useNames(() => store.compiled);
const live = computed(() => liveEntries(store.entries));
const parts = computed(() => partsOf(live.value));
const form = reactive({
  assembly: '',
  number: '',
  revision: '',
  strips: { strips: '', leds: '', lengthMm: '', connector: '', ledVolts: '' },
});

const assemblies = computed(() =>
  (store.fold?.assemblies ?? []).filter(({ id, verdict }) => id !== notInBook && id !== 'outside' && verdict !== 'cleared'),
);
const picked = computed(() => assemblies.value.find(({ id }) => id === form.assembly));
const boards = computed(() => new Map(boardsFound(store.entries).map(({ assembly, number }) => [assembly, number])));
watch(
  assemblies,
  (all) => {
    if (form.assembly === '' && all[0]) form.assembly = all[0].id;
  },
  { immediate: true },
);
watch(
  () => form.assembly,
  (assembly) => {
    // What was typed for another assembly is no number of this one.
    form.number = boards.value.get(assembly) ?? parts.value.findLast((one) => one.assembly === assembly)?.number ?? '';
    form.revision = '';
  },
  { immediate: true },
);
const topFault = computed(
  () => store.fold?.faults.find(({ assembly, probability }) => assembly === form.assembly && probability >= 0.4)?.id,
);
const never = computed(() =>
  store.compiled && form.assembly !== '' ? notSold(form.assembly, topFault.value, store.fold?.set.layout, store.compiled) : undefined,
);
const cured = computed(() => store.fold?.next[0]?.id === 'prove-and-close');
/** What is suggested for this assembly takes no new one: a part on it, a cleaning, a workaround. */
const instead = computed(() => {
  const step = store.fold?.next.find(
    ({ kind, id }) => kind === 'repair' && store.compiled?.pack.repairs.some((one) => one.id === id && one.assembly === form.assembly),
  );
  const repair = store.compiled?.pack.repairs.find(({ id }) => id === step?.id);
  return repair && repair.kind !== 'replace' ? repair : undefined;
});
const proven = computed(() => picked.value?.verdict === 'proven');

const figure = (typed: string): number | undefined =>
  /^\d+([.,]\d+)?$/.test(typed.trim()) ? Number(typed.trim().replace(',', '.')) : undefined;
const wanted = computed((): PartWanted => {
  const { strips } = form;
  const known = {
    strips: figure(strips.strips),
    leds: figure(strips.leds),
    lengthMm: figure(strips.lengthMm),
    ledVolts: figure(strips.ledVolts),
    connector: strips.connector.trim() === '' ? undefined : strips.connector.trim(),
  };
  const some = Object.fromEntries(Object.entries(known).filter(([, value]) => value !== undefined));
  return {
    assembly: form.assembly,
    number: form.number.trim() === '' ? undefined : form.number.trim(),
    revision: form.revision.trim() === '' ? undefined : form.revision.trim(),
    panel: boards.value.get('panel'),
    model: store.job?.plate.model === '' ? undefined : store.job?.plate.model,
    ...(form.assembly === 'strips' && Object.keys(some).length > 0 ? { strips: some } : {}),
  };
});
const currency = computed(() => store.job?.settings.currency ?? 'EUR');
const numberLength = { longest: 120 };

/** A part put on the list; what nothing has proven yet is recorded as that. A number typed here is the board's. */
async function want(body: Omit<Extract<Body, { kind: 'part.wanted' }>, 'kind' | 'v' | 'want' | 'assembly' | 'unproven'>): Promise<void> {
  const { assembly } = form;
  const printed = boards.value.get(assembly);
  const typed = form.number.trim();
  await store.write(
    ...(typed !== '' && (printed === undefined || numberKey(printed) !== numberKey(typed))
      ? [{ kind: 'board.found' as const, v: 1 as const, assembly, number: typed.slice(0, 80) }]
      : []),
    { kind: 'part.wanted', v: 1, want: uuidv7(), assembly, ...body, ...(proven.value ? {} : { unproven: true }) },
  );
}
const write = (bodies: readonly Body[]): Promise<void> => store.write(...bodies);
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold, compiled }">
    <div class="jobparts">
      <header class="head">
        <h1>
          <span class="figure">{{ t('bench.job', { n: job.number }) }}</span> {{ t('parts.title') }}
          <span class="soft">{{ job.plate.maker }} {{ job.plate.model }}</span>
        </h1>
        <span class="links">
          <RouterLink to="/parts" class="push">{{ t('parts.toOrders') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}/call`" class="push">{{ t('parts.toCall') }}</RouterLink>
          <RouterLink :to="`/jobs/${id}`" class="push">{{ t('parts.toBench') }}</RouterLink>
        </span>
      </header>
      <RefusedEntries :compiled="compiled" />
      <section v-if="parts.length > 0" class="sheet" data-test="job-parts">
        <h2>{{ t('parts.ofJob') }}</h2>
        <ul>
          <JobPartLine
            v-for="one in parts"
            :key="one.want"
            :part="one"
            :fold="fold"
            :compiled="compiled"
            :own-set="job.customer === null"
            :job-id="id"
            @write="write"
          />
        </ul>
      </section>
      <div v-if="!fold.closed" class="columns">
        <section class="sheet stack">
          <h2>{{ t('parts.for') }}</h2>
          <div class="fields">
            <ChoiceField
              id="part-for"
              v-model="form.assembly"
              searched
              class="wide"
              :label="t('close.assembly')"
              :options="
                assemblies.map(({ id: value, probability }) => ({ value, label: `${names.assembly(value)} (${percent(probability)})` }))
              "
            />
            <TextField id="part-number" v-model="form.number" :bounds="numberLength" :label="t('parts.number')" />
            <TextField id="part-revision" v-model="form.revision" :bounds="numberLength" :label="t('parts.revision')" />
          </div>
          <!-- What is suggested comes a moment after the probabilities: nothing is said before. -->
          <template v-if="!store.settling">
            <p v-if="cured" data-test="part-cured">{{ t('parts.cured') }}</p>
            <p v-else-if="instead" data-test="part-instead">{{ t('parts.instead', { repair: names.repair(instead.id) }) }}</p>
            <p v-else-if="proven" data-test="part-proven">{{ t('parts.proven') }}</p>
            <p v-else-if="picked" class="alarm" data-test="part-unproven">
              {{ t('parts.unproven', { what: names.assembly(picked.id), probability: percent(picked.probability) }) }}
            </p>
            <p v-if="never && !cured && !instead" class="alarm" data-test="not-sold">
              <template v-if="never.how === 'part-of'">{{ t('parts.notSold.partOf', { of: names.assembly(never.of) }) }}</template>
              <template v-else>{{ t(`parts.notSold.${never.how}`) }} {{ textOf(never.why) }}</template>
            </p>
          </template>
          <p v-if="form.number.trim() === ''" class="soft">{{ t('parts.noNumber') }}</p>
          <StripFigures v-if="form.assembly === 'strips'" v-model="form.strips" />
          <PartByHand :key="form.assembly" :number="form.number.trim()" :currency="currency" @want="want" />
        </section>
        <div class="stack">
          <PartsInStock :wanted="wanted" :currency="currency" @want="want" />
          <PartOffers :number="form.number.trim()" :currency="currency" @want="want" />
        </div>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.jobparts,
.stack {
  display: grid;
  gap: 10px;
  align-content: start;
}
.head,
.links {
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 4px 12px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 10px;
  align-items: start;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
