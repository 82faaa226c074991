<script setup lang="ts">
/** Offers of suppliers side by side, and what this number was offered or sold for before. */
import type { Offers, PartPrices } from '@veglia/contract';
import { computed, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { watchDebounced } from '@vueuse/core';
import { api, NotReached } from '../../api.ts';
import { money } from '../../names.ts';
import type { Want } from './want.ts';

const props = defineProps<{ number: string; currency: string }>();
const emit = defineEmits<{ want: [want: Want] }>();
const { t, d } = useI18n();
const offers = shallowRef<Offers>();
const prices = shallowRef<PartPrices['prices']>([]);
const asking = ref(false);
const away = ref(false);
watch(
  () => props.number,
  () => {
    offers.value = undefined;
  },
);
watchDebounced(
  () => props.number,
  async (number) => {
    prices.value = [];
    if (number === '') return;
    try {
      const reply = await api.partPrices(number);
      if (reply.ok && props.number === number) prices.value = reply.value.prices;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  },
  { debounce: 250, immediate: true },
);
async function ask(): Promise<void> {
  const { number } = props;
  asking.value = true;
  away.value = false;
  try {
    const reply = await api.offers(number);
    if (reply.ok && props.number === number) offers.value = reply.value;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    away.value = true;
  } finally {
    asking.value = false;
  }
}
const nobody = computed(() => offers.value?.offers.length === 0 && offers.value.troubles.length === 0);
function put(offer: Offers['offers'][number]): void {
  emit('want', {
    number: offer.number,
    source: offer.condition,
    supplier: offer.supplier,
    price: offer.price,
    priceSeenOn: offers.value?.askedAt.slice(0, 10),
    ...(offer.days === null ? {} : { days: offer.days }),
    ...(offer.warrantyDays === null ? {} : { warrantyDays: offer.warrantyDays }),
    ...(offer.returnDays === null ? {} : { returnDays: offer.returnDays }),
  });
}
const days = (value: number | null): string =>
  value === null ? t('parts.offers.unknown') : value === 0 ? t('parts.offers.no') : t('parts.offers.perDays', { n: value });
</script>

<template>
  <section class="sheet" data-test="offers">
    <div class="line">
      <h2>{{ t('parts.offers.title') }}</h2>
      <button type="button" class="push" :disabled="number === '' || asking" data-test="ask-offers" @click="ask">
        {{ t(asking ? 'parts.offers.asking' : 'parts.offers.ask') }}
      </button>
    </div>
    <p v-if="away" class="alarm" role="alert">{{ t('common.notReached') }}</p>
    <p v-if="nobody" class="soft">{{ t('parts.offers.noSuppliers') }}</p>
    <template v-if="offers && !nobody">
      <div class="scroll">
        <table v-if="offers.offers.length > 0">
          <thead>
            <tr>
              <th>{{ t('parts.offers.supplier') }}</th>
              <th>{{ t('parts.offers.condition') }}</th>
              <th class="right">{{ t('parts.offers.price') }}</th>
              <th class="right">{{ t('parts.offers.days') }}</th>
              <th class="right">{{ t('parts.offers.warranty') }}</th>
              <th class="right">{{ t('parts.offers.returns') }}</th>
              <th></th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="(offer, index) in offers.offers" :key="index" :data-supplier="offer.supplier">
              <td>
                <strong>{{ offer.supplier }}</strong>
                <span v-if="offer.match === 'other-number'" class="alarm">{{ t('parts.offers.other', { number: offer.number }) }}</span>
                <span v-if="offer.inStock === 0" class="alarm">{{ t('parts.offers.out') }}</span>
                <span v-else-if="offer.inStock !== null" class="soft">{{ t('parts.offers.left', { n: offer.inStock }) }}</span>
              </td>
              <td>{{ t(`stockParts.condition.${offer.condition}`) }}</td>
              <td class="right reading">{{ money(offer.price) }}</td>
              <td class="right">{{ days(offer.days) }}</td>
              <td class="right">{{ days(offer.warrantyDays) }}</td>
              <td class="right">{{ days(offer.returnDays) }}</td>
              <td class="right">
                <span v-if="offer.price.currency !== currency" class="soft">{{ t('parts.offers.currency') }}</span>
                <button v-else type="button" class="push" :disabled="offer.inStock === 0" data-test="put-offer" @click="put(offer)">
                  {{ t('parts.offers.put') }}
                </button>
              </td>
            </tr>
          </tbody>
        </table>
      </div>
      <p v-if="offers.offers.length === 0" class="soft">{{ t('parts.offers.none') }}</p>
      <p v-for="one in offers.troubles" :key="one.supplier" class="alarm" :data-trouble="one.trouble">
        {{ t(`parts.offers.trouble.${one.trouble}`, { supplier: one.supplier }) }}
      </p>
      <p class="soft">{{ t('parts.offers.asked', { when: d(offers.askedAt, 'minute') }) }}</p>
    </template>
    <details v-if="prices.length > 0" data-test="prices-before">
      <summary>{{ t('parts.before.title') }} ({{ prices.length }})</summary>
      <ul>
        <li v-for="(one, index) in prices" :key="index">
          <span class="reading">{{ money(one.price) }}</span> {{ d(`${one.on}T12:00:00`, 'day') }}
          <span class="soft">{{ [one.supplier, t(`parts.before.what.${one.what}`)].filter(Boolean).join(', ') }}</span>
        </li>
      </ul>
    </details>
  </section>
</template>

<style scoped>
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
  gap: 12px;
}
.scroll {
  overflow-x: auto;
}
table {
  width: 100%;
  border-collapse: collapse;
}
th {
  text-align: left;
  font-size: 14px;
  color: var(--ink-soft);
}
th,
td {
  padding: 4px 6px;
  border-bottom: 1px solid var(--line);
}
td:first-child span {
  display: block;
  font-size: 14px;
}
th.right,
td.right {
  text-align: right;
  white-space: nowrap;
}
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
</style>
