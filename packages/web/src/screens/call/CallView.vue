<script setup lang="ts">
/** The call sheet: what is known in three plain sentences, the price, the warnings, and what they said, with who and when. */
import { parseAmount, plainAmount, taxRuleOf } from '@veglia/contract';
import {
  answerWays,
  liveEntries,
  paperLanguages,
  partsOf,
  quoteLines,
  quoteOptions,
  mayHideSecond,
  type BillBar,
  type Body,
  type BodyOf,
  type CaseFold,
} from '@veglia/core';
import { computed, reactive, ref, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { billOption } from '../../charts/bill.ts';
import ChartFrame from '../../charts/ChartFrame.vue';
import { money, percent, roundMoney, useNames } from '../../names.ts';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import ChoiceField from '../../parts/ChoiceField.vue';
import JobGate from '../../parts/JobGate.vue';
import { useLikelyBill } from '../../stores/deeper.ts';
import { useNow } from '../../stores/clock.ts';
import { useJob } from '../../stores/job.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import { dayIn } from '../parts/want.ts';
import QuoteLines from './QuoteLines.vue';
import { useSession } from '../../stores/session.ts';

defineProps<{ id: string }>();
const { t, d } = useI18n();
const store = useJob();
const session = useSession();
const names = useNames(() => store.compiled);
const bill = useLikelyBill();
type Option = (typeof quoteOptions)[number];
interface CallForm {
  low: string;
  high: string;
  options: Option[];
  who: string;
  option: Option;
  how: (typeof answerWays)[number];
  itemised: boolean;
  /** Undefined: as the shop has it. */
  valid: string | undefined;
  language: (typeof paperLanguages)[number] | '';
  flaw: string;
}
const form = reactive<CallForm>({
  low: '',
  high: '',
  options: ['repair'],
  who: '',
  option: 'repair',
  how: 'phone',
  itemised: false,
  valid: undefined,
  language: '',
  flaw: '',
});
const shop = useShopSettings();
const now = useNow();
const wrong = reactive<Record<string, string>>({});
const told = ref(false);

watch(
  () => [store.input, store.compiled] as const,
  ([input, compiled]) => {
    if (input && compiled && store.fold?.closed === false) bill.look(input, compiled);
    else bill.forget();
  },
  { immediate: true },
);
const currency = computed(() => store.job?.settings.currency ?? 'EUR');
const spent = computed(() => store.fold?.spent.total.amountMinor ?? 0);
/** To the next five, spent time included: what the whole job is likely to come to. */
const total = (minor: number): number => Math.round((minor + spent.value) / 500) * 500;
const range = ({ from, to }: BillBar): string => `${plainAmount(from, currency.value)}–${plainAmount(to, currency.value)}`;
const plain = (minor: number): string => roundMoney({ amountMinor: minor, currency: currency.value });
watch(
  () => bill.answer.value,
  (spread) => {
    // What was typed stands; an empty field takes the likely end.
    if (!spread) return;
    form.low ||= plainAmount(total(spread.low), currency.value);
    form.high ||= plainAmount(total(spread.high), currency.value);
  },
);

const bodies = computed(() => store.entries.map((entry) => entry.body));
const last = <K extends Body['kind']>(kind: K): BodyOf<K> | undefined =>
  bodies.value.findLast((body) => body.kind === kind) as BodyOf<K> | undefined;
const opened = computed(() => last('job.opened'));
const limit = computed(() => store.fold?.spent.limit);
const overLimit = computed(() => store.fold?.spent.over.money === true);

function known(fold: CaseFold): string {
  const [first, second] = fold.assemblies;
  if (!first) return t('call.nothingKnown');
  // Only what this set has, and what an observation ruled out.
  const here = store.compiled?.layouts.get(fold.set.layout ?? '')?.assemblies;
  const out = fold.assemblies
    .filter(({ id, verdict, ruledOutBy }) => verdict === 'cleared' && ruledOutBy !== undefined && (here?.includes(id) ?? false))
    .map((one) => names.assembly(one.id));
  const values = {
    first: names.assembly(first.id),
    probability: percent(first.probability),
    second: second ? names.assembly(second.id) : '',
    secondProbability: percent(second?.probability ?? 0),
  };
  const verdict =
    first.verdict === 'proven' ? t('call.proven', values) : first.probability >= 0.6 ? t('call.likely', values) : t('call.open', values);
  return out.length > 0 ? `${verdict} ${t('call.ruledOut', { what: out.slice(0, 5).join(', ') })}` : verdict;
}
/** Parts this job needs or got; where none is on record yet, the likeliest assembly at its share of a new set. */
const parts = computed(() =>
  partsOf(liveEntries(store.entries))
    .filter(({ state }) => state !== 'sent-back' && state !== 'dropped')
    .map(({ assembly, number, price }) => ({ assembly, number, amountMinor: price.amountMinor })),
);
const nextRepair = computed(() => store.fold?.next.find(({ kind }) => kind === 'repair'));
const facts = computed(() => {
  const { settings } = store.job ?? {};
  const repair = store.compiled?.pack.repairs.find(({ id }) => id === nextRepair.value?.id);
  const guessed =
    repair && settings && repair.partShare > 0
      ? [{ assembly: repair.assembly, amountMinor: Math.round(repair.partShare * settings.newSetMinor) }]
      : [];
  return {
    option: 'repair' as const,
    minutesSpent: store.fold?.spent.minutes ?? 0,
    minutesToCome: nextRepair.value?.kind === 'repair' ? nextRepair.value.minutes : 0,
    parts: parts.value.length > 0 ? parts.value : guessed,
    rateMinorPerHour: settings?.rateMinorPerHour ?? 0,
    diagnosticFeeMinor: last('limit.agreed')?.checkFee?.amountMinor ?? shop.value.checkFeeMinor,
    currency: currency.value,
  };
});
const lines = computed(() => quoteLines(facts.value));
const lineSum = computed(() => lines.value.reduce((sum, { amount }) => sum + amount.amountMinor, 0));
/** Once a part is picked, its price is known. */
watch(
  () => parts.value.length > 0,
  (known) => (form.itemised = known),
  { immediate: true },
);
watch(
  () => [form.itemised, lineSum.value] as const,
  ([on, sum]) => {
    if (!on) return;
    form.low = plainAmount(sum, currency.value);
    if ((parseAmount(form.high, currency.value) ?? 0) < sum) form.high = form.low;
  },
  { immediate: true },
);
/** The customer’s, or the shop’s; job and settings come a moment after the screen. */
const language = computed({
  get: () => form.language || (opened.value?.language ?? shop.value.customerLanguage),
  set: (chosen) => (form.language = chosen),
});
/** A picker that was emptied says null: a quote without a last day. */
const valid = computed<string | null>({
  get: () => form.valid ?? dayIn(shop.value.quoteDays, new Date(now.value)),
  set: (day) => (form.valid = day ?? ''),
});
/** Something will not work as before: the customer agrees to that in writing. */
const losing: readonly Option[] = ['with-known-flaw', 'workaround'];
const asksFlaw = computed(() => form.options.some((one) => losing.includes(one)));
const lastQuote = computed(() => last('quote.sent'));
const expired = computed(() => {
  const until = lastQuote.value?.validUntil;
  return until !== undefined && until < dayIn(0, new Date(now.value)) ? until : undefined;
});
const quotes = computed(() => store.entries.filter(({ body }) => body.kind === 'quote.sent' || body.kind === 'quote.answered').reverse());
const personName = (id: string): string => session.people.find((one) => one.id === id)?.name ?? '';

async function send(): Promise<void> {
  for (const key of Object.keys(wrong)) delete wrong[key];
  const low = parseAmount(form.low, currency.value);
  const high = parseAmount(form.high, currency.value);
  if (low === undefined) wrong.low = t('counter.errors.limit', { value: form.low });
  if (high === undefined || (low !== undefined && high < low)) wrong.high = t('call.errors.high', { value: form.high });
  if (asksFlaw.value && form.flaw.trim() === '') wrong.flaw = t('quoteForm.flawFirst');
  if (low === undefined || high === undefined || high < low || wrong.flaw !== undefined) return;
  const amount = (amountMinor: number) => ({ amountMinor, currency: currency.value });
  await store.write({
    kind: 'quote.sent',
    v: 2,
    total: amount(low),
    upTo: amount(high),
    options: [...form.options],
    ...(form.itemised && low === lineSum.value ? { lines: lines.value } : {}),
    tax: taxRuleOf(shop.value),
    ...(valid.value ? { validUntil: valid.value } : {}),
    language: language.value,
    ...(asksFlaw.value ? { flaw: form.flaw.trim() } : {}),
  });
  told.value = true;
}
async function answer(said: 'yes' | 'no' | 'later'): Promise<void> {
  const who = form.who.trim();
  const spoken = form.how === 'phone' || form.how === 'in-person';
  if (said === 'yes' && losing.includes(form.option) && spoken) {
    wrong.how = t('quoteForm.writing');
    return;
  }
  delete wrong.how;
  await store.write({
    kind: 'quote.answered',
    v: 2,
    answer: said,
    ...(said === 'yes' ? { option: form.option } : {}),
    ...(who === '' ? {} : { who }),
    how: form.how,
  });
  told.value = false;
}
</script>

<template>
  <JobGate :id="id" v-slot="{ job, fold }">
    <div class="band">
      <h1>{{ t('call.title', { n: job.number }) }}</h1>
      <span class="line">
        <RouterLink :to="`/jobs/${id}/worth`" class="push" data-test="to-worth">{{ t('quoteForm.toWorth') }}</RouterLink>
        <RouterLink :to="`/jobs/${id}/parts`" class="push">{{ t('parts.title') }}</RouterLink>
        <RouterLink :to="`/jobs/${id}`" class="push">{{ t('call.back') }}</RouterLink>
      </span>
    </div>
    <div class="pair">
      <section class="sheet say" data-test="call-sheet">
        <p v-if="job.customer" class="who">
          {{ job.customer.name }} <strong class="reading">{{ job.customer.contact }}</strong>
        </p>
        <p v-else class="who">{{ t('common.noCustomer') }}</p>
        <p>
          {{
            t('call.taken', {
              set: `${job.plate.maker} ${job.plate.model}`.trim(),
              when: d(job.openedAt, 'day'),
              what: fold.symptoms.map((one) => names.symptom(one)).join(', '),
            })
          }}
        </p>
        <p>{{ known(fold) }}</p>
        <p v-if="bill.answer.value" data-test="call-price">
          {{
            t(total(bill.answer.value.low) === total(bill.answer.value.high) ? 'call.priceOne' : 'call.price', {
              low: plain(total(bill.answer.value.low)),
              high: plain(total(bill.answer.value.high)),
              middle: plain(total(bill.answer.value.middle)),
              unrepaired: percent(bill.answer.value.givenUp),
            })
          }}
          {{ spent > 0 ? t('call.spent', { amount: plain(spent) }) : '' }}
        </p>
        <p v-else class="soft">{{ t('counter.bill.working') }}</p>
        <ul class="warn">
          <li v-if="store.input && store.compiled && mayHideSecond(store.input, store.compiled)" class="alarm">
            {{ t('counter.hiddenFault') }}
          </li>
          <li v-if="opened?.warranty === 'running'" class="alarm">{{ t('counter.opensWarranty') }}</li>
          <li v-if="overLimit && limit" class="alarm">{{ t('call.overLimit', { amount: money(limit) }) }}</li>
          <li v-else-if="limit">{{ t('call.limit', { amount: money(limit) }) }}</li>
          <li v-if="opened?.mayLoseData === undefined">{{ t('call.askData') }}</li>
          <li v-else-if="!opened.mayLoseData">{{ t('core.paper.keepData') }}</li>
          <li v-if="fold.assemblies[0]?.id === 'panel'">{{ t('call.panel') }}</li>
        </ul>
        <ChartFrame
          v-if="bill.answer.value"
          :title="t('chart.bill.title')"
          :file="`job-${job.number}-bill`"
          :head="[t('chart.bill.amount', { currency }), t('chart.bill.cured'), t('chart.bill.givenUp')]"
          :rows="bill.answer.value.bars.map((bar) => [range(bar), percent(bar.cured), percent(bar.givenUp)])"
          :option="
            (colours) =>
              billOption(colours, bill.answer.value?.bars ?? [], {
                title: t('chart.bill.title'),
                amount: t('chart.bill.amount', { currency }),
                probability: t('chart.probability'),
                cured: t('chart.bill.cured'),
                givenUp: t('chart.bill.givenUp'),
                range,
              })
          "
        />
      </section>
      <div class="stack">
        <section class="sheet stack">
          <h2>{{ t('call.offer') }}</h2>
          <div class="two">
            <TextField id="low" v-model="form.low" :label="t('call.from', { currency })" :error="wrong.low" inputmode="decimal" />
            <TextField id="high" v-model="form.high" :label="t('call.to', { currency })" :error="wrong.high" inputmode="decimal" />
          </div>
          <el-checkbox v-model="form.itemised" data-test="itemised">{{ t('quoteForm.lines') }}</el-checkbox>
          <QuoteLines
            v-if="form.itemised"
            :lines="lines"
            :names="names"
            :spent="facts.minutesSpent"
            :coming="facts.minutesToCome"
            :currency="currency"
          />
          <div class="two">
            <FormField id="quote-valid" :label="t('quoteForm.valid')">
              <el-date-picker id="quote-valid" v-model="valid" type="date" value-format="YYYY-MM-DD" />
            </FormField>
            <ChoiceField
              id="quote-language"
              v-model="language"
              :label="t('language.label')"
              :options="paperLanguages.map((value) => ({ value, label: t(`language.${value}`) }))"
            />
          </div>
          <el-checkbox-group v-model="form.options" :aria-label="t('call.options')">
            <el-checkbox v-for="one in quoteOptions" :key="one" :value="one">{{ t(`quoteOption.${one}`) }}</el-checkbox>
          </el-checkbox-group>
          <TextField v-if="asksFlaw" id="quote-flaw" v-model="form.flaw" :rows="2" :label="t('quoteForm.flaw')" :error="wrong.flaw" />
          <button type="button" class="push full" data-test="told" @click="send">{{ t('call.told') }}</button>
          <template v-if="told || quotes.length > 0">
            <p v-if="expired" class="alarm" data-test="quote-expired">
              {{ t('quoteForm.expired', { day: d(`${expired}T12:00:00`, 'day') }) }}
            </p>
            <a :href="`/api/jobs/${id}/quote.pdf`" target="_blank" data-test="quote-pdf">{{ t('quoteForm.pdf') }}</a>
            <TextField id="who" v-model="form.who" :label="t('call.who')" />
            <ChoiceField
              id="answer-how"
              v-model="form.how"
              :label="t('quoteForm.how')"
              :error="wrong.how"
              :options="answerWays.map((value) => ({ value, label: t(`quoteForm.howWays.${value}`) }))"
            />
            <FormField id="option" :label="t('call.chosen')">
              <el-select id="option" v-model="form.option">
                <el-option v-for="one in quoteOptions" :key="one" :value="one" :label="t(`quoteOption.${one}`)" />
              </el-select>
            </FormField>
            <div class="line">
              <button
                v-for="one in ['yes', 'no', 'later'] as const"
                :key="one"
                type="button"
                class="push"
                :data-test="`said-${one}`"
                @click="answer(one)"
              >
                {{ t(`call.said.${one}`) }}
              </button>
            </div>
          </template>
        </section>
        <section class="sheet" data-test="quotes">
          <h2>{{ t('call.log') }}</h2>
          <p v-if="quotes.length === 0" class="soft">{{ t('call.logEmpty') }}</p>
          <ul v-else>
            <li v-for="{ id: entryId, at, by, body } in quotes" :key="entryId" class="entry">
              <template v-if="body.kind === 'quote.sent'">
                {{ t('call.sent', { low: money(body.total), high: money(body.upTo ?? body.total) }) }}
                <span class="soft">{{ (body.options ?? []).map((one) => t(`quoteOption.${one}`)).join(', ') }}</span>
              </template>
              <template v-else-if="body.kind === 'quote.answered'">
                <strong>{{ t(`call.said.${body.answer}`) }}</strong>
                {{ body.option ? t(`quoteOption.${body.option}`) : '' }} {{ body.how ? t(`quoteForm.howWays.${body.how}`) : '' }}
                {{ body.who ? t('call.byWhom', { who: body.who }) : '' }}
              </template>
              <span class="soft">{{ d(at, 'minute') }}, {{ personName(by) }}</span>
            </li>
          </ul>
        </section>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.band,
.line {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  gap: 8px 16px;
  align-items: center;
}
.line {
  justify-content: flex-start;
}
.pair {
  display: grid;
  grid-template-columns: minmax(0, 1.2fr) minmax(0, 1fr);
  gap: 16px;
  margin-top: 10px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 12px;
}
.say p {
  font-size: 20px;
  margin-bottom: 14px;
}
.say .who {
  font-size: 24px;
}
.warn li {
  padding: 4px 0 4px 14px;
  border-left: 4px solid var(--line);
  margin-bottom: 6px;
}
.warn .alarm {
  border-left-color: var(--alarm);
}
.entry {
  display: grid;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
@media (max-width: 900px) {
  .pair {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
