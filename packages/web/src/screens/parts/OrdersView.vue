<script setup lang="ts">
/** Parts of all open jobs by supplier: what is to be ordered together, what is on its way, what came. */
import { formatOrdersCsv, type CardPart, type EntryDraft, type Orders, type StockState } from '@veglia/contract';
import type { Body } from '@veglia/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, onMounted, onUnmounted, reactive, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import { money, useNames } from '../../names.ts';
import FormField from '../../parts/FormField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import TextField from '../../parts/TextField.vue';
import { saveBlob } from '../../saveBlob.ts';
import { useNow } from '../../stores/clock.ts';
import { onLive } from '../../stores/live.ts';
import { usePacks } from '../../stores/packs.ts';
import { useSession } from '../../stores/session.ts';
import PartsTabs from './PartsTabs.vue';
import { dayIn } from './want.ts';

const { t, d } = useI18n();
const session = useSession();
const packs = usePacks();
const names = useNames(() => packs.current);
const now = useNow();
const jobs = shallowRef<Orders['jobs']>();
const proposed = shallowRef<Orders['proposed']>([]);
const low = shallowRef<readonly StockState[]>([]);
const reached = ref(true);
const said = ref<readonly string[]>([]);
const chosen = reactive(new Set<string>());
const form = reactive<Record<string, { on: string; reference: string }>>({});

