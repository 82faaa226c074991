<script setup lang="ts">
/** Faults a board is known for: sign, quick proof, what looks alike, part, and how often it was and wasn't this. */
import { parseAmount, plainAmount } from '@veglia/contract';
import type { FaultCard } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { money } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';

const props = defineProps<{
  cards: readonly FaultCard[];
  currency: string;
  /** Faults of the board in the pack: a card that names one is counted. */ faults: readonly {
    readonly value: string;
    readonly label: string;
  }[];
}>();
const emit = defineEmits<{ change: [cards: FaultCard[], sign: string] }>();
const { t } = useI18n();
const open = ref(false);
const empty = { sign: '', proof: '', alike: '', part: '', price: '', fault: '' };
const form = reactive({ ...empty });
const errors = reactive<Record<string, string>>({});

function add(): void {
  for (const key of Object.keys(errors)) delete errors[key];
  const price = form.price.trim() === '' ? undefined : parseAmount(form.price, props.currency);
  if (form.sign.trim() === '') errors.sign = t('boards.card.noSign');
  if (form.proof.trim() === '') errors.proof = t('boards.card.noProof');
  if (form.price.trim() !== '' && price === undefined) errors.price = t('boards.card.wrongPrice', { value: form.price });
  if (Object.keys(errors).length > 0) return;
  const said = (text: string, key: 'alike' | 'part'): Partial<FaultCard> => (text.trim() === '' ? {} : { [key]: text.trim() });
  const card: FaultCard = {
    id: uuidv7(),
    sign: form.sign.trim(),
    proof: form.proof.trim(),
    ...said(form.alike, 'alike'),
    ...said(form.part, 'part'),
    ...(price === undefined ? {} : { priceMinor: price }),
    ...(form.fault === '' ? {} : { fault: form.fault }),
    hits: 0,
    misses: 0,
  };
  emit('change', [...props.cards, card], card.sign);
  Object.assign(form, empty);
  open.value = false;
}
function count(id: string, what: 'hits' | 'misses'): void {
  const card = props.cards.find((one) => one.id === id);
  if (card)
    emit(
      'change',
      props.cards.map((one) => (one.id === id ? { ...one, [what]: one[what] + 1 } : one)),
      card.sign,
    );
}
/** The best counted first. */
const ranked = (): FaultCard[] => [...props.cards].sort((a, b) => b.hits - b.misses - (a.hits - a.misses) || (a.sign < b.sign ? -1 : 1));
</script>

<template>
  <section class="sheet cards" data-test="fault-cards">
    <h2>{{ t('boards.card.title') }}</h2>
    <p v-if="cards.length === 0" class="soft">{{ t('boards.card.none') }}</p>
    <article v-for="card in ranked()" :key="card.id" class="card" :data-card="card.sign">
      <p>
        <strong>{{ card.sign }}</strong>
      </p>
      <p>{{ t('boards.card.proof') }}: {{ card.proof }}</p>
      <p v-if="card.alike">{{ t('boards.card.alike') }}: {{ card.alike }}</p>
      <p v-if="card.part || card.priceMinor !== undefined">
        {{ t('boards.card.part') }}: {{ card.part }}
        <span v-if="card.priceMinor !== undefined" class="figure">{{ money({ amountMinor: card.priceMinor, currency }) }}</span>
      </p>
      <p v-if="card.fault" class="soft">
        {{ t('boards.card.counts', { fault: faults.find(({ value }) => value === card.fault)?.label ?? card.fault }) }}
      </p>
      <p class="row">
        <span class="soft">{{ t('boards.card.hits', { hits: card.hits, misses: card.misses }) }}</span>
        <button type="button" class="plain" @click="count(card.id, 'hits')">{{ t('boards.card.hit') }}</button>
        <button type="button" class="plain" @click="count(card.id, 'misses')">{{ t('boards.card.miss') }}</button>
        <button
          type="button"
          class="plain"
          @click="
            emit(
              'change',
              cards.filter((one) => one.id !== card.id),
              card.sign,
            )
          "
        >
          {{ t('boards.card.remove') }}
        </button>
      </p>
    </article>
    <form v-if="open" class="fields" @submit.prevent="add">
      <TextField
        id="card-sign"
        v-model="form.sign"
        class="wide"
        :label="t('boards.card.sign')"
        :error="errors.sign"
        :bounds="{ longest: 300 }"
      />
      <TextField
        id="card-proof"
        v-model="form.proof"
        class="wide"
        :label="t('boards.card.proof')"
        :error="errors.proof"
        :rows="2"
        :bounds="{ longest: 600 }"
      />
      <TextField id="card-alike" v-model="form.alike" class="wide" :label="t('boards.card.alike')" :bounds="{ longest: 400 }" />
      <TextField id="card-part" v-model="form.part" :label="t('boards.card.part')" :bounds="{ longest: 120 }" />
      <TextField
        id="card-price"
        v-model="form.price"
        :label="t('boards.card.price', { currency })"
        :error="errors.price"
        inputmode="decimal"
        :placeholder="plainAmount(450, currency)"
      />
      <ChoiceField
        id="card-fault"
        v-model="form.fault"
        class="wide"
        :label="t('boards.card.fault')"
        :options="faults"
        :none="t('boards.card.noFault')"
      />
      <p class="wide">
        <button type="submit" class="push full">{{ t('boards.card.add') }}</button>
      </p>
    </form>
    <button v-else type="button" class="push" data-test="add-card" @click="open = true">{{ t('boards.card.add') }}</button>
  </section>
</template>

<style scoped>
.card {
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 2px 8px;
}
</style>
