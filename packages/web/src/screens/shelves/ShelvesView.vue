<script setup lang="ts">
/** A day with many sets: what to do next across benches, every open set on its shelf, and a search over all jobs. */
import type { JobCard } from '@veglia/contract';
import { useDebounceFn } from '@vueuse/core';
import { computed, defineAsyncComponent, onMounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { useRouter } from 'vue-router';
import { api, NotReached } from '../../api.ts';
import { useNames } from '../../names.ts';
import KeyCap from '../../parts/KeyCap.vue';
import NotReachedSheet from '../../parts/NotReachedSheet.vue';
import { textOf, usePacks } from '../../stores/packs.ts';
import { practiceOver } from '../../stores/practice.ts';
import { useShelf } from '../../stores/shelf.ts';
import AcrossBenches from './AcrossBenches.vue';
import CardList from './CardList.vue';
import UncollectedList from './UncollectedList.vue';
import { jobOfCode, rowsOf, searchCards } from './search.ts';

const PracticeOffer = defineAsyncComponent(() => import('../practice/PracticeOffer.vue'));
const ScanCode = defineAsyncComponent(() => import('./ScanCode.vue'));
const { t } = useI18n();
const router = useRouter();
const packs = usePacks();
const shelf = useShelf();
shelf.show();
const names = useNames(() => packs.current);
const wanted = ref('');
const unknownCode = ref(false);
const scanning = ref(false);
const benches = ref(1);
const ready = ref(false);

interface Found {
  readonly text: string;
  readonly jobs: readonly JobCard[];
  readonly total: number;
  readonly more: boolean;
  /** The server was away: only the open sets kept here were searched. */
  readonly hereOnly: boolean;
}
/** What was found last; undefined while nothing is asked for. */
const found = shallowRef<Found>();
const asked = computed(() => (jobOfCode(wanted.value) === undefined ? wanted.value.trim() : ''));
/** Found at once are so many: beyond them a further word is quicker than reading (value of ours). */
const mostFound = 100;
/** A search is sent once typing rests for so many milliseconds. */
const rest = 150;

const familyName = (id: string): string => textOf(packs.current?.families.get(id)?.name);
async function search(text: string): Promise<void> {
  let next: Found;
  try {
    const reply = await api.jobsNow({ find: text, order: 'newest', limit: mostFound });
    if (!reply.ok) return;
    next = { text, hereOnly: false, ...reply.value };
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    const jobs = searchCards([...(shelf.cards ?? []), ...shelf.closed], text, familyName);
    next = { text, jobs, total: jobs.length, more: false, hereOnly: true };
  }
  if (asked.value === text) found.value = next;
}
const searchSoon = useDebounceFn(() => (asked.value === '' ? undefined : search(asked.value)), rest);
watch(asked, (text) => {
  if (text === '') found.value = undefined;
  else void searchSoon();
});
// What is found follows what others write.
watch(
  () => shelf.cards,
  () => asked.value !== '' && void searchSoon(),
);

/** A scanner types what it reads and presses Enter; so does a person who knows the number. */
async function go(): Promise<void> {
  const job = jobOfCode(wanted.value);
  unknownCode.value = false;
  if (job !== undefined) {
    if (await isHere(job)) await router.push(`/jobs/${job}`);
    else unknownCode.value = true;
    return;
  }
  if (asked.value === '') return;
  if (found.value?.text !== asked.value) await search(asked.value);
  const [only, ...others] = found.value?.jobs ?? [];
  if (only && others.length === 0) await router.push(`/jobs/${only.jobId}`);
}
async function isHere(job: string): Promise<boolean> {
  if (shelf.cards?.some(({ jobId }) => jobId === job)) return true;
  try {
    const reply = await api.jobsNow({ ids: job });
    return reply.ok && reply.value.jobs.length + reply.value.unreadable.length > 0;
  } catch (error) {
    if (error instanceof NotReached) return false;
    throw error;
  }
}

/** A code that is no label's is told, and the camera goes on looking. */
function scanned(text: string): void {
  unknownCode.value = jobOfCode(text) === undefined;
  if (unknownCode.value) return;
  scanning.value = false;
  wanted.value = text;
  void go();
}

const unlessAway = async (work: Promise<void>): Promise<void> =>
  work.catch((error: unknown) => {
    if (!(error instanceof NotReached)) throw error;
  });
async function load(): Promise<void> {
  await Promise.all([
    shelf.load(),
    unlessAway(packs.loadCurrent().then(() => undefined)),
    unlessAway(
      api.shop().then((shop) => {
        if (shop.ok) benches.value = Math.max(1, Math.min(6, shop.value.settings.benches.length));
      }),
    ),
  ]);
  ready.value = true;
}
onMounted(load);
const openRows = computed(() => rowsOf(shelf.cards ?? [], true));
const foundRows = computed(() => rowsOf(found.value?.jobs ?? [], false));
const closedRows = computed(() => rowsOf(shelf.closed, false));
const empty = computed(() => shelf.total === 0 && shelf.closedTotal === 0 && shelf.unreadable.length === 0);
const placeName = (place: string): string => (place === '' ? t('shelves.nowhere') : t('shelves.place', { name: place }));
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
  <PracticeOffer v-if="ready && practiceOver === 'no'" />
  <NotReachedSheet v-if="!shelf.cards && !shelf.reached" @again="load" />
  <p v-else-if="!shelf.cards || !ready" class="soft">{{ t('common.loading') }}</p>
  <section v-else-if="empty" class="sheet empty">
    <h1>{{ t('shelves.empty') }}</h1>
    <p>{{ t('shelves.emptyHelp') }}</p>
  </section>
  <section v-else-if="found" class="shelf" data-shelf="found">
    <p v-if="found.hereOnly" class="sheet alarm" role="status">{{ t('shelves.foundHereOnly') }}</p>
    <p v-if="found.jobs.length === 0" class="sheet">{{ t('shelves.nothingFound', { text: found.text }) }}</p>
    <template v-else>
      <h2>
        {{ t('shelves.found', found.total) }}<span v-if="found.more">+</span>
        <span v-if="found.total > found.jobs.length" class="soft">{{ t('shelves.foundFirst', { n: found.jobs.length }) }}</span>
      </h2>
      <CardList :rows="foundRows" :names="names" :place-name="placeName" />
    </template>
  </section>
  <template v-else>
    <p v-if="shelf.unreadable.length > 0" class="sheet alarm" role="status" data-test="unreadable">
      {{ t('shelves.unreadable', shelf.unreadable.length) }}
      <RouterLink v-for="one in shelf.unreadable" :key="one.jobId" :to="`/jobs/${one.jobId}`">{{ one.number }}</RouterLink>
    </p>
    <AcrossBenches :cards="shelf.cards" :names="names" :benches="benches" />
    <section v-if="shelf.cards.length > 0" class="shelf" data-shelf="open">
      <CardList :rows="openRows" :names="names" :place-name="placeName" />
      <p v-if="shelf.total > shelf.cards.length" class="soft">{{ t('shelves.moreOpen', { n: shelf.total - shelf.cards.length }) }}</p>
    </section>
    <UncollectedList v-if="shelf.closedTotal > 0" />
    <section v-if="shelf.closedTotal > 0" class="shelf" data-shelf="closed">
      <details :open="shelf.cards.length === 0">
        <summary>
          {{ t('core.jobState.closed') }} <span class="figure">{{ shelf.closedTotal }}{{ shelf.closedMore ? '+' : '' }}</span>
        </summary>
        <CardList :rows="closedRows" :names="names" :place-name="placeName" />
        <button v-if="shelf.closedNext !== null" type="button" class="push" data-test="more-closed" @click="shelf.loadClosed()">
          {{ t('shelves.moreClosed') }}
        </button>
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