async function load(): Promise<void> {
  try {
    const [reply, stock] = [await api.orders(), await api.stock({})];
    if (reply.ok) [jobs.value, proposed.value] = [reply.value.jobs, reply.value.proposed];
    if (stock.ok) low.value = stock.value.items.filter(({ item, count }) => item.least !== undefined && count < item.least);
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
onMounted(async () => {
  await load();
});
/** A batch of news is one look (milliseconds, value of ours). */
const together = 250;
let soon: ReturnType<typeof setTimeout> | undefined;
const unhear = onLive(() => {
  soon ??= setTimeout(() => {
    soon = undefined;
    void load();
  }, together);
});
onUnmounted(() => {
  unhear();
  clearTimeout(soon);
});

interface Line {
  readonly job: Orders['jobs'][number];
  readonly part: CardPart;
}
const lines = computed((): Line[] => (jobs.value ?? []).flatMap((job) => job.parts.map((part) => ({ job, part }))));
const ofState = (state: CardPart['state']): Line[] => lines.value.filter(({ part }) => part.state === state);
/** By supplier, in the order of their names; without one last. */
const suppliers = computed(() => {
  const groups = new Map<string, Line[]>();
  for (const line of ofState('to-order')) groups.set(line.part.supplier ?? '', [...(groups.get(line.part.supplier ?? '') ?? []), line]);
  return [...groups].sort(([a], [b]) => Number(a === '') - Number(b === '') || a.localeCompare(b));
});
const pickedOf = (group: readonly Line[]): Line[] => group.filter(({ part }) => chosen.has(part.want));
const formOf = (supplier: string): { on: string; reference: string } => (form[supplier] ??= { on: '', reference: '' });
const sum = (group: readonly Line[]): string => {
  const byCurrency = new Map<string, number>();
  for (const { part } of group) byCurrency.set(part.price.currency, (byCurrency.get(part.price.currency) ?? 0) + part.price.amountMinor);
  return [...byCurrency].map(([currency, amountMinor]) => money({ amountMinor, currency })).join(' + ');
};

/** Each job has its own ledger: what one refuses holds the others up in nothing. */
async function write(of: readonly Line[], bodyOf: (line: Line) => Body): Promise<{ done: number; refused: string[] }> {
  const person = session.person;
  const refused: string[] = [];
  let done = 0;
  if (!person) return { done, refused };
  for (const line of of) {
    const entry: EntryDraft = {
      id: uuidv7(),
      at: new Date(now.value).toISOString(),
      basedOn: line.job.lastSeq,
      body: { ...bodyOf(line) },
    };
    const reply = await api.append(line.job.jobId, person.id, [entry]);
    if (reply.ok) done += 1;
    else
      refused.push(
        t('orders.refused', {
          n: line.job.number,
          why: reply.problem.problems?.map(({ sentence }) => sentence).join(' ') ?? reply.problem.title,
        }),
      );
  }
  return { done, refused };
}
async function quietly(work: () => Promise<void>): Promise<void> {
  try {
    await work();
    await load();
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
const order = (supplier: string, group: readonly Line[]): Promise<void> =>
  quietly(async () => {
    const { on, reference } = formOf(supplier);
    const { done, refused } = await write(pickedOf(group), ({ part }) => ({
      kind: 'part.ordered',
      v: 1,
      want: part.want,
      supplier,
      price: part.price,
      ...(on === '' ? {} : { expectedOn: on }),
      ...(reference.trim() === '' ? {} : { reference: reference.trim() }),
    }));
    chosen.clear();
    said.value = [...(done > 0 ? [t('orders.ordered', done)] : []), ...refused];
    form[supplier] = { on: '', reference: '' };
  });
const arrived = (line: Line, result: 'right' | 'wrong'): Promise<void> =>
  quietly(async () => {
    const { refused } = await write([line], ({ part }) => ({ kind: 'part.arrived', v: 1, want: part.want, result }));
    said.value = refused;
  });
const today = computed(() => dayIn(0, new Date(now.value)));
const day = (on: string): string => d(new Date(`${on}T12:00:00`), 'weekday');
const late = ({ job, part }: Line): boolean => job.promisedOn !== null && part.expectedOn !== undefined && part.expectedOn > job.promisedOn;
const save = (): void => saveBlob(new Blob([formatOrdersCsv(jobs.value ?? [])], { type: 'text/csv' }), `orders-${today.value}.csv`);
</script>

<template>
  <div class="orders">
    <PartsTabs />
    <NotReachedSheet v-if="!reached && jobs === undefined" @again="load" />
    <template v-else>
      <p v-if="!reached" class="sheet alarm" role="alert">{{ t('common.notReached') }}</p>
      <ul v-if="said.length > 0" class="sheet" role="status" data-test="orders-said">
        <li v-for="one in said" :key="one">{{ one }}</li>
      </ul>
      <section v-if="jobs && lines.length === 0" class="sheet" data-test="no-orders">
        <p>{{ t('orders.none') }}</p>
        <p class="soft">{{ t('orders.noneHelp') }}</p>
      </section>
      <section v-if="ofState('to-order').length > 0" class="sheet">
        <div class="line">
          <h2>{{ t('orders.toOrder', { n: ofState('to-order').length }) }}</h2>
          <button type="button" class="plain" @click="save">{{ t('orders.save') }}</button>
        </div>
        <form
          v-for="[supplier, group] in suppliers"
          :key="supplier"
          class="group"
          :data-supplier="supplier"
          @submit.prevent="order(supplier, group)"
        >
          <h3>
            {{ supplier === '' ? t('orders.noSupplier') : supplier }}
            <span class="soft">{{ t('orders.sum', { amount: sum(group) }) }}</span>
          </h3>
          <ul>
            <li v-for="{ job, part } in group" :key="part.want" :data-want="part.want">
              <el-checkbox
                :model-value="chosen.has(part.want)"
                :disabled="supplier === '' || part.refused !== undefined"
                :aria-label="t('orders.select', { number: part.number, n: job.number })"
                @update:model-value="(on) => (on ? chosen.add(part.want) : chosen.delete(part.want))"
              />
              <RouterLink :to="`/jobs/${job.jobId}/parts`">{{ job.number }} {{ job.title }}</RouterLink>
              <span>
                {{ names.assembly(part.assembly) }} <span class="reading">{{ part.number }}</span>
                <span v-if="part.unproven" class="alarm note">{{ t('parts.guess') }}</span>
                <span v-if="part.refused" class="alarm note">{{ t(`core.orderRefusal.${part.refused.why}`) }}</span>
              </span>
              <span class="reading">{{ money(part.price) }}</span>
            </li>
          </ul>
          <div v-if="pickedOf(group).length > 0" class="fields quarters">
            <FormField :id="`on-${supplier}`" :label="t('orders.expected')">
              <el-date-picker :id="`on-${supplier}`" v-model="formOf(supplier).on" type="date" value-format="YYYY-MM-DD" />
            </FormField>
            <TextField
              :id="`reference-${supplier}`"
              v-model="formOf(supplier).reference"
              :label="t('orders.reference')"
              :bounds="{ longest: 80 }"
            />
            <button type="submit" class="push full bottom" data-test="order-group">{{ t('orders.order', pickedOf(group).length) }}</button>
          </div>
        </form>
      </section>
      <section v-if="ofState('on-order').length > 0" class="sheet" data-test="on-order">
        <h2>{{ t('orders.onOrder', { n: ofState('on-order').length }) }}</h2>
        <ul>
          <li v-for="line in ofState('on-order')" :key="line.part.want" :data-want="line.part.want">
            <span :class="{ alarm: (line.part.expectedOn ?? '9999') < today }">
              {{
                line.part.expectedOn
                  ? t(line.part.expectedOn < today ? 'parts.overdue' : 'parts.expected', { day: day(line.part.expectedOn) })
                  : ''
              }}
              <span v-if="late(line)" class="alarm">{{ t('orders.late') }}</span>
            </span>
            <RouterLink :to="`/jobs/${line.job.jobId}/parts`">{{ line.job.number }} {{ line.job.title }}</RouterLink>
            <span>
              {{ names.assembly(line.part.assembly) }} <span class="reading">{{ line.part.number }}</span>{{ ' ' }}
              <span class="soft">{{ line.part.supplier }}</span>
            </span>
            <span class="inline">
              <button type="button" class="push" data-test="came-right" @click="arrived(line, 'right')">
                {{ t('parts.arrived.right') }}
              </button>
              <button type="button" class="push" data-test="came-wrong" @click="arrived(line, 'wrong')">
                {{ t('parts.arrived.wrong') }}
              </button>
            </span>
          </li>
        </ul>
      </section>
      <section v-for="state in ['here', 'to-send-back'] as const" v-show="ofState(state).length > 0" :key="state" class="sheet">
        <h2>{{ t(state === 'here' ? 'orders.here' : 'orders.back', { n: ofState(state).length }) }}</h2>
        <ul>
          <li v-for="{ job, part } in ofState(state)" :key="part.want">
            <span class="soft">{{ part.supplier ?? (part.item ? t('parts.fromStock') : '') }}</span>
            <RouterLink :to="`/jobs/${job.jobId}/parts`">{{ job.number }} {{ job.title }}</RouterLink>
            <span>
              {{ names.assembly(part.assembly) }} <span class="reading">{{ part.number }}</span>
            </span>
            <span class="reading">{{ money(part.price) }}</span>
          </li>
        </ul>
      </section>
      <section v-if="proposed.length > 0" class="sheet" data-test="proposed">
        <h2>{{ t('orders.proposed') }}</h2>
        <ul>
          <li v-for="one in proposed" :key="one.number">
            <span class="reading">{{ t('orders.times', one.fitted) }}</span>
            <span class="reading">{{ one.number }}</span>
            <span>{{ names.assembly(one.assembly) }}</span>
            <span class="soft">{{ t('orders.lastOn', { day: d(`${one.lastOn}T12:00:00`, 'day') }) }}</span>
          </li>
        </ul>
      </section>
      <section v-if="low.length > 0" class="sheet" data-test="low-stock">
        <h2>{{ t('stockParts.low', { n: low.length }) }}</h2>
        <ul>
          <li v-for="{ item, count } in low" :key="item.id">
            <span class="reading">{{ count }} / {{ item.least }}</span>
            <RouterLink :to="`/parts/stock?item=${item.id}`">{{ item.number }}</RouterLink>
            <span>{{ item.name }}</span>
            <span class="soft">{{ item.supplier }}</span>
          </li>
        </ul>
      </section>
    </template>
  </div>
</template>

<style scoped>
.orders > section {
  margin-bottom: 10px;
}
section > ul > li .note,
.note {
  display: block;
}
.line {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
h3 {
  font-size: 17px;
  margin: 8px 0 2px;
}
.group + .group {
  border-top: 2px solid var(--line);
}
section > ul > li,
.group > ul > li {
  display: grid;
  grid-template-columns: minmax(40px, auto) minmax(0, 1fr) minmax(0, 2fr) auto;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
  border-top: 1px solid var(--line);
}
section:not(:has(form)) > ul > li {
  grid-template-columns: minmax(150px, auto) minmax(0, 1fr) minmax(0, 2fr) auto;
}
@media (max-width: 800px) {
  section > ul > li,
  .group > ul > li {
    grid-template-columns: minmax(0, 1fr) !important;
    gap: 2px;
  }
}
</style>
