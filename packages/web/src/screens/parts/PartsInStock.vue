<script setup lang="ts">
/** What lies in the shop that answers to it: boards and kits first by how surely they fit, donors among them. */
import type { StockState } from '@veglia/contract';
import { numberKey, stockFor, type PartWanted } from '@veglia/core';
import { watchDebounced } from '@vueuse/core';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { money } from '../../names.ts';
import type { Want } from './want.ts';

const props = defineProps<{ wanted: PartWanted; currency: string }>();
const emit = defineEmits<{ want: [want: Want] }>();
const { t } = useI18n();
const items = shallowRef<readonly StockState[]>([]);
const away = ref(false);
async function load(): Promise<void> {
  try {
    const all = await api.stock({});
    if (!all.ok) return;
    // A stock that isn’t listed whole is searched for what may answer.
    const { number, model, chip } = props.wanted;
    const asked = all.value.more ? [number, model, chip].filter((one) => one !== undefined && one !== '') : [];
    const found = await Promise.all(asked.map((find) => api.stock({ find: find === model ? find : numberKey(find ?? '') })));
    const states = [all, ...found].flatMap((one) => (one.ok ? one.value.items : []));
    items.value = [...new Map(states.map((one) => [one.item.id, one])).values()];
    away.value = false;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    away.value = true;
  }
}
onMounted(load);
watchDebounced(() => [props.wanted.number, props.wanted.chip], load, { debounce: 300 });
const found = computed(() => {
  const states = new Map(items.value.map((one) => [one.item.id, one]));
  return stockFor(
    props.wanted,
    items.value.map(({ item }) => item),
  ).flatMap(({ item, fit }) => {
    const state = states.get(item.id);
    // A kit of other figures is no news; that somebody found out that a board does not fit is.
    return state && fit.differs === undefined ? [{ state, item, fit }] : [];
  });
});
const others = computed(() => {
  const { strips } = props.wanted;
  return strips
    ? stockFor(
        props.wanted,
        items.value.map(({ item }) => item),
      ).filter(({ fit }) => fit.differs !== undefined)
    : [];
});
const free = ({ count, reserved }: StockState): number => count - reserved;
async function take({ item }: StockState): Promise<void> {
  const donorBoard = item.donor?.boards.find(({ assembly }) => assembly === props.wanted.assembly);
  emit('want', {
    number: donorBoard?.number ?? item.number,
    source: item.what === 'donor' ? 'donor' : 'own-stock',
    price: item.price ?? { amountMinor: 0, currency: props.currency },
    item: item.id,
    ...(item.warrantyDays === undefined ? {} : { warrantyDays: item.warrantyDays }),
  });
  await load();
}
</script>

<template>
  <section class="sheet" data-test="in-stock">
    <h2>{{ t('parts.stock.title') }}</h2>
    <p v-if="away" class="alarm" role="alert">{{ t('common.notReached') }}</p>
    <p v-else-if="found.length === 0" class="soft">{{ t('parts.stock.none') }}</p>
    <ul v-else>
      <li v-for="{ state, item, fit } in found" :key="item.id" :data-fit="fit.how">
        <span>
          <strong>{{ item.number }}</strong> {{ item.name }}
          <span class="how" :class="{ alarm: fit.how === 'does-not-fit' }">{{ t(`parts.fit.${fit.how}`) }}</span>
          <span class="soft">
            {{ [t(`stockParts.condition.${item.condition}`), item.place].filter(Boolean).join(', ') }}
            {{ item.price ? money(item.price) : '' }}
          </span>
          <span v-if="fit.doubts.length > 0" class="alarm">{{ fit.doubts.map((one) => t(`parts.doubt.${one}`)).join('; ') }}</span>
          <span v-if="fit.note" class="soft">{{ fit.note }}</span>
        </span>
        <span class="soft">{{
          state.reserved > 0
            ? t('parts.stock.free', { n: state.count, free: Math.max(0, free(state)) })
            : t('parts.stock.count', { n: state.count })
        }}</span>
        <button
          v-if="fit.how !== 'does-not-fit'"
          type="button"
          class="push"
          :disabled="free(state) < 1 && item.what !== 'donor'"
          data-test="take-stock"
          @click="take(state)"
        >
          {{ t('parts.stock.take') }}
        </button>
      </li>
    </ul>
    <p v-if="others.length > 0" class="soft" data-test="other-kits">
      <span v-for="{ item, fit } in others" :key="item.id" class="other">
        {{ item.number }}: {{ t('parts.fit.does-not-fit') }} ({{ (fit.differs ?? []).map((one) => t(`parts.differs.${one}`)).join(', ') }})
      </span>
    </p>
  </section>
</template>

<style scoped>
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto auto;
  gap: 10px;
  align-items: center;
  padding: 6px 0;
  border-top: 1px solid var(--line);
}
li > span:first-child {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  overflow-wrap: anywhere;
}
.how {
  border-left: 4px solid var(--accent);
  padding-left: 6px;
}
.how.alarm {
  border-left-color: var(--alarm);
}
.other {
  display: block;
}
@media (max-width: 600px) {
  li {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
