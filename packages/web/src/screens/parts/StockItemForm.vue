<script setup lang="ts">
/** An item of the stock, added or changed as a whole. Nothing typed is lost where it is refused. */
import {
  formatDonorBoards,
  formatDonorChips,
  formatFits,
  parseAmount,
  parseDonorBoards,
  parseDonorChips,
  parseFits,
  plainAmount,
  type StockState,
} from '@veglia/contract';
import { stockConditions, stockItemSchema, stockKinds } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import type { Names } from '../../names.ts';
import { parseBetween } from '../../numbers.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import PhotoButton from '../../parts/PhotoButton.vue';
import PhotoThumb from '../../parts/PhotoThumb.vue';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';

const props = defineProps<{
  id: string;
  state: StockState | undefined;
  currency: string;
  names: Names;
  assemblies: readonly string[];
}>();
const emit = defineEmits<{ saved: [id: string] }>();
const { t } = useI18n();
const session = useSession();
const was = props.state?.item;
const currency = was?.price?.currency ?? was?.cost?.currency ?? props.currency;
const amount = (money: { amountMinor: number } | undefined): string => (money ? plainAmount(money.amountMinor, currency) : '');
const form = reactive({
  what: was?.what ?? stockKinds[0],
  number: was?.number ?? '',
  name: was?.name ?? '',
  assembly: was?.assembly ?? '',
  revision: was?.revision ?? '',
  panel: was?.panel ?? '',
  condition: was?.condition ?? stockConditions[0],
  place: was?.place ?? '',
  cost: amount(was?.cost),
  price: amount(was?.price),
  supplier: was?.supplier ?? '',
  warrantyDays: String(was?.warrantyDays ?? ''),
  least: String(was?.least ?? ''),
  note: was?.note ?? '',
  fits: formatFits(was?.fits ?? []).join('\n'),
  strips: String(was?.strips?.strips ?? ''),
  leds: String(was?.strips?.leds ?? ''),
  lengthMm: String(was?.strips?.lengthMm ?? ''),
  connector: was?.strips?.connector ?? '',
  ledVolts: String(was?.strips?.ledVolts ?? ''),
  boards: formatDonorBoards(was?.donor?.boards ?? []).join('\n'),
  chips: formatDonorChips(was?.donor?.chips ?? []).join('\n'),
  retired: was?.retired === true,
  photo: was?.photo ?? '',
});
const wrong = ref<Readonly<Record<string, string>>>({});
const refused = ref('');
const saved = ref(false);
const isDonor = computed(() => form.what === 'donor');
const text = (typed: string): string | undefined => (typed.trim() === '' ? undefined : typed.trim());

async function save(): Promise<void> {
  saved.value = false;
  refused.value = '';
  const found: Record<string, string> = {};
  const money = (field: 'cost' | 'price') => {
    const typed = form[field].trim();
    if (typed === '') return undefined;
    const amountMinor = parseAmount(typed, currency);
    if (amountMinor === undefined) found[field] = t('parts.errors.price', { value: typed });
    return amountMinor === undefined ? undefined : { amountMinor, currency };
  };
  const number = (field: 'warrantyDays' | 'least' | 'strips' | 'leds' | 'lengthMm' | 'ledVolts', whole: boolean): number | undefined => {
    const typed = form[field].trim();
    if (typed === '') return undefined;
    const bounds = { least: 0, most: 10_000 };
    const value = parseBetween(typed, bounds, whole);
    if (value === undefined) found[field] = t('stockParts.form.notNumber', { value: typed });
    return value;
  };
  const lines = <T,>(
    field: 'fits' | 'boards' | 'chips',
    read: (text: string) => { rows: readonly T[]; wrong: readonly { line: number; text: string }[] },
  ): T[] => {
    const { rows, wrong: bad } = read(form[field]);
    const [first] = bad;
    if (first) found[field] = t('stockParts.form.wrong', { n: first.line, line: first.text });
    return [...rows];
  };
  const [strips, leds] = [number('strips', true), number('leds', true)];
  const figures = { lengthMm: number('lengthMm', false), connector: text(form.connector), ledVolts: number('ledVolts', false) };
  const candidate = {
    id: props.id,
    what: form.what,
    number: form.number.trim(),
    name: text(form.name),
    assembly: isDonor.value ? undefined : text(form.assembly),
    revision: text(form.revision),
    panel: text(form.panel),
    condition: form.condition,
    place: text(form.place),
    cost: money('cost'),
    price: money('price'),
    supplier: text(form.supplier),
    warrantyDays: number('warrantyDays', true),
    least: number('least', true),
    note: text(form.note),
    photo: form.photo === '' ? undefined : form.photo,
    fits: lines('fits', parseFits),
    ...(form.what === 'strips' && strips !== undefined && leds !== undefined ? { strips: { strips, leds, ...figures } } : {}),
    ...(isDonor.value ? { donor: { boards: lines('boards', parseDonorBoards), chips: lines('chips', parseDonorChips) } } : {}),
    ...(form.retired ? { retired: true } : {}),
  };
  const read = stockItemSchema.safeParse(JSON.parse(JSON.stringify(candidate)));
  if (!read.success)
    for (const { path, message } of read.error.issues) {
      const field = String(path[0] === 'strips' ? path[1] : path[0] === 'donor' ? path[1] : path[0]);
      found[field] ??= field === 'number' ? t('parts.errors.number') : message;
    }
  wrong.value = found;
  const by = session.person?.id;
  if (Object.keys(found).length > 0 || !read.success || by === undefined) return;
  try {
    const reply = await api.changeStock(props.id, { by, version: props.state?.version ?? 0, item: read.data });
    if (reply.ok) {
      saved.value = true;
      emit('saved', props.id);
    } else refused.value = reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refused.value = t('common.notReached');
  }
}
const plainFields = ['name', 'place', 'revision', 'panel', 'supplier'] as const;
const length = { longest: 120 };
</script>

