<script setup lang="ts">
/** At a glance: likely assemblies, likely bill, similar past jobs. */
import type { BillSpread, CaseFold, CompiledPack, SimilarJob } from '@veglia/core';
import { computed } from 'vue';
import { useI18n } from 'vue-i18n';
import { percent, roundMoney, useNames } from '../../names.ts';
import SuspectList from '../../parts/SuspectList.vue';
import type { Theory } from './intake.ts';
import type { PastCard } from './similar.ts';

defineOptions({ inheritAttrs: false });
const props = defineProps<{
  fold: CaseFold | undefined;
  compiled: CompiledPack;
  bill: BillSpread | undefined;
  currency: string;
  secondFault: number;
  hidesSecond: boolean;
  similar: readonly SimilarJob<PastCard>[];
  theories: readonly Theory[];
}>();
const { t } = useI18n();
/** The likeliest few, and whatever a theory blames. */
const shown = computed(() =>
  (props.fold?.assemblies.filter((one) => one.verdict !== 'cleared') ?? []).filter(
    (one, index) => index < 5 || props.theories.some(({ assembly }) => assembly === one.id),
  ),
);
const names = useNames(() => props.compiled);
/** To the next five: a bill that is a guess shows no cents. */
const round = (minor: number): string => roundMoney({ amountMinor: Math.round(minor / 500) * 500, currency: props.currency });
</script>

<template>
  <section class="sheet" data-test="at-once" v-bind="$attrs">
    <h2>{{ t('counter.prior') }}</h2>
    <template v-if="fold">
      <SuspectList :assemblies="shown" :compiled="compiled" :theories="theories" />
      <dl v-if="bill" class="bill" data-test="bill">
        <dt>{{ t('counter.bill.title') }}</dt>
        <dd>
          <strong class="figure">{{ t('counter.bill.range', { low: round(bill.low), high: round(bill.high) }) }}</strong>
          {{ t('counter.bill.middle', { middle: round(bill.middle) }) }}
        </dd>
        <dt>{{ t('counter.bill.givenUp') }}</dt>
        <dd class="figure" data-test="given-up">{{ percent(bill.givenUp) }}</dd>
        <dt>{{ t('counter.bill.second') }}</dt>
        <dd :class="{ alarm: hidesSecond }" class="figure">{{ percent(secondFault) }}</dd>
      </dl>
      <p v-else class="soft small">{{ t('counter.bill.working') }}</p>
      <p v-for="(doubt, index) in fold.doubts" :key="index" class="soft small">
        {{ t(`core.doubt.${doubt.code}`, { id: doubt.id ?? '', percent: percent(doubt.value ?? 0) }) }}
      </p>
    </template>
    <p v-else class="soft">{{ t('counter.noSymptom') }}</p>
  </section>
  <section v-if="similar.length > 0" class="sheet small" data-test="similar">
    <h2>{{ t('counter.similar.title') }}</h2>
    <ul>
      <li v-for="{ job, same } in similar" :key="job.jobId">
        <RouterLink :to="`/jobs/${job.jobId}`">{{ t('bench.job', { n: job.number }) }}</RouterLink>
        {{ job.found ? names.fault(job.found.fault ?? '') || names.assembly(job.found.assembly) : t('counter.similar.unknown') }}
        <span class="soft"
          >{{ job.outcome ? t(`outcome.${job.outcome}`) : '' }}; {{ same.map((one) => t(`counter.similar.${one}`)).join(', ') }}</span
        >
      </li>
    </ul>
  </section>
</template>

<style scoped>
.bill {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 2px 12px;
  margin: 8px 0 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.small {
  font-size: 15px;
}
li {
  padding: 2px 0;
}
</style>
