<script setup lang="ts">
/** A day with many sets: what to do next across benches, and every set on its shelf. */
import type { JobCard } from '@veglia/contract';
import { computed, defineAsyncComponent, onMounted, ref } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRouter } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import { textOf, usePacks } from '../../stores/packs.ts';
import { useShelf } from '../../stores/shelf.ts';
import AcrossBenches from './AcrossBenches.vue';
import { jobOfCode, searchCards } from './search.ts';
import SetCard from './SetCard.vue';

const ScanCode = defineAsyncComponent(() => import('./ScanCode.vue'));
const { t } = useI18n();
const router = useRouter();
const packs = usePacks();
const shelf = useShelf();
const names = useNames(() => packs.current);
const wanted = ref('');
const unknownCode = ref(false);
const scanning = ref(false);
const benches = ref(1);
const ready = ref(false);

const familyName = (id: string): string => textOf(packs.current?.families.get(id)?.name);
const found = computed(() => searchCards(shelf.cards ?? [], jobOfCode(wanted.value) === undefined ? wanted.value : '', familyName));
const open = computed(() => found.value.filter((card) => card.state !== 'closed'));
const closed = computed(() => found.value.filter((card) => card.state === 'closed'));
/** Shelf by shelf in the order of their names; those that stand nowhere yet come last. */
const shelves = computed(() => {
  const by = new Map<string, JobCard[]>();
  for (const card of open.value) by.set(card.shelf ?? '', [...(by.get(card.shelf ?? '') ?? []), card]);
  return [...by].sort(([a], [b]) => Number(a === '') - Number(b === '') || a.localeCompare(b, undefined, { numeric: true }));
});

/** A scanner types what it reads and presses Enter; so does a person who knows the number. */
function go(): void {
  const job = jobOfCode(wanted.value);
  unknownCode.value = false;
  if (job !== undefined) {
    if (shelf.cards?.some(({ jobId }) => jobId === job)) void router.push(`/jobs/${job}`);
    else unknownCode.value = true;
    return;
  }
  const [only, ...others] = found.value;
  if (only && others.length === 0) void router.push(`/jobs/${only.jobId}`);
}

/** A code that is no label's is told, and the camera goes on looking. */
function scanned(text: string): void {
  unknownCode.value = jobOfCode(text) === undefined;
  if (unknownCode.value) return;
  scanning.value = false;
  wanted.value = text;
  go();
}

async function load(): Promise<void> {
  try {
    await packs.loadCurrent();
    const shop = await api.shop();
    if (shop.ok) benches.value = Math.max(1, Math.min(6, shop.value.settings.benches.length));
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
  }
  await shelf.load();
  ready.value = true;
}
onMounted(load);
</script>

<template>
  <div class="head">
    <h1>{{ t('shelves.title') }}</h1>
    <form role="search" @submit.prevent="go">
      <label for="find" class="visually-hidden">{{ t('shelves.find') }}</label>
      <input id="find" v-model="wanted" type="search" autocomplete="off" autofocus :placeholder="t('shelves.find')" />
      <KeyCap label="↵" />
      <button type="button" class="push" :aria-pressed="scanning" data-test="scan-on" @click="scanning = !scanning">
        {{ t('shelves.scan.open') }}
      </button>
    </form>
    <RouterLink class="push full" to="/jobs/new">{{ t('app.takeIn') }}</RouterLink>
  </div>
  <ScanCode v-if="scanning" @read="scanned" @close="scanning = false" />
  <p v-if="unknownCode" class="sheet alarm" role="alert">{{ t('shelves.unknownCode') }}</p>
  <NotReachedSheet v-if="!shelf.cards && !shelf.reached" @again="load" />
  <p v-else-if="!shelf.cards || !ready" class="soft">{{ t('common.loading') }}</p>
  <section v-else-if="shelf.cards.length === 0 && shelf.unreadable.length === 0" class="sheet empty">
    <h1>{{ t('shelves.empty') }}</h1>
    <p>{{ t('shelves.emptyHelp') }}</p>
  </section>
  <template v-else>
    <p v-if="shelf.unreadable.length > 0" class="sheet alarm" role="status" data-test="unreadable">
      {{ t('shelves.unreadable', shelf.unreadable.length) }}
      <RouterLink v-for="one in shelf.unreadable" :key="one.jobId" :to="`/jobs/${one.jobId}`">{{ one.number }}</RouterLink>
    </p>
    <AcrossBenches v-if="wanted.trim() === ''" :cards="shelf.cards" :names="names" :benches="benches" />
    <p v-if="found.length === 0" class="sheet">{{ t('shelves.nothingFound', { text: wanted }) }}</p>
    <section v-for="[name, cards] in shelves" :key="name" class="shelf" data-shelf="open" :data-place="name">
      <h2>
        {{ name === '' ? t('shelves.nowhere') : t('shelves.place', { name })
        }}<span class="soft">, {{ t('shelves.sets', cards.length) }}</span>
      </h2>
      <ul>
        <li v-for="card in cards" :key="card.jobId"><SetCard :card="card" :names="names" /></li>
      </ul>
    </section>
    <section v-if="closed.length > 0" class="shelf" data-shelf="closed">
      <details :open="wanted.trim() !== '' || open.length === 0">
        <summary>
          {{ t('core.jobState.closed') }} <span class="figure">{{ closed.length }}</span>
        </summary>
        <ul>
          <li v-for="card in closed" :key="card.jobId"><SetCard :card="card" :names="names" /></li>
        </ul>
      </details>
    </section>
  </template>
</template>

<style scoped>
.head {
  display: flex;
  flex-wrap: wrap;
  justify-content: space-between;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 12px;
}
form {
  flex: 1;
  max-width: 520px;
  display: flex;
  align-items: center;
  gap: 8px;
}
input {
  flex: 1;
  min-width: 0;
  min-height: 44px;
  padding: 4px 12px;
  border: 1.5px solid var(--ink-soft);
  border-radius: var(--radius);
  background: var(--surface);
}
.shelf {
  margin-bottom: 14px;
  border-bottom: 6px solid var(--sunk);
  padding-bottom: 6px;
}
.shelf h2 {
  margin-bottom: 4px;
}
.shelf li + li {
  margin-top: 4px;
}
summary {
  min-height: 40px;
  font-weight: 700;
  color: var(--ink-soft);
  cursor: pointer;
}
.empty {
  padding: 40px;
  text-align: center;
}
</style>
