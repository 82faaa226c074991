<script setup lang="ts">
/** What lies in the shop to be fitted: boards, strips, chips, consumables and donor sets. */
import { formatStockCsv, type StockState } from '@veglia/contract';
import { watchDebounced } from '@vueuse/core';
import { v7 as uuidv7 } from 'uuid';
import { computed, onMounted, ref, shallowRef } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import { money, useNames } from '../../names.ts';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import TextField from '../../parts/TextField.vue';
import { saveBlob } from '../../saveBlob.ts';
import { usePacks } from '../../stores/packs.ts';
import { useShopSettings } from '../../stores/shopSettings.ts';
import PartsTabs from './PartsTabs.vue';
import StockCsvSheet from './StockCsvSheet.vue';
import StockItemForm from './StockItemForm.vue';
import StockPieces from './StockPieces.vue';

const { t } = useI18n();
const packs = usePacks();
const shop = useShopSettings();
const names = useNames(() => packs.current);
const find = ref('');
const lowOnly = ref(false);
const items = shallowRef<readonly StockState[]>();
const reached = ref(true);
const asked = useRoute().query.item;
const chosen = ref(typeof asked === 'string' ? asked : '');
const fresh = ref('');
const file = shallowRef<{ readonly name: string; readonly text: string }>();

async function load(): Promise<void> {
  try {
    await packs.loadCurrent().catch(() => undefined);
    const reply = await api.stock({ find: find.value });
    if (reply.ok) items.value = reply.value.items;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = false;
  }
}
onMounted(load);
watchDebounced(find, load, { debounce: 250 });
const isLow = ({ item, count }: StockState): boolean => item.least !== undefined && count < item.least;
const shown = computed(() => (items.value ?? []).filter((one) => !lowOnly.value || isLow(one)));
const low = computed(() => (items.value ?? []).filter(isLow).length);
const state = computed(() => (fresh.value === '' ? (items.value?.find(({ item }) => item.id === chosen.value) ?? undefined) : undefined));
function add(): void {
  fresh.value = uuidv7();
  chosen.value = '';
}
function pick(id: string): void {
  fresh.value = '';
  chosen.value = id;
}
async function saved(id: string): Promise<void> {
  await load();
  pick(id);
}
async function read(event: Event): Promise<void> {
  const field = event.target as HTMLInputElement;
  const picked = field.files?.[0];
  field.value = '';
  if (picked) file.value = { name: picked.name, text: await picked.text() };
}
const save = (): void => saveBlob(new Blob([formatStockCsv(items.value ?? [])], { type: 'text/csv' }), 'stock.csv');
</script>

<template>
  <div>
    <PartsTabs />
    <NotReachedSheet v-if="!reached && items === undefined" @again="load" />
    <template v-else>
      <p v-if="!reached" class="sheet alarm" role="alert">{{ t('common.notReached') }}</p>
      <StockCsvSheet
        v-if="file"
        :key="file.text"
        :file="file"
        :known="items ?? []"
        :currency="shop.currency"
        @close="file = undefined"
        @saved="load"
      />
      <div class="columns">
        <section class="sheet stack">
          <TextField id="parts-find" v-model="find" :label="t('stockParts.find')" />
          <div class="inline">
            <button type="button" class="push full" data-test="add-item" @click="add">{{ t('stockParts.add') }}</button>
            <label class="push">
              {{ t('stockParts.csvIn') }}
              <input type="file" accept=".csv,text/csv" class="visually-hidden" data-test="stock-csv" @change="read" />
            </label>
            <button type="button" class="push" :disabled="(items?.length ?? 0) === 0" data-test="stock-csv-out" @click="save">
              {{ t('stockParts.csvOut') }}
            </button>
          </div>
          <el-checkbox v-if="low > 0" v-model="lowOnly">{{ t('stockParts.lowOnly') }} ({{ low }})</el-checkbox>
          <template v-if="items && shown.length === 0">
            <p data-test="no-items">{{ find.trim() === '' ? t('stockParts.none') : t('stockParts.nothing', { text: find.trim() }) }}</p>
            <p v-if="find.trim() === ''" class="soft">{{ t('stockParts.noneHelp') }}</p>
          </template>
          <ul data-test="items">
            <li v-for="one in shown" :key="one.item.id">
              <button type="button" :aria-pressed="one.item.id === chosen" :data-number="one.item.number" @click="pick(one.item.id)">
                <span>
                  <strong>{{ one.item.number }}</strong>
                  <span class="soft line">
                    {{
                      [
                        t(`stockParts.kind.${one.item.what}`),
                        one.item.assembly ? names.assembly(one.item.assembly) : '',
                        one.item.place ?? '',
                        one.item.price ? money(one.item.price) : '',
                      ]
                        .filter(Boolean)
                        .join(', ')
                    }}
                  </span>
                </span>
                <span class="reading" :class="{ alarm: isLow(one) || one.count < 0 }">
                  {{ one.count }}
                  <span v-if="one.reserved > 0" class="soft">({{ one.reserved }} {{ t('stockParts.reserved') }})</span>
                </span>
              </button>
            </li>
          </ul>
        </section>
        <div class="stack">
          <StockItemForm
            v-if="fresh !== '' || state"
            :id="fresh === '' ? chosen : fresh"
            :key="`${fresh}${chosen}${state?.version ?? 0}`"
            :state="state"
            :currency="shop.currency"
            :names="names"
            :assemblies="packs.current?.pack.assemblies.filter(({ kind }) => kind !== 'outside').map(({ id }) => id) ?? []"
            @saved="saved"
          />
          <StockPieces v-if="state" :key="state.item.id" :state="state" @moved="load" />
        </div>
      </div>
    </template>
  </div>
</template>

<style scoped>
.columns {
  display: grid;
  grid-template-columns: minmax(0, 2fr) minmax(0, 3fr);
  gap: 10px;
  align-items: start;
}
.stack {
  display: grid;
  gap: 10px;
}
li button {
  display: flex;
  justify-content: space-between;
  gap: 12px;
  width: 100%;
  min-height: 48px;
  padding: 4px 8px;
  border: 0;
  border-top: 1px solid var(--line);
  background: none;
  text-align: left;
  cursor: pointer;
}
li button[aria-pressed='true'] {
  background: var(--accent-wash);
}
li button > span:first-child {
  overflow-wrap: anywhere;
}
.line {
  display: block;
}
@media (max-width: 900px) {
  .columns {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
