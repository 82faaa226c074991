<script setup lang="ts">
/** Repair or not: what each option costs to its end, how it ends, what it leaves the customer, and where the repair stops paying. */
import { parseAmount, plainAmount } from '@veglia/contract';
import { liveEntries, worthShare, type JobWorth, type OptionWorth, type WorthOffer } from '@veglia/core';
import { computed, onMounted, reactive, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import ChartFrame from '../../charts/ChartFrame.vue';
import { worthOption } from '../../charts/worth.ts';
import { percent, roundMoney, useNames } from '../../names.ts';
import { parseBetween } from '../../numbers.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import JobGate from '../../parts/JobGate.vue';
import TextField from '../../parts/TextField.vue';
import { askWorth } from '../../stores/deeper.ts';
import { useJob } from '../../stores/job.ts';
import { useSession } from '../../stores/session.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';

defineProps<{ id: string }>();
const { t } = useI18n();
const store = useJob();
const shop = useShopSettings();
const names = useNames(() => store.compiled);
const currency = computed(() => store.job?.settings.currency ?? 'EUR');
const form = reactive({ age: '', newSet: '', donor: '0' });
const offer = reactive<{ option: WorthOffer['option']; price: string; works: string; lost: string }>({
  option: 'workaround',
  price: '',
  works: '90',
  lost: '20',
});
const offers = shallowRef<readonly WorthOffer[]>([]);
const wrong = ref<Partial<Record<'age' | 'newSet' | 'donor' | 'price' | 'works' | 'lost', string>>>({});
const worth = shallowRef<JobWorth>();
const looked = ref(false);

const fee = computed(() => {
  const agreed = liveEntries(store.entries).findLast(({ body }) => body.kind === 'limit.agreed' && body.checkFee !== undefined)?.body;
  return agreed?.kind === 'limit.agreed' ? (agreed.checkFee?.amountMinor ?? 0) : shop.value.checkFeeMinor;
});
watch(
  () => store.input,
  (input) => {
    if (!input) return;
    form.age ||= input.set.ageYears === undefined ? '' : String(input.set.ageYears);
    form.newSet ||= plainAmount(input.settings.newSetMinor, currency.value);
  },
  { immediate: true },
);
const ages = { least: 0, most: 60 };
const shares = { least: 0, most: 100 };
const age = computed(() => (form.age.trim() === '' ? undefined : parseBetween(form.age, ages)));
const newSet = computed(() => parseAmount(form.newSet, currency.value));
const donor = computed(() => parseAmount(form.donor, currency.value));
const session = useSession();
const paces = ref(new Map<string, { factor: number; jobs: number }>());
/** Nobody: by the book. */
const chosenDoer = ref<string>();
const doer = computed({ get: () => chosenDoer.value ?? session.person?.id ?? '', set: (id) => (chosenDoer.value = id) });
const pace = computed(() => paces.value.get(doer.value));
const minutesOf = (id: string): number => Math.round((worth.value?.minutesByBook ?? 0) * (paces.value.get(id)?.factor ?? 1));
const doers = computed(() =>
  [{ id: '', name: t('worth.byBook') }, ...session.people.filter(({ left }) => !left)].map(({ id: value, name: of }) => ({
    value,
    label: t('worth.whoMinutes', { name: of, minutes: minutesOf(value) }),
  })),
);
const doerName = computed(() => session.people.find(({ id: one }) => one === doer.value)?.name ?? '');
onMounted(async () => {
  try {
    const reply = await api.paces();
    if (reply.ok) paces.value = new Map(reply.value.map(({ person, factor, jobs }) => [person, { factor, jobs }]));
  } catch (error) {
    // Without them the book's time stands for everybody, as it says.
    if (!(error instanceof NotReached)) throw error;
  }
});
let asked = 0;
watch(
  () => [store.input, store.compiled, age.value, newSet.value, donor.value, offers.value, fee.value, pace.value] as const,
  async ([input, compiled, ageYears, newSetMinor, donorMinor, all, feeMinor, own]) => {
    wrong.value = {
      ...(form.age.trim() !== '' && ageYears === undefined ? { age: t('worth.errors.age', { value: form.age }) } : {}),
      ...(newSetMinor === undefined && form.newSet !== '' ? { newSet: t('worth.errors.amount', { value: form.newSet }) } : {}),
      ...(donorMinor === undefined ? { donor: t('worth.errors.amount', { value: form.donor }) } : {}),
    };
    if (!input || !compiled || newSetMinor === undefined || donorMinor === undefined || Object.keys(wrong.value).length > 0) return;
    const mine = (asked += 1);
    const answer = await askWorth(input, compiled, {
      ageYears,
      newSetMinor,
      donorMinor,
      feeMinor,
      offers: [...all],
      pace: own?.factor ?? 1,
    });
    if (mine !== asked) return;
    worth.value = answer;
    looked.value = true;
  },
  { immediate: true },
);
function add(): void {
  const minor = parseAmount(offer.price, currency.value);
  const works = parseBetween(offer.works, shares);
  const lost = parseBetween(offer.lost, shares);
  const found = {
    ...(minor === undefined ? { price: t('worth.errors.amount', { value: offer.price }) } : {}),
    ...(works === undefined ? { works: t('worth.errors.percent', { value: offer.works }) } : {}),
    ...(lost === undefined ? { lost: t('worth.errors.percent', { value: offer.lost }) } : {}),
  };
  wrong.value = found;
  if (minor === undefined || works === undefined || lost === undefined) return;
  offers.value = [
    ...offers.value.filter(({ option }) => option !== offer.option),
    { option: offer.option, minor, works: works / 100, lossShare: lost / 100 },
  ];
  offer.price = '';
}
const money = (amountMinor: number): string => roundMoney({ amountMinor: Math.round(amountMinor / 100) * 100, currency: currency.value });
const name = ({ option }: Pick<OptionWorth, 'option'>): string => t(`quoteOption.${option}`);
const chances = (one: OptionWorth): string[] => [percent(one.works), percent(one.withLoss), percent(one.fails)];
const addable = ['with-known-flaw', 'workaround', 'donor'] as const;
const checkName = computed(() => {
  const [test = '', of] = (worth.value?.check?.id ?? '').split('|');
  return names.test(test, of);
});
</script>

<template>
  <JobGate :id="id" v-slot="{ job }">
    <header class="head">
      <h1>
        <span class="figure">{{ t('bench.job', { n: job.number }) }}</span> {{ t('worth.title') }}
        <span class="soft">{{ job.plate.maker }} {{ job.plate.model }}</span>
      </h1>
      <span class="inline">
        <RouterLink :to="`/jobs/${id}/call`" class="push">{{ t('worth.toCall') }}</RouterLink>
        <RouterLink :to="`/jobs/${id}`" class="push">{{ t('worth.toBench') }}</RouterLink>
      </span>
    </header>
    <p v-if="!looked" class="soft" role="status">{{ t('worth.working') }}</p>
    <p v-else-if="!worth" class="sheet">{{ t('worth.nothing') }}</p>
    <div v-else class="columns">
      <section class="sheet stack" data-test="worth">
        <h2>{{ t('worth.options') }}</h2>
        <div class="scroll">
          <table>
            <thead>
              <tr>
                <th>{{ t('worth.option') }}</th>
                <th class="right">{{ t('worth.cost') }}</th>
                <th class="right">{{ t('worth.works') }}</th>
                <th class="right" :title="t('worth.netHelp')">{{ t('worth.net') }}</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="(one, index) in worth.options" :key="one.option" :data-option="one.option">
                <td>
                  <strong>{{ name(one) }}</strong>
                  <span v-if="index === 0" class="best">{{ t('worth.best') }}</span>
                </td>
                <td class="right">
                  <span class="reading">{{ money(one.expectedMinor) }}</span>
                  <span v-if="one.lowMinor !== one.highMinor" class="soft range">{{
                    t('worth.range', { low: money(one.lowMinor), high: money(one.highMinor) })
                  }}</span>
                </td>
                <td class="right">{{ one.works + one.withLoss === 0 ? '–' : percent(one.works + one.withLoss) }}</td>
                <td class="right reading">{{ money(one.netMinor) }}</td>
              </tr>
            </tbody>
          </table>
        </div>
        <p class="soft">{{ t('worth.netHelp') }}. {{ t('worth.spread') }}</p>
        <p data-test="break-even">
          {{
            worth.breakEvenMinor > 0
              ? t('worth.breakEven', { amount: money(worth.breakEvenMinor), minutes: worth.breakEvenMinutes })
              : t('worth.noBreakEven')
          }}
        </p>
        <p data-test="check-worth">
          {{
            worth.check
              ? t('worth.check', { worth: money(worth.check.worthMinor), what: checkName, cost: money(worth.check.costMinor) })
              : t('worth.noCheck')
          }}
        </p>
        <ChartFrame
          :title="t('worth.chart')"
          :file="`job-${job.number}-options`"
          :head="[t('worth.option'), t('worth.works'), t('worth.loss'), t('worth.fails')]"
          :rows="worth.options.map((one) => [name(one), ...chances(one)])"
          :option="
            (colours) =>
              worthOption(colours, worth?.options ?? [], {
                title: t('worth.chart'),
                probability: t('chart.probability'),
                works: t('worth.works'),
                loss: t('worth.loss'),
                fails: t('worth.fails'),
                option: name,
              })
          "
        />
      </section>
      <div class="stack">
        <section class="sheet fields">
          <h2 class="wide">{{ t('worth.about') }}</h2>
          <TextField id="worth-age" v-model="form.age" inputmode="decimal" :label="t('worth.age')" :error="wrong.age" />
          <TextField
            id="worth-new"
            v-model="form.newSet"
            inputmode="decimal"
            :label="t('worth.newSet', { currency })"
            :error="wrong.newSet"
          />
          <TextField
            id="worth-donor"
            v-model="form.donor"
            inputmode="decimal"
            :label="t('worth.donor', { currency })"
            :error="wrong.donor"
          />
          <p class="wide">
            {{ t('worth.worthNow', { amount: money(worth.worksMinor), share: percent(worthShare(age)) }) }}
            <span class="soft">{{ t('worth.worthHow') }}</span>
          </p>
          <ChoiceField id="worth-who" v-model="doer" :label="t('worth.who')" :options="doers" />
          <p v-if="doer !== ''" class="wide soft" data-test="pace">
            {{
              pace
                ? t('worth.pace', { name: doerName, percent: `${Math.round(pace.factor * 100)} %`, n: pace.jobs }, pace.jobs)
                : t('worth.noPace', { name: doerName })
            }}
          </p>
        </section>
        <form class="sheet fields" novalidate data-test="add-option" @submit.prevent="add">
          <h2 class="wide">{{ t('worth.add') }}</h2>
          <ChoiceField
            id="worth-option"
            v-model="offer.option"
            :label="t('worth.option')"
            :options="addable.map((value) => ({ value, label: t(`quoteOption.${value}`) }))"
          />
          <TextField
            id="worth-price"
            v-model="offer.price"
            inputmode="decimal"
            :label="t('worth.price', { currency })"
            :error="wrong.price"
          />
          <TextField id="worth-works" v-model="offer.works" inputmode="numeric" :label="t('worth.chance')" :error="wrong.works" />
          <TextField id="worth-lost" v-model="offer.lost" inputmode="numeric" :label="t('worth.lost')" :error="wrong.lost" />
          <button type="submit" class="push">{{ t('worth.addIt') }}</button>
        </form>
      </div>
    </div>
  </JobGate>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: baseline;
  gap: 8px;
  margin-bottom: 10px;
}
.columns {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: 10px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 10px;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  font-size: 14px;
  color: var(--ink-soft);
  text-align: left;
}
th,
td {
  padding: 6px;
  border-bottom: 1px solid var(--line);
}
th.right,
td.right {
  text-align: right;
  white-space: nowrap;
}
.range {
  display: block;
  font-size: 14px;
}
.best {
  margin-left: 8px;
  padding-left: 6px;
  border-left: 4px solid var(--accent);
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
