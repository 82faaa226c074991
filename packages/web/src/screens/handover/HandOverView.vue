<script setup lang="ts">
/** The set leaves: papers in the customer's language, the bill, a message, and who took it. */
import { printMoney, taxRuleOf } from '@veglia/contract';
import {
  invoiceOf,
  liveEntries,
  messageTemplates,
  oldPartFates,
  paperLanguages,
  paymentWays,
  type BodyOf,
  type InvoiceLine,
} from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import JobGate from '../../parts/JobGate.vue';
import TextField from '../../parts/TextField.vue';
import { useJob } from '../../stores/job.ts';
import { useSession } from '../../stores/session.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import { dayIn } from '../parts/want.ts';

defineProps<{ id: string }>();
const { t, d } = useI18n();
const store = useJob();
const session = useSession();
const shop = useShopSettings();
const names = useNames(() => store.compiled);
const live = computed(() => liveEntries(store.entries));
const last = <K extends BodyOf<'job.opened'>['kind'] | 'quote.sent' | 'set.collected' | 'job.closed'>(kind: K) =>
  live.value.findLast(({ body }) => body.kind === kind);
type Language = (typeof paperLanguages)[number];
const chosen = ref<Language>();
/** As the last quote was written, as the customer reads, as the shop has it; unless another one was picked. */
const language = computed<Language>({
  get() {
    const opened = last('job.opened')?.body;
    const quote = last('quote.sent')?.body;
    return (
      chosen.value ??
      (quote?.kind === 'quote.sent' ? quote.language : undefined) ??
      (opened?.kind === 'job.opened' ? opened.language : undefined) ??
      shop.value.customerLanguage
    );
  },
  set: (picked) => (chosen.value = picked),
});
const hasQuote = computed(() => last('quote.sent') !== undefined);
const hasModification = computed(() => live.value.some(({ body }) => body.kind === 'modification.recorded'));
const paper = (job: string, name: string): string => `/api/jobs/${job}/${name}.pdf?language=${language.value}`;

const sums = computed(() => (store.job ? invoiceOf(store.entries, store.job.settings, taxRuleOf(shop.value)) : undefined));
const bill = computed(() => sums.value?.lines ?? []);
const held = computed(() => sums.value?.rule.held ?? true);
const currency = computed(() => store.job?.settings.currency ?? 'EUR');
const money = (amountMinor: number): string => printMoney({ amountMinor, currency: currency.value });
function words(line: InvoiceLine): string {
  if (line.what === 'labour') return t('handover.line.labour', { n: Math.round(line.minutes ?? 0) });
  if (line.what === 'part') return t('handover.line.part', { what: names.assembly(line.assembly ?? ''), number: line.number ?? '' });
  return t(`handover.line.${line.what}`);
}
const closed = computed(() => {
  const entry = last('job.closed');
  return entry?.body.kind === 'job.closed' ? { at: entry.at, body: entry.body } : undefined;
});
const warrantyUntil = computed(() =>
  closed.value?.body.warrantyDays ? dayIn(closed.value.body.warrantyDays, new Date(closed.value.at)) : undefined,
);

const message = reactive<{ template: (typeof messageTemplates)[number]; said: string; failed: boolean }>({
  template: 'ready',
  said: '',
  failed: false,
});
async function send(id: string): Promise<void> {
  const by = session.person?.id;
  if (by === undefined) return;
  try {
    const reply = await api.sendMessage(id, { id: uuidv7(), by, template: message.template, language: language.value });
    const body = reply.ok ? reply.value.entries[0]?.body : undefined;
    const result = body?.result === 'sent' || body?.result === 'refused' ? body.result : 'unreachable';
    message.failed = !reply.ok || result !== 'sent';
    message.said = reply.ok
      ? t(`handover.sent.${result}`)
      : reply.problem.code === 'not-found'
        ? t('handover.noGateway')
        : reply.problem.title;
    await store.catchUp();
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    message.failed = true;
    message.said = t('common.notReached');
  }
}

