<script setup lang="ts">
/** The reader by itself, the family's table beside it, and the codes this shop has seen. */
import type { BlinkTables, CodeCounts } from '@veglia/contract';
import { computed, onMounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRoute } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import { textOf, usePacks } from '../../stores/packs.ts';
import BlinkReader from './BlinkReader.vue';
import TableSheet from './TableSheet.vue';
import { codesSeen } from './tables.ts';

const { t } = useI18n();
const packs = usePacks();
const names = useNames(() => packs.current);
const reached = ref(true);
const route = useRoute();
/** Opened from the family itself. */
const family = ref(typeof route.query.family === 'string' ? route.query.family : '');
const changes = shallowRef<BlinkTables['changes']>([]);
const codes = shallowRef<CodeCounts['codes']>([]);

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    const tables = await api.blinkTables();
    if (tables.ok) changes.value = tables.value.changes;
    reached.value = true;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    reached.value = packs.current !== undefined;
  }
}
onMounted(load);
const families = computed(() => (packs.current?.pack.families ?? []).map(({ id, name }) => ({ value: id, label: textOf(name) })));
const healthy = computed(() => packs.current?.families.get(family.value)?.healthy);
const seen = computed(() => codesSeen(codes.value));
watch(
  family,
  async (id) => {
    codes.value = [];
    if (id === '') return;
    try {
      const reply = await api.familyCodes(id);
      if (reply.ok && family.value === id) codes.value = reply.value;
    } catch (error) {
      if (!(error instanceof NotReached)) throw error;
    }
  },
  { immediate: true },
);
const found = (what: string | undefined): string =>
  what === undefined ? t('blink.records.unknown') : packs.current?.faults.has(what) ? names.fault(what) : names.assembly(what);
</script>

<template>
  <div class="headline">
    <h1>{{ t('blink.title') }}</h1>
    <ChoiceField
      v-if="packs.current"
      id="blink-family"
      v-model="family"
      class="family"
      :label="t('blink.family')"
      :options="families"
      :none="t('blink.noFamilyChosen')"
      searched
    />
    <p v-if="healthy" class="soft healthy">
      {{ t('counter.healthy') }}: {{ t('counter.healthyOff') }} {{ textOf(healthy.off) }}; {{ t('counter.healthyStarting') }}
      {{ textOf(healthy.starting) }}; {{ t('counter.healthyOn') }} {{ textOf(healthy.on) }}
    </p>
  </div>
  <NotReachedSheet v-if="!reached" @again="load" />
  <div v-else-if="packs.current" class="stack">
    <BlinkReader :compiled="packs.current" :family="family || undefined" :layouts="[]" />
    <template v-if="family !== ''">
      <TableSheet :compiled="packs.current" :family="family" :changes="changes" @stored="load" />
      <section class="sheet" data-test="blink-records">
        <h2>{{ t('blink.records.title') }}</h2>
        <p v-if="seen.length === 0" class="soft">{{ t('blink.records.none') }}</p>
        <ul v-else>
          <li v-for="one in seen" :key="one.code">
            <strong class="reading">{{ one.code }}</strong> <span class="soft">{{ t('blink.records.line', { n: one.n }) }}</span>
            {{ one.found.map(({ what, n }) => `${found(what)} (${n})`).join(', ') }}
          </li>
        </ul>
      </section>
    </template>
  </div>
  <p v-else class="soft">{{ t('common.loading') }}</p>
</template>

<style scoped>
.headline {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 6px 20px;
  margin-bottom: 10px;
}
.family {
  width: 260px;
}
.healthy {
  flex: 1 1 300px;
  font-size: 15px;
}
.stack {
  display: grid;
  gap: 12px;
}
li {
  padding: 3px 0;
}
</style>
