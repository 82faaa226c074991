<script setup lang="ts">
/** This set was here before, by its serial number: whether it is a comeback, with which fault, and who pays. */
import type { Job, JobCard } from '@veglia/contract';
import { comebackFaults, comebackPayers, type Body, type BodyOf, type Entry } from '@veglia/core';
import { computed, reactive, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import { dayIn } from '../parts/want.ts';

const props = defineProps<{ job: Job; live: readonly Entry[] }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t, d } = useI18n();
const before = shallowRef<JobCard>();
const warrantyUntil = shallowRef<string>();
const form = reactive<{ open: boolean; fault: BodyOf<'comeback.linked'>['fault']; pays: BodyOf<'comeback.linked'>['pays'] }>({
  open: false,
  fault: 'not-known',
  pays: 'customer',
});
const linked = computed(() => {
  const body = props.live.findLast((entry) => entry.body.kind === 'comeback.linked')?.body;
  return body?.kind === 'comeback.linked' ? body : undefined;
});

/** The last job of this very set that was closed before this one was opened. */
async function look(): Promise<void> {
  before.value = undefined;
  const { serial } = props.job.plate;
  if (serial === '' || linked.value) return;
  try {
    const found = await api.jobsNow({ state: 'closed', find: serial, order: 'newest', limit: 20 });
    if (!found.ok) return;
    const same = found.value.jobs.find(
      (card) => card.jobId !== props.job.id && card.serial === serial && card.closedAt !== null && card.closedAt <= props.job.openedAt,
    );
    if (!same) return;
    const old = await api.job(same.jobId);
    const closed = old.ok ? old.value.entries.findLast(({ body }) => body.kind === 'job.closed') : undefined;
    const days = closed && typeof closed.body.warrantyDays === 'number' ? closed.body.warrantyDays : 0;
    warrantyUntil.value = closed && days > 0 ? dayIn(days, new Date(closed.at)) : undefined;
    if (inWarranty.value) form.pays = 'warranty';
    before.value = same;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
}
watch(() => props.job.id, look, { immediate: true });
const inWarranty = computed(() => warrantyUntil.value !== undefined && warrantyUntil.value >= dayIn(0, new Date(props.job.openedAt)));
const day = (on: string): string => d(`${on}T12:00:00`, 'day');
function record(): void {
  if (!before.value) return;
  emit('write', [
    { kind: 'comeback.linked', v: 1, job: before.value.jobId, number: before.value.number, fault: form.fault, pays: form.pays },
  ]);
  form.open = false;
}
</script>

<template>
  <p v-if="linked" class="comeback" data-test="comeback-linked">
    <RouterLink :to="`/jobs/${linked.job}`">{{
      t('comeback.linked', {
        n: linked.number,
        fault: t(`comeback.faults.${linked.fault}`),
        pays: t(`comeback.payers.${linked.pays}`),
      })
    }}</RouterLink>
  </p>
  <div v-else-if="before" class="comeback" data-test="comeback">
    <p>
      <RouterLink :to="`/jobs/${before.jobId}`">{{
        t('comeback.before', {
          n: before.number,
          when: d(before.closedAt ?? before.openedAt, 'day'),
          outcome: t(`outcome.${before.outcome ?? 'repaired'}`).toLowerCase(),
        })
      }}</RouterLink>
      {{
        warrantyUntil === undefined
          ? t('comeback.noWarranty')
          : t(inWarranty ? 'comeback.underWarranty' : 'comeback.overWarranty', { day: day(warrantyUntil) })
      }}
      <button v-if="!form.open" type="button" class="plain" data-test="comeback-open" @click="form.open = true">
        {{ t('comeback.link') }}
      </button>
    </p>
    <form v-if="form.open" class="inline" @submit.prevent="record">
      <ChoiceField
        id="comeback-fault"
        v-model="form.fault"
        :label="t('comeback.fault')"
        :options="comebackFaults.map((value) => ({ value, label: t(`comeback.faults.${value}`) }))"
      />
      <ChoiceField
        id="comeback-pays"
        v-model="form.pays"
        :label="t('comeback.pays')"
        :options="comebackPayers.map((value) => ({ value, label: t(`comeback.payers.${value}`) }))"
      />
      <button type="submit" class="push full" data-test="comeback-record">{{ t('comeback.record') }}</button>
      <button type="button" class="plain" @click="before = undefined">{{ t('comeback.no') }}</button>
    </form>
  </div>
</template>

<style scoped>
.comeback {
  padding: 4px 10px;
  border-left: 6px solid var(--alarm);
}
form {
  align-items: end;
}
form > :deep(.field) {
  width: 220px;
}
</style>
