<script setup lang="ts">
/** A part from a source that no service answers for: a dealer on the phone, a market place. */
import { parseAmount } from '@veglia/contract';
import { partSources } from '@veglia/core';
import { reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { parseBetween } from '../../numbers.ts';
import { dayIn, type Want } from './want.ts';

const props = defineProps<{ number: string; currency: string }>();
const emit = defineEmits<{ want: [want: Want] }>();
const { t } = useI18n();
type Source = (typeof partSources)[number];
const form = reactive<{ supplier: string; price: string; days: string; source: Source }>({
  supplier: '',
  price: '',
  days: '',
  source: 'new',
});
const wrong = ref<Partial<Record<'number' | 'price' | 'supplier' | 'days', string>>>({});
const dayBounds = { least: 0, most: 365 };
const supplierLength = { longest: 120 };
const sources = partSources.filter((one) => one !== 'own-stock');
function put(): void {
  const price = parseAmount(form.price, props.currency);
  const days = form.days.trim() === '' ? undefined : parseBetween(form.days, dayBounds, true);
  wrong.value = {
    ...(props.number === '' ? { number: t('parts.errors.number') } : {}),
    ...(price === undefined ? { price: t('parts.errors.price', { value: form.price }) } : {}),
    ...(form.supplier.trim() === '' ? { supplier: t('parts.errors.supplier') } : {}),
    ...(form.days.trim() !== '' && days === undefined ? { days: t('parts.errors.days', { value: form.days, ...dayBounds }) } : {}),
  };
  if (price === undefined || Object.keys(wrong.value).length > 0) return;
  emit('want', {
    number: props.number,
    source: form.source,
    supplier: form.supplier.trim(),
    price: { amountMinor: price, currency: props.currency },
    priceSeenOn: dayIn(0, new Date()),
    ...(days === undefined ? {} : { days }),
  });
  Object.assign(form, { supplier: '', price: '', days: '' });
}
</script>

<template>
  <details class="byhand">
    <summary>{{ t('parts.byHand.title') }}</summary>
    <form class="fields" novalidate data-test="part-by-hand" @submit.prevent="put">
      <TextField
        id="hand-supplier"
        v-model="form.supplier"
        :label="t('parts.byHand.supplier')"
        :error="wrong.supplier"
        :bounds="supplierLength"
      />
      <ChoiceField
        id="hand-source"
        v-model="form.source"
        :label="t('close.source')"
        :options="sources.map((value) => ({ value, label: t(`partSource.${value}`) }))"
      />
      <TextField
        id="hand-price"
        v-model="form.price"
        inputmode="decimal"
        :label="t('parts.byHand.price', { currency })"
        :error="wrong.price"
      />
      <TextField id="hand-days" v-model="form.days" inputmode="numeric" :label="t('parts.byHand.days')" :error="wrong.days" />
      <p v-if="wrong.number" class="alarm wide" role="alert">{{ wrong.number }}</p>
      <button type="submit" class="push" data-test="put-by-hand">{{ t('parts.byHand.put') }}</button>
    </form>
  </details>
</template>

<style scoped>
summary {
  min-height: 40px;
  line-height: 40px;
  cursor: pointer;
}
</style>
