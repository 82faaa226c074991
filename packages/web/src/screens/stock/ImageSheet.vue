<script setup lang="ts">
/** One image: what it is, its hashes, how it differs from another, and its bytes. */
import type { Image, ImageComparison, ImageFacts } from '@veglia/contract';
import { addressOf } from '@veglia/contract';
import { formatBytes, ownByDifference, type DumpComparison, type Moved, type OwnPlace } from '@veglia/core';
import { wrap, type Remote } from 'comlink';
import { computed, onUnmounted, ref, shallowRef, watch } from 'vue';
import { useI18n } from 'vue-i18n';
import { api, NotReached } from '../../api.ts';
import ChoiceField from '../../parts/ChoiceField.vue';
import TextField from '../../parts/TextField.vue';
import { useSession } from '../../stores/session.ts';
import type { ComparedBytes, ImageComparer } from '../../workers/compare.worker.ts';
import ContentSheet from './ContentSheet.vue';
import FactsForm from './FactsForm.vue';
import HexView from './HexView.vue';
import OwnContent from './OwnContent.vue';

const props = defineProps<{ image: Image; images: readonly Image[]; personOf: (id: string) => string }>();
const emit = defineEmits<{ erased: []; changed: [] }>();
const { t, d, n } = useI18n();
const session = useSession();
/** The bytes of a dump with a customer's data are shown on request only. */
const asked = ref(false);
const bytesShown = computed(() => asked.value || ![props.image, beside.value].some((one) => one?.facts.userData === true));
const erasing = ref(false);
const reason = ref('');
async function erase(): Promise<void> {
  const by = session.person?.id;
  if (by === undefined || reason.value.trim() === '') return void (wrong.value = t('stock.erase.reasonFirst'));
  try {
    const reply = await api.eraseImage(props.image.id, { by, reason: reason.value.trim() });
    if (reply.ok) emit('erased');
    else wrong.value = reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    wrong.value = t('stock.away');
  }
}
const refused = ref('');
/** What is said of it is replaced as a whole; what was said stays on record. */
async function say(facts: ImageFacts): Promise<void> {
  const by = session.person?.id;
  if (by === undefined) return;
  refused.value = '';
  try {
    const { id, size, sha256 } = props.image;
    const reply = await api.publishImage(id, { by, size, sha256, facts });
    if (reply.ok) emit('changed');
    else refused.value = reply.problem.title;
  } catch (error) {
    if (!(error instanceof NotReached)) throw error;
    refused.value = t('stock.away');
  }
}
/** Found by looking inside; where two sets of one board differ. What is marked already is not proposed again. */
const found = shallowRef<readonly OwnPlace[]>([]);
const proposed = computed(() =>
  [...found.value, ...(compared.value ? ownByDifference(compared.value.comparison) : [])].filter(
    ({ from, to }) => !(props.image.facts.own ?? []).some((one) => one.from <= from && to <= one.to),
  ),
);
const hexView = ref<InstanceType<typeof HexView>>();
const other = ref('');
const chunks = shallowRef<ImageComparison>();
const compared = shallowRef<ComparedBytes>();
const comparing = ref(false);
const wrong = ref('');
let worker: Worker | undefined;
onUnmounted(() => worker?.terminate());

const lineOf = ({ facts, size, sha256 }: Image): string =>
  [facts.name, facts.board, facts.panel, formatBytes(size), sha256.slice(0, 12)].filter(Boolean).join(', ');
const others = computed(() => props.images.filter(({ id }) => id !== props.image.id).map((one) => ({ value: one.id, label: lineOf(one) })));
const beside = computed(() => props.images.find(({ id }) => id === other.value));
const contentOf = (id: string): string => addressOf('imageContent', { id }, undefined);
const facts = computed(() => {
  const { facts: of } = props.image;
  return [
    [t('stock.fact.memory'), [t(`memory.${of.memory}`), t(`flash.area.${of.area}`)].join(', ')],
    [t('stock.fact.source'), t(`flash.source.${of.source}`)],
    [t('stock.fact.board'), [of.board, of.revision].filter(Boolean).join(' ')],
    [t('stock.fact.panel'), [of.panel, of.resolution?.join(' × ')].filter(Boolean).join(', ')],
    [t('stock.fact.chip'), of.chip],
    [t('stock.fact.region'), of.region],
    [t('stock.fact.companion'), of.companion],
    [
      t('stock.fact.size'),
      [formatBytes(props.image.size), `${n(props.image.size)} B`].filter((one, at, all) => at === 1 || !all[0]?.endsWith(' B')).join(', '),
    ],
    [t('stock.fact.added'), `${d(props.image.at, 'minute')}, ${props.personOf(props.image.by)}`],
    [
      t('stock.fact.reconstructed'),
      of.reconstructed && t('stock.reconstructed', { n: of.reconstructed.reads, bytes: of.reconstructed.doubtfulBytes }),
    ],
  ].filter((one): one is [string, string] => one[1] !== undefined && one[1] !== '');
});

