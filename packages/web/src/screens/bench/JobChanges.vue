<script setup lang="ts">
/** What was agreed or said of a job, changed: shelf, promised date, limits; and a closed job opened again, with the reason. */
import { boundsOf, parseAmount, plainAmount } from '@veglia/contract';
import { bodySchemas, type Body, type CaseFold, type Entry } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { parseBetween } from '../../numbers.ts';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';

const props = defineProps<{ fold: CaseFold; live: readonly Entry[]; currency: string }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t } = useI18n();
const last = <K extends Body['kind']>(kind: K): Extract<Body, { kind: K }> | undefined =>
  props.live.findLast(({ body }) => body.kind === kind)?.body as Extract<Body, { kind: K }> | undefined;
const now = computed(() => ({
  shelf: last('set.shelved')?.shelf ?? '',
  promised: last('date.promised')?.on ?? '',
  limit: props.fold.spent.limit ? plainAmount(props.fold.spent.limit.amountMinor, props.currency) : '',
  minutes: props.fold.spent.limitMinutes === undefined ? '' : String(props.fold.spent.limitMinutes),
}));
const open = ref(false);
const form = reactive({ shelf: '', promised: '', limit: '', minutes: '', reason: '', trial: '', trialWhy: '' });
const wrong = ref<Partial<Record<'limit' | 'minutes' | 'reason', string>>>({});
const shelfBounds = boundsOf(bodySchemas['set.shelved'].shape.shelf);
const minuteBounds = { ...boundsOf(bodySchemas['limit.agreed'].shape.minutes), least: 1 };
const reasonBounds = boundsOf(bodySchemas['job.reopened'].shape.reason);
function show(): void {
  open.value = !open.value;
  wrong.value = {};
  Object.assign(form, now.value, { reason: '', trial: '', trialWhy: '' });
}
function record(): void {
  const limit = parseAmount(form.limit, props.currency);
  const minutes = parseBetween(form.minutes, minuteBounds, true);
  wrong.value = {
    ...(form.limit.trim() !== '' && limit === undefined ? { limit: t('counter.errors.limit', { value: form.limit }) } : {}),
    ...(form.minutes.trim() !== '' && minutes === undefined ? { minutes: t('changes.minutesWrong', minuteBounds) } : {}),
  };
  if (Object.keys(wrong.value).length > 0) return;
  const was = now.value;
  const agreed = {
    ...(form.limit !== was.limit && limit !== undefined ? { limit: { amountMinor: limit, currency: props.currency } } : {}),
    ...(form.minutes !== was.minutes && minutes !== undefined ? { minutes } : {}),
  };
  const bodies: Body[] = [
    ...(form.shelf.trim() !== '' && form.shelf.trim() !== was.shelf
      ? [{ kind: 'set.shelved' as const, v: 1 as const, shelf: form.shelf.trim() }]
      : []),
    ...(form.promised !== '' && form.promised !== was.promised
      ? [{ kind: 'date.promised' as const, v: 1 as const, on: form.promised }]
      : []),
    ...(form.trial === ''
      ? []
      : [
          {
            kind: 'trial.started' as const,
            v: 1 as const,
            until: form.trial,
            ...(form.trialWhy.trim() === '' ? {} : { why: form.trialWhy.trim() }),
          },
        ]),
    ...(Object.keys(agreed).length > 0 ? [{ kind: 'limit.agreed' as const, v: 2 as const, ...agreed }] : []),
  ];
  if (bodies.length > 0) emit('write', bodies);
  open.value = false;
}
function reopen(): void {
  const reason = form.reason.trim();
  wrong.value = reason === '' ? { reason: t('changes.reasonFirst') } : {};
  if (reason === '') return;
  emit('write', [{ kind: 'job.reopened', v: 1, reason }]);
  open.value = false;
}
</script>

<template>
  <span class="changes">
    <button type="button" class="plain" :aria-expanded="open" data-test="job-changes" @click="show">
      {{ t(fold.closed ? 'changes.reopen' : 'changes.open') }}
    </button>
    <form v-if="open && fold.closed" class="sheet fields" data-test="reopen-form" @submit.prevent="reopen">
      <TextField
        id="reopen-reason"
        v-model="form.reason"
        class="wide"
        :label="t('changes.reason')"
        :error="wrong.reason"
        :bounds="reasonBounds"
      />
      <button type="submit" class="push full" data-test="reopen">{{ t('changes.reopen') }}</button>
    </form>
    <form v-else-if="open" class="sheet fields" data-test="changes-form" @submit.prevent="record">
      <TextField id="change-shelf" v-model="form.shelf" :label="t('changes.shelf')" :bounds="shelfBounds" />
      <FormField id="change-promised" :label="t('counter.promised')">
        <el-date-picker id="change-promised" v-model="form.promised" value-format="YYYY-MM-DD" :aria-label="t('counter.promised')" />
      </FormField>
      <TextField
        id="change-limit"
        v-model="form.limit"
        :label="t('changes.limit', { currency })"
        :error="wrong.limit"
        inputmode="decimal"
      />
      <TextField id="change-minutes" v-model="form.minutes" :label="t('changes.minutes')" :error="wrong.minutes" inputmode="numeric" />
      <FormField id="change-trial" :label="t('trial.until')">
        <el-date-picker id="change-trial" v-model="form.trial" value-format="YYYY-MM-DD" :aria-label="t('trial.until')" />
      </FormField>
      <TextField id="change-trial-why" v-model="form.trialWhy" :label="t('trial.why')" />
      <button type="submit" class="push full" data-test="record-changes">{{ t('changes.record') }}</button>
    </form>
  </span>
</template>

<style scoped>
.changes {
  position: relative;
  margin-block: -8px;
}
form {
  position: absolute;
  right: 0;
  top: 100%;
  z-index: 30;
  width: min(440px, 90vw);
  box-shadow: 0 4px 16px rgb(0 0 0 / 25%);
}
</style>