<template>
  <form class="sheet fields" novalidate data-test="item-form" @submit.prevent="save">
    <h2 class="wide">{{ t(state ? 'stockParts.form.title' : 'stockParts.form.new') }}</h2>
    <ChoiceField
      id="item-what"
      v-model="form.what"
      :label="t('stockParts.form.what')"
      :options="stockKinds.map((value) => ({ value, label: t(`stockParts.kind.${value}`) }))"
    />
    <TextField
      id="item-number"
      v-model="form.number"
      :label="t(isDonor ? 'stockParts.form.model' : 'stockParts.form.number')"
      :error="wrong.number"
      :bounds="length"
    />
    <ChoiceField
      v-if="!isDonor"
      id="item-assembly"
      v-model="form.assembly"
      searched
      :label="t('stockParts.form.assembly')"
      :none="t('stockParts.form.noAssembly')"
      :error="wrong.assembly"
      :options="assemblies.map((value) => ({ value, label: names.assembly(value) }))"
    />
    <ChoiceField
      id="item-condition"
      v-model="form.condition"
      :label="t('stockParts.form.condition')"
      :options="stockConditions.map((value) => ({ value, label: t(`stockParts.condition.${value}`) }))"
    />
    <TextField
      v-for="one in plainFields"
      :id="`item-${one}`"
      :key="one"
      v-model="form[one]"
      :label="t(`stockParts.form.${one}`)"
      :error="wrong[one]"
      :bounds="length"
    />
    <TextField
      id="item-cost"
      v-model="form.cost"
      class="short"
      inputmode="decimal"
      :label="t('stockParts.form.cost', { currency })"
      :error="wrong.cost"
    />
    <TextField
      id="item-price"
      v-model="form.price"
      class="short"
      inputmode="decimal"
      :label="t('stockParts.form.price', { currency })"
      :error="wrong.price"
    />
    <TextField
      id="item-warranty"
      v-model="form.warrantyDays"
      class="short"
      inputmode="numeric"
      :label="t('stockParts.form.warranty')"
      :error="wrong.warrantyDays"
    />
    <TextField
      id="item-least"
      v-model="form.least"
      class="short"
      inputmode="numeric"
      :label="t('stockParts.form.least')"
      :error="wrong.least"
    />
    <fieldset v-if="form.what === 'strips'" class="wide fields quarters">
      <TextField
        v-for="one in ['strips', 'leds', 'lengthMm', 'ledVolts'] as const"
        :id="`item-${one}`"
        :key="one"
        v-model="form[one]"
        inputmode="decimal"
        :label="t(`stockParts.form.${one === 'lengthMm' ? 'length' : one === 'ledVolts' ? 'volts' : one}`)"
        :error="wrong[one]"
      />
      <TextField id="item-connector" v-model="form.connector" :label="t('stockParts.form.connector')" />
    </fieldset>
    <template v-if="isDonor">
      <TextField id="item-boards" v-model="form.boards" :rows="4" :label="t('stockParts.form.boards')" :error="wrong.boards" />
      <TextField id="item-chips" v-model="form.chips" :rows="4" :label="t('stockParts.form.chips')" :error="wrong.chips" />
      <p class="soft wide">{{ t('stockParts.form.statesHelp') }}</p>
    </template>
    <template v-else>
      <TextField id="item-fits" v-model="form.fits" class="wide" :rows="2" :label="t('stockParts.form.fits')" :error="wrong.fits" />
      <p class="soft wide">{{ t('stockParts.form.fitsHelp') }}</p>
    </template>
    <TextField id="item-note" v-model="form.note" class="wide" :rows="2" :label="t('stockParts.form.note')" :bounds="{ longest: 2000 }" />
    <el-checkbox v-if="state" v-model="form.retired" class="wide">{{ t('stockParts.form.retired') }}</el-checkbox>
    <div class="wide inline">
      <PhotoButton :label="t('stockParts.form.photo')" @added="(id) => (form.photo = id)" />
      <PhotoThumb v-if="form.photo !== ''" :photo="form.photo" :alt="form.number" />
    </div>
    <p v-if="refused" class="alarm wide" role="alert">{{ refused }}</p>
    <p v-if="saved" class="wide" role="status">{{ t('stockParts.form.saved') }}</p>
    <button type="submit" class="push full" data-test="save-item">{{ t('stockParts.form.save') }}</button>
  </form>
</template>
