<script setup lang="ts">
/** Pieces of an item that came or went: a consumable by one tick, anything by a count. */
import type { MoveStock, StockMoves, StockState } from '@veglia/contract';
import { v7 as uuidv7 } from 'uuid';
import { onMounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { parseBetween } from '../../numbers.ts';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';

const props = defineProps<{ state: StockState }>();
const emit = defineEmits<{ moved: [] }>();
const { t, d } = useI18n();
const session = useSession();
const moves = shallowRef<StockMoves['moves']>([]);
const typed = ref('');
const wrong = ref('');
const pieces = { least: 0, most: 100_000 };
const personOf = (id: string): string => session.people.find((one) => one.id === id)?.name ?? '';
async function load(): Promise<void> {
  const reply = await api.stockMoves(props.state.item.id);
  if (reply.ok) moves.value = reply.value.moves;
}
async function quietly(work: () => Promise<void>): Promise<void> {
  try {
    await work();
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('common.notReached');
  }
}
onMounted(() => quietly(load));
const move = (change: number, reason: MoveStock['reason']): Promise<void> =>
  quietly(async () => {
    const by = session.person?.id;
    if (by === undefined || change === 0) return;
    const reply = await api.moveStock(props.state.item.id, { id: uuidv7(), by, change, reason });
    wrong.value = reply.ok ? '' : reply.problem.title;
    if (!reply.ok) return;
    typed.value = '';
    emit('moved');
    await load();
  });
async function change(reason: 'bought' | 'scrapped' | 'counted'): Promise<void> {
  const n = parseBetween(typed.value, pieces, true);
  wrong.value = n === undefined ? t('stockParts.moves.wrong', { value: typed.value, ...pieces }) : '';
  if (n === undefined) return;
  await move(reason === 'counted' ? n - props.state.count : reason === 'scrapped' ? -n : n, reason);
}
const signed = (n: number): string => (n > 0 ? `+${n}` : `−${Math.abs(n)}`);
</script>

<template>
  <section class="sheet" data-test="pieces">
    <h2>
      {{ t('stockParts.moves.title') }} <span class="reading" data-test="pieces-count">{{ state.count }}</span>
      <span v-if="state.reserved > 0">({{ state.reserved }} {{ t('stockParts.reserved') }})</span>
    </h2>
    <form class="inline" novalidate @submit.prevent="change('bought')">
      <TextField id="pieces-n" v-model="typed" inputmode="numeric" :label="t('stockParts.moves.change')" :error="wrong" />
      <button type="submit" class="push" data-test="pieces-bought">{{ t('stockParts.moves.bought') }}</button>
      <button type="button" class="push" data-test="pieces-counted" @click="change('counted')">{{ t('stockParts.moves.counted') }}</button>
      <button type="button" class="push" @click="change('scrapped')">{{ t('stockParts.moves.scrapped') }}</button>
      <button v-if="state.item.what === 'consumable'" type="button" class="push full" data-test="pieces-use" @click="move(-1, 'used')">
        {{ t('stockParts.moves.use') }}
      </button>
    </form>
    <ul>
      <li v-for="(one, index) in moves" :key="index">
        <span class="reading">{{ signed(one.change) }}</span> {{ t(`stockParts.reason.${one.reason}`) }}
        <span v-if="one.job !== null">{{ t('stockParts.moves.job', { n: one.job }) }}</span>
        <span class="soft">{{ d(one.at, 'minute') }}, {{ personOf(one.by) }}</span>
      </li>
    </ul>
  </section>
</template>