watch(other, async (id) => {
  worker?.terminate();
  worker = undefined;
  chunks.value = undefined;
  compared.value = undefined;
  wrong.value = '';
  const second = beside.value;
  if (id === '' || !second) return;
  comparing.value = true;
  try {
    const reply = await api.compareImages(props.image.id, id);
    if (!reply.ok) return void (wrong.value = reply.problem.title);
    if (other.value !== id) return;
    chunks.value = reply.value;
    if (reply.value.equal) return;
    worker = new Worker(new URL('../../workers/compare.worker.ts', import.meta.url), { type: 'module' });
    const comparer: Remote<ImageComparer> = wrap<ImageComparer>(worker);
    const found = await comparer.compare({
      content: [contentOf(props.image.id), contentOf(id)],
      sizes: [props.image.size, second.size],
      runs: reply.value.runs,
    });
    if (other.value === id) compared.value = found;
  } catch {
    // The server or the worker: the images themselves are as they were.
    if (other.value === id) wrong.value = t('stock.away');
  } finally {
    if (other.value === id) comparing.value = false;
  }
});
const hex = (at: number): string => `0x${at.toString(16)}`;
const movedLine = ({ by, from, to }: Moved): string =>
  t(by > 0 ? 'stock.compare.further' : 'stock.compare.before', { from: hex(from), to: hex(to), bytes: n(Math.abs(by)) });
const summary = computed((): string => {
  const found: DumpComparison | undefined = compared.value?.comparison;
  if (chunks.value?.equal === true) return t('stock.compare.equal');
  if (!found) return '';
  const places = found.places.length + found.morePlaces;
  const values = {
    bytes: n(found.differingBytes),
    places: n(places),
    first: hex(found.first ?? 0),
    rose: n(found.rose),
    fell: n(found.fell),
  };
  return t('stock.compare.found', values, places);
});
</script>

<template>
  <section class="sheet image" data-test="image">
    <h2>{{ image.facts.name }}</h2>
    <dl>
      <template v-for="[name, value] in facts" :key="name">
        <dt>{{ name }}</dt>
        <dd>{{ value }}</dd>
      </template>
      <dt>SHA-256</dt>
      <dd class="reading hash">{{ image.sha256 }}</dd>
      <dt>CRC-32, MD5</dt>
      <dd class="reading hash">{{ image.crc32 }}, {{ image.md5 }}</dd>
    </dl>
    <p class="inline">
      <a class="push" :href="contentOf(image.id)" :download="`${image.sha256.slice(0, 12)}.bin`">{{ t('stock.download') }}</a>
      <RouterLink v-if="image.facts.job" class="push" :to="`/jobs/${image.facts.job}`">{{ t('stock.job') }}</RouterLink>
    </p>
    <p v-if="image.facts.userData" class="alarm" data-test="user-data">{{ t('stock.userData') }}</p>
    <FactsForm :image="image" :person-of="personOf" :wrong="refused || undefined" @change="say" />
    <OwnContent
      :image="image"
      :proposed="proposed"
      @go-to="(offset) => hexView?.goTo(offset)"
      @mark="(own) => say({ ...image.facts, own: [...own] })"
    />
    <ContentSheet
      :image="image"
      :address="contentOf(image.id)"
      @go-to="(offset) => hexView?.goTo(offset)"
      @own="(places) => (found = places)"
    />
    <ChoiceField
      id="compare-with"
      v-model="other"
      searched
      :label="t('stock.compare.with')"
      :options="others"
      :none="t('stock.compare.none')"
    />
    <p v-if="comparing" role="status">{{ t('stock.compare.comparing') }}</p>
    <p v-if="wrong" class="alarm" role="alert">{{ wrong }}</p>
    <div v-if="summary" role="status" data-test="compared">
      <p>{{ summary }}</p>
      <p v-for="one in compared?.comparison.findings ?? []" :key="one">{{ t(`stock.compare.finding.${one}`) }}</p>
      <p v-for="one in compared?.comparison.moved ?? []" :key="`${one.by} ${one.from}`" data-test="moved">{{ movedLine(one) }}</p>
      <p v-if="chunks && !chunks.equal" class="soft">
        {{ t('stock.compare.chunks', { differing: n(chunks.differing), chunks: n(chunks.chunks), size: formatBytes(chunks.chunkBytes) }) }}
      </p>
      <p v-if="compared?.lookedAt !== undefined" class="alarm">{{ t('stock.compare.upTo', { size: formatBytes(compared.lookedAt) }) }}</p>
    </div>
    <HexView v-if="bytesShown" ref="hexView" :image="image" :other="beside" :places="compared?.comparison.places ?? []" />
    <button v-else type="button" class="push" data-test="show-bytes" @click="asked = true">{{ t('stock.showBytes') }}</button>
    <form v-if="erasing" class="fields" @submit.prevent="erase">
      <TextField id="erase-reason" v-model="reason" class="wide" :label="t('stock.erase.reason')" :bounds="{ longest: 400 }" />
      <button type="submit" class="push" data-test="erase-image">{{ t('stock.erase.do') }}</button>
      <button type="button" class="plain" @click="erasing = false">{{ t('stock.erase.keep') }}</button>
    </form>
    <p v-else>
      <button type="button" class="plain" data-test="erase-open" @click="erasing = true">{{ t('stock.erase.open') }}</button>
    </p>
  </section>
</template>

<style scoped>
.image {
  display: grid;
  gap: 10px;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 2px 14px;
  margin: 0;
}
dt {
  color: var(--ink-soft);
}
dd {
  margin: 0;
}
.hash {
  overflow-wrap: anywhere;
  font-size: 13px;
}
</style>