interface CollectForm {
  who: string;
  oldPart: (typeof oldPartFates)[number] | '';
  payment: (typeof paymentWays)[number] | '';
}
const form = reactive<CollectForm>({ who: '', oldPart: '', payment: '' });
const wrong = ref('');
const collected = computed(() => {
  const entry = live.value.findLast(({ body }) => body.kind === 'set.collected' || body.kind === 'job.reopened');
  return entry?.body.kind === 'set.collected' ? entry : undefined;
});
async function collect(): Promise<void> {
  const { payment } = form;
  wrong.value = payment === '' ? t('handover.choosePayment') : '';
  if (payment === '') return;
  const paid = payment === 'cash' || payment === 'card' ? { paid: { amountMinor: sums.value?.total ?? 0, currency: currency.value } } : {};
  await store.write({
    kind: 'set.collected',
    v: 1,
    payment,
    ...(form.who.trim() === '' ? {} : { who: form.who.trim() }),
    ...(form.oldPart === '' ? {} : { oldPart: form.oldPart }),
    ...paid,
  });
}
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold }">
    <header class="head">
      <h1>
        <span class="figure">{{ t('bench.job', { n: job.number }) }}</span> {{ t('handover.title') }}
        <span class="soft">{{ job.plate.maker }} {{ job.plate.model }}</span>
      </h1>
      <span class="inline">
        <RouterLink v-if="!fold.closed" :to="`/jobs/${id}/close`" class="push full">{{ t('handover.toClose') }}</RouterLink>
        <RouterLink :to="`/jobs/${id}`" class="push">{{ t('handover.toBench') }}</RouterLink>
      </span>
    </header>
    <p v-if="!fold.closed" class="sheet">{{ t('handover.notClosed') }}</p>
    <div class="columns">
      <section class="sheet stack">
        <div class="line">
          <h2>{{ t('handover.papers') }}</h2>
          <ChoiceField
            id="paper-language"
            v-model="language"
            :label="t('language.label')"
            :options="paperLanguages.map((value) => ({ value, label: t(`language.${value}`) }))"
          />
        </div>
        <div class="inline" data-test="papers">
          <a class="push full" :href="paper(id, 'report')" target="_blank">{{ t('handover.report') }}</a>
          <a class="push full" :href="paper(id, 'invoice')" target="_blank">{{ t('handover.invoice') }}</a>
          <a v-if="hasQuote" class="push" :href="paper(id, 'quote')" target="_blank">{{ t('handover.quote') }}</a>
          <a v-if="hasModification" class="push" :href="`/api/jobs/${id}/modification.pdf`" target="_blank">{{
            t('handover.modification')
          }}</a>
        </div>
        <h2>{{ t('handover.inHouse') }}</h2>
        <div class="inline">
          <a class="push" :href="`/api/jobs/${id}/readings.pdf`" target="_blank">{{ t('handover.readings') }}</a>
          <a class="push" :href="`/api/jobs/${id}/help.txt`" target="_blank">{{ t('handover.help') }}</a>
        </div>
        <h2>{{ t('handover.message') }}</h2>
        <p v-if="!job.customer?.contact" class="soft">{{ t('handover.noContact') }}</p>
        <form v-else class="inline bottom" @submit.prevent="send(id)">
          <ChoiceField
            id="message-about"
            v-model="message.template"
            :label="t('handover.about')"
            :options="messageTemplates.map((value) => ({ value, label: t(`handover.template.${value}`) }))"
          />
          <button type="submit" class="push" data-test="send-message">{{ t('handover.send') }}</button>
        </form>
        <p v-if="message.said" :class="{ alarm: message.failed }" :role="message.failed ? 'alert' : 'status'" data-test="message-said">
          {{ message.said }}
        </p>
      </section>
      <div class="stack">
        <section class="sheet" data-test="bill">
          <h2>{{ t('handover.bill') }}</h2>
          <p v-if="bill.length === 0">{{ t('handover.nothing') }}</p>
          <table v-else>
            <tbody>
              <tr v-for="(line, index) in bill" :key="index">
                <td>{{ words(line) }}</td>
                <td class="reading">{{ money(line.amountMinor) }}</td>
              </tr>
            </tbody>
            <tfoot>
              <template v-for="rate in sums?.rates ?? []" :key="rate.basisPoints">
                <tr v-if="rate.basisPoints > 0 && !held">
                  <td>{{ t('handover.taxOnTop', { percent: rate.basisPoints / 100 }) }}</td>
                  <td class="reading">{{ money(rate.tax) }}</td>
                </tr>
              </template>
              <tr class="total">
                <th>{{ t('handover.total') }}</th>
                <td class="reading">{{ money(sums?.total ?? 0) }}</td>
              </tr>
              <template v-for="rate in sums?.rates ?? []" :key="rate.basisPoints">
                <tr v-if="rate.basisPoints > 0 && held" class="soft">
                  <td>{{ t('handover.tax', { percent: rate.basisPoints / 100 }) }}</td>
                  <td class="reading">{{ money(rate.tax) }}</td>
                </tr>
              </template>
            </tfoot>
          </table>
          <p v-if="warrantyUntil">{{ t('handover.warranty', { day: d(`${warrantyUntil}T12:00:00`, 'day') }) }}</p>
        </section>
        <section class="sheet">
          <h2>{{ t('handover.collect') }}</h2>
          <p v-if="collected" role="status" data-test="collected">{{ t('handover.collected', { when: d(collected.at, 'minute') }) }}</p>
          <form v-else-if="fold.closed" class="fields" novalidate @submit.prevent="collect">
            <TextField id="collect-who" v-model="form.who" :label="t('handover.who')" :bounds="{ longest: 200 }" />
            <ChoiceField
              id="collect-payment"
              v-model="form.payment"
              :label="t('handover.payment')"
              :error="wrong"
              :options="paymentWays.map((value) => ({ value, label: t(`handover.payments.${value}`) }))"
            />
            <ChoiceField
              id="collect-old"
              v-model="form.oldPart"
              :label="t('handover.oldPart')"
              :none="t('handover.noOldPart')"
              :options="oldPartFates.map((value) => ({ value, label: t(`handover.oldParts.${value}`) }))"
            />
            <button type="submit" class="push full bottom" data-test="record-collected">{{ t('handover.record') }}</button>
          </form>
        </section>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.head,
.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 10px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 10px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 10px;
}
.inline.bottom {
  align-items: end;
}
.line > :deep(.field),
.inline.bottom > :deep(.field) {
  width: 240px;
}
table {
  width: 100%;
  border-collapse: collapse;
}
td,
th {
  padding: 5px 0;
  border-top: 1px solid var(--line);
  text-align: left;
}
td.reading {
  text-align: right;
}
.total {
  font-size: 18px;
  font-weight: 700;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
