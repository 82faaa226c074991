<script setup lang="ts">
/** One part of a job, where it is, and what can be done about it next. */
import { parseAmount, plainAmount } from '@veglia/contract';
import { arrivalResults, mayOrder, returnReasons, type Body, type CaseFold, type CompiledPack, type JobPart } from '@veglia/core';
import { computed, reactive, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { money, useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import FormField from '../../parts/FormField.vue';
import TextField from '../../parts/TextField.vue';
import { useNow } from '../../stores/clock.ts';
import { useJob } from '../../stores/job.ts';
import { dayIn } from './want.ts';

const props = defineProps<{ part: JobPart; fold: CaseFold; compiled: CompiledPack; ownSet: boolean; jobId: string }>();
const emit = defineEmits<{ write: [bodies: Body[]] }>();
const { t, d } = useI18n();
const store = useJob();
const names = useNames(() => props.compiled);
const now = useNow();
const today = computed(() => dayIn(0, new Date(now.value)));
const { currency } = props.part.price;
const ordering = reactive({
  open: false,
  supplier: props.part.supplier ?? '',
  price: plainAmount(props.part.price.amountMinor, currency),
  on: props.part.days === undefined ? '' : dayIn(props.part.days, new Date(now.value)),
  reference: '',
  override: '',
});
const back = reactive<{ open: boolean; reason: (typeof returnReasons)[number]; refund: string }>({
  open: false,
  reason: props.part.arrival === 'damaged' ? 'damaged' : props.part.arrival === 'dead' ? 'dead-on-arrival' : 'wrong-part',
  refund: plainAmount(props.part.price.amountMinor, currency),
});
const arriving = ref(false);
const wrong = ref<Partial<Record<'supplier' | 'price' | 'override' | 'refund', string>>>({});
const typedPrice = computed(() => parseAmount(ordering.price, currency));
/** What stands between this part and its order, by what is typed now. */
const refused = computed(() =>
  props.part.state === 'to-order' && store.input
    ? mayOrder(
        store.input,
        { assembly: props.part.assembly, priceMinor: typedPrice.value ?? props.part.price.amountMinor },
        { ownSet: props.ownSet, layoutId: props.fold.set.layout, spentMinor: props.fold.spent.total.amountMinor },
        props.compiled,
      )
    : undefined,
);
function order(): void {
  const price = typedPrice.value;
  wrong.value = {
    ...(ordering.supplier.trim() === '' ? { supplier: t('parts.errors.supplier') } : {}),
    ...(price === undefined ? { price: t('parts.errors.price', { value: ordering.price }) } : {}),
    ...(refused.value && ordering.override.trim() === '' ? { override: t('parts.errors.reason') } : {}),
  };
  if (price === undefined || Object.keys(wrong.value).length > 0) return;
  ordering.open = false;
  emit('write', [
    {
      kind: 'part.ordered',
      v: 1,
      want: props.part.want,
      supplier: ordering.supplier.trim(),
      price: { amountMinor: price, currency },
      ...(ordering.on === '' ? {} : { expectedOn: ordering.on }),
      ...(ordering.reference.trim() === '' ? {} : { reference: ordering.reference.trim() }),
      ...(refused.value ? { override: ordering.override.trim() } : {}),
    },
  ]);
}
function arrived(result: (typeof arrivalResults)[number]): void {
  arriving.value = false;
  emit('write', [{ kind: 'part.arrived', v: 1, want: props.part.want, result }]);
}
function fit(): void {
  const { want, assembly, number, source, price, item } = props.part;
  emit('write', [{ kind: 'part.fitted', v: 1, want, assembly, number, source, price, ...(item === undefined ? {} : { item }) }]);
}
function sendBack(): void {
  const refund = back.refund.trim() === '' ? undefined : parseAmount(back.refund, currency);
  wrong.value = back.refund.trim() !== '' && refund === undefined ? { refund: t('parts.errors.price', { value: back.refund }) } : {};
  if (Object.keys(wrong.value).length > 0) return;
  back.open = false;
  emit('write', [
    {
      kind: 'part.returned',
      v: 1,
      want: props.part.want,
      reason: back.reason,
      ...(refund === undefined ? {} : { refund: { amountMinor: refund, currency } }),
    },
  ]);
}
const late = computed(() => props.part.state === 'on-order' && (props.part.expectedOn ?? '9999') < today.value);
const day = (on: string): string => d(new Date(`${on}T12:00:00`), 'weekday');
</script>

<template>
  <li class="part" :data-want="part.want" :data-state="part.state">
    <div class="row">
      <span class="state">{{ t(`parts.state.${part.state}`) }}</span>
      <span class="what">
        <strong>{{ names.assembly(part.assembly) }}</strong>{{ ' ' }}<span class="reading">{{ part.number }}</span
        >{{ ' ' }}
        <span class="soft">
          {{ [part.supplier ?? (part.item ? t('parts.fromStock') : ''), t(`partSource.${part.source}`)].filter(Boolean).join(', ') }}
        </span>
        <span v-if="part.unproven && part.state !== 'fitted'" class="alarm">{{ t('parts.guess') }}</span>
      </span>
      <span class="reading">{{ money(part.price) }}</span>
      <span class="when">
        <span v-if="part.state === 'on-order' && part.expectedOn" :class="{ alarm: late }">{{
          t(late ? 'parts.overdue' : 'parts.expected', { day: day(part.expectedOn) })
        }}</span>
        <span v-if="part.state === 'to-order' && part.priceSeenOn" class="soft">{{
          t('parts.seenOn', { day: day(part.priceSeenOn) })
        }}</span>
        <span v-if="part.state === 'to-send-back' && part.returnDays" class="soft">{{ t('parts.returnBy', { n: part.returnDays }) }}</span>
      </span>
      <span class="acts">
        <button
          v-if="part.state === 'to-order' && !fold.closed"
          type="button"
          class="push full"
          :aria-expanded="ordering.open"
          data-test="order-open"
          @click="ordering.open = !ordering.open"
        >
          {{ t('parts.order.open') }}
        </button>
        <button
          v-if="part.state === 'on-order'"
          type="button"
          class="push full"
          :aria-expanded="arriving"
          data-test="arrived-open"
          @click="arriving = !arriving"
        >
          {{ t('parts.arrived.open') }}
        </button>
        <button
          v-if="part.state === 'here' && !fold.closed"
          type="button"
          class="push full"
          :title="t('parts.fittedHelp')"
          data-test="fit-part"
          @click="fit"
        >
          {{ t('parts.fitted') }}
        </button>
        <button
          v-if="part.state === 'to-send-back' || (part.state === 'here' && !part.item)"
          type="button"
          class="push"
          :aria-expanded="back.open"
          data-test="back-open"
          @click="back.open = !back.open"
        >
          {{ t('parts.sendBack.open') }}
        </button>
        <button
          v-if="part.state === 'to-order' || part.state === 'here'"
          type="button"
          class="plain"
          data-test="drop-part"
          @click="emit('write', [{ kind: 'part.dropped', v: 1, want: part.want }])"
        >
          {{ t('parts.drop') }}
        </button>
      </span>
    </div>
    <p v-if="part.state === 'here' && !fold.closed" class="soft">{{ t('parts.fittedHelp') }}</p>
    <p v-if="refused && !ordering.open" class="alarm" data-test="order-refused">
      {{ t('parts.order.refused') }} {{ t(`core.orderRefusal.${refused.why}`) }}
    </p>
    <form
      v-if="ordering.open && part.state === 'to-order'"
      class="fields quarters"
      novalidate
      data-test="order-form"
      @submit.prevent="order"
    >
      <TextField :id="`supplier-${part.want}`" v-model="ordering.supplier" :label="t('parts.order.supplier')" :error="wrong.supplier" />
      <TextField
        :id="`price-${part.want}`"
        v-model="ordering.price"
        inputmode="decimal"
        :label="t('parts.order.price', { currency })"
        :error="wrong.price"
      />
      <FormField :id="`on-${part.want}`" :label="t('parts.order.on')">
        <el-date-picker :id="`on-${part.want}`" v-model="ordering.on" type="date" value-format="YYYY-MM-DD" />
      </FormField>
      <TextField
        :id="`reference-${part.want}`"
        v-model="ordering.reference"
        :label="t('parts.order.reference')"
        :bounds="{ longest: 80 }"
      />
      <p v-if="refused" class="alarm wide" role="alert" data-test="order-refused">
        {{ t('parts.order.refused') }} {{ t(`core.orderRefusal.${refused.why}`) }}
        {{ refused.overMinor ? t('parts.order.over', { amount: money({ amountMinor: refused.overMinor, currency }) }) : '' }}
        <RouterLink :to="`/jobs/${jobId}/call`">{{ t('parts.toCall') }}</RouterLink>
      </p>
      <TextField
        v-if="refused"
        :id="`override-${part.want}`"
        v-model="ordering.override"
        class="wider"
        :label="t('parts.order.override')"
        :error="wrong.override"
      />
      <button type="submit" class="push full bottom" data-test="record-order">{{ t('parts.order.record') }}</button>
    </form>
    <div v-if="arriving && part.state === 'on-order'" class="acts" data-test="arrival">
      <button v-for="one in arrivalResults" :key="one" type="button" class="push" :data-arrival="one" @click="arrived(one)">
        {{ t(`parts.arrived.${one}`) }}
      </button>
    </div>
    <form v-if="back.open" class="fields quarters" novalidate @submit.prevent="sendBack">
      <ChoiceField
        :id="`back-${part.want}`"
        v-model="back.reason"
        :label="t('parts.sendBack.reason')"
        :options="returnReasons.map((value) => ({ value, label: t(`parts.sendBack.why.${value}`) }))"
      />
      <TextField
        :id="`refund-${part.want}`"
        v-model="back.refund"
        inputmode="decimal"
        :label="t('parts.sendBack.refund', { currency })"
        :error="wrong.refund"
      />
      <button type="submit" class="push bottom" data-test="record-return">{{ t('parts.sendBack.record') }}</button>
    </form>
  </li>
</template>

<style scoped>
.part {
  display: grid;
  gap: 6px;
  padding: 8px 0;
  border-top: 1px solid var(--line);
}
.row {
  display: grid;
  grid-template-columns: 110px minmax(0, 1fr) auto minmax(120px, auto) auto;
  gap: 12px;
  align-items: center;
}
.state {
  font-weight: 700;
  border-left: 6px solid var(--line);
  padding-left: 8px;
}
.part[data-state='here'] .state {
  border-left-color: var(--accent);
}
.part[data-state='to-send-back'] .state {
  border-left-color: var(--alarm);
}
.what {
  overflow-wrap: anywhere;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  justify-content: flex-end;
}
@media (max-width: 900px) {
  .row {
    grid-template-columns: 110px minmax(0, 1fr) auto;
  }
  .acts {
    grid-column: 1 / -1;
    justify-content: flex-start;
  }
}
</style>
